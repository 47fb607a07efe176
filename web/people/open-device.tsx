import { Form, redirect } from 'react-router';
import { z } from 'zod';
import { longDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { closeDevice, groupsAt, mayOpenDevices, openDevice, openDevices } from '~/server/people/devices';
import { hasPin } from '~/server/people/pins';
import { endSession } from '~/server/people/sessions';
import { database } from '~/server/platform/db/current';
import { openedCookie, sayNext, sessionCookie } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { MarginTitle, Page } from '../platform/ui/page';
import { useFreshId } from '../platform/ui/use-fresh-id';
import type { Route } from './+types/open-device';
import { openDeviceWords } from './words';

export const loader = withErrors(async ({ context }: Route.LoaderArgs) => {
  const { actor, person, school } = personOf(context);
  const [groups, devices, mine, mayOpen] = await Promise.all([
    groupsAt(database(), actor),
    openDevices(database(), actor),
    hasPin(database(), person.id),
    mayOpenDevices(database(), actor),
  ]);
  return {
    groups,
    mayOpen,
    hasPin: mine,
    schoolName: school.name,
    devices: devices.map(({ id, name, by, openedAt, isOwn }) => {
      const since = longDate(wallTime(openedAt, school.timeZone).on);
      return { id, name, by, since, mayClose: isOwn || person.isSchoolAdmin };
    }),
  };
});

const asked = z.discriminatedUnion('intent', [
  z.object({ intent: z.literal('open'), id: z.uuid(), groupId: z.union([z.uuid(), z.literal('')]) }),
  z.object({ intent: z.literal('close'), id: z.uuid() }),
]);

/** Opens this device for several adults, and signs out on it; or closes one. */
export const action = withErrors(async ({ context, request }: Route.ActionArgs) => {
  const { actor, person, now } = personOf(context);
  const parsed = asked.safeParse(Object.fromEntries(await formOf(request)));
  if (!parsed.success) return null;
  if (parsed.data.intent === 'close') {
    await closeDevice(database(), actor, { id: parsed.data.id, isAdmin: person.isSchoolAdmin }, now);
    return redirect('/setup/devices', { headers: await sayNext({ text: openDeviceWords.closed }) });
  }
  const { id, groupId } = parsed.data;
  const opened = await openDevice(database(), actor, { id, groupId: groupId || null }, now);
  const token: unknown = await sessionCookie.parse(request.headers.get('Cookie'));
  if (typeof token === 'string') await endSession(database(), token);
  const headers = new Headers({ 'Set-Cookie': await openedCookie.serialize(opened) });
  headers.append('Set-Cookie', await sessionCookie.serialize('', { maxAge: 0 }));
  return redirect('/device', { headers });
});

export const meta: Route.MetaFunction = () => [{ title: openDeviceWords.pageTitle }];

/** A tablet for a class: who takes it taps their name. */
export default function OpenDevice({ loaderData }: Route.ComponentProps) {
  const { groups, devices, schoolName, hasPin: mine, mayOpen } = loaderData;
  const id = useFreshId(devices);
  return (
    <Page
      marginName={openDeviceWords.howItWorks}
      margin={
        <>
          <MarginTitle>{openDeviceWords.howItWorks}</MarginTitle>
          <p className="text-small text-ink-2">{openDeviceWords.howItWorksWords}</p>
        </>
      }
    >
      <h1 className="text-3xl">{openDeviceWords.title}</h1>
      <p className="mt-1.5 max-w-xl text-ink-2">{openDeviceWords.about}</p>
      {!mayOpen && <p className="mt-3 max-w-xl">{openDeviceWords.whoMay}</p>}
      {mayOpen && !mine && <p className="mt-3 max-w-xl font-semibold">{openDeviceWords.youHaveNoPin}</p>}
      {mayOpen && (
        <Form method="post" className="mt-5 flex flex-wrap items-end gap-3">
          <input type="hidden" name="id" value={id} />
          <label className="grid gap-1">
            <span className="text-small font-semibold">{openDeviceWords.forWhom}</span>
            <select name="groupId" className="select w-64">
              <option value="">{openDeviceWords.allOf(schoolName)}</option>
              {groups.map((group) => (
                <option key={group.id} value={group.id}>
                  {group.name}
                </option>
              ))}
            </select>
          </label>
          <button type="submit" name="intent" value="open" className="btn btn-primary">
            {openDeviceWords.open}
          </button>
        </Form>
      )}
      <h2 className="mt-8 text-lg">{openDeviceWords.openNow}</h2>
      {devices.length === 0 && <p className="mt-1 text-ink-2">{openDeviceWords.none}</p>}
      <ul className="mt-1">
        {devices.map((device) => (
          <li key={device.id} className="flex flex-wrap items-center justify-between gap-3 border-b border-rule py-2.5">
            <p>
              <span className="font-semibold">{device.name}</span>{' '}
              <span className="text-small text-ink-2">{openDeviceWords.by(device.by, device.since)}</span>
            </p>
            {device.mayClose && (
              <Form method="post">
                <input type="hidden" name="id" value={device.id} />
                <button type="submit" name="intent" value="close" className="btn btn-sm">
                  {openDeviceWords.close}
                </button>
              </Form>
            )}
          </li>
        ))}
      </ul>
    </Page>
  );
}
