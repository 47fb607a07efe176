import type { SubmissionResult } from '@conform-to/react';
import { data, Link, redirect } from 'react-router';
import { z } from 'zod';
import { shortDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { fateCounts, fates, type PreviewRow } from '~/core/imports/preview';
import { counted } from '~/core/words/counting';
import { forgetImport, importListed, importPage, mappingSchema, saveMapping, takeOver } from '~/server/imports/imports';
import { mappingChoices } from '~/server/imports/mapping-choices';
import { undoImport } from '~/server/imports/undo';
import { config } from '~/server/platform/config';
import { database } from '~/server/platform/db/current';
import { Invalid } from '~/server/platform/failures';
import { sayNext } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { mailLeavesFrom } from '../platform/http/mail-leaves';
import { idFrom, personOf } from '../platform/http/request-person';
import { submitted } from '../platform/http/submitted';
import { withErrors } from '../platform/http/with-errors';
import { MarginTitle, Page } from '../platform/ui/page';
import type { Route } from './+types/import';
import { CameIn, PassOn } from './came-in';
import { Confirm } from './confirm';
import { MappingForm } from './mapping-form';
import { Preview } from './preview';
import { importWords, kindNames } from './words';

/** Rows that are shown at once; the counts are of all. */
const ROWS_SHOWN = 200;
const wanted = z.object({ show: z.enum(fates).optional().catch(undefined) });

export const loader = withErrors(async ({ params, request, context }: Route.LoaderArgs) => {
  const { actor, school, discreet } = personOf(context);
  const { show } = wanted.parse(Object.fromEntries(new URL(request.url).searchParams));
  const { listed, open } = await importPage(database(), actor, idFrom(params.importId));
  const dayOf = (at: Date | null) => at && shortDate(wallTime(at, school.timeZone).on);
  const said = {
    ...{ id: listed.id, kind: listed.kind, parts: listed.parts, discreet },
    fileName: discreet ? kindNames[listed.kind] : listed.fileName,
    ...{ doneOn: dayOf(listed.doneAt), undoneOn: dayOf(listed.undoneAt) },
  };
  // What stands in a file is names.
  if (open === null || discreet) return { ...said, open: null, isOpen: open !== null };
  const { content, table, mapping, planned, facts } = open;
  const rows = planned.rows.filter(({ fate }) => show === undefined || fate === show);
  return {
    ...said,
    isOpen: true,
    open: {
      mapping,
      choices: await mappingChoices(database(), actor, listed.kind, {
        content,
        table,
        facts,
        commands: planned.commands,
      }),
      counts: fateCounts(planned.rows),
      commands: planned.commands.length,
      notes: planned.notes ?? [],
      show: show ?? null,
      rows: rows.slice(0, ROWS_SHOWN),
      found: rows.length,
    },
  };
});

export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, school, now } = personOf(context);
  const id = idFrom(params.importId);
  const listed = await importListed(database(), actor, id);
  const form = await formOf(request);
  const answer = (text: string) => sayNext({ text });
  const none = { result: undefined as SubmissionResult<string[]> | undefined, refused: null as string | null };
  switch (form.get('intent')) {
    case 'look': {
      const { refused } = await submitted(form, mappingSchema(listed.kind), (mapping) =>
        saveMapping(database(), actor, id, mapping, now),
      );
      if (refused) return data({ ...none, result: refused.data.result, passOn: [] }, { status: 400 });
      return data({ ...none, passOn: [] });
    }
    case 'takeOver': {
      try {
        const passOn = await takeOver(database(), actor, id, { now, readsOut: !mailLeavesFrom(school) });
        const codes = passOn.map(({ name, code }) => ({ name, text: `${config.PUBLIC_URL}/account/by/${code}` }));
        const after = await importListed(database(), actor, id);
        const headers = await answer(importWords.imported(counted(after.parts, 'row', 'rows')));
        return data({ ...none, passOn: codes }, { headers });
      } catch (error) {
        if (!(error instanceof Invalid)) throw error;
        const said = Object.values(error.fields).join(' ') || importWords.needsAnotherLook;
        return data({ ...none, refused: said, passOn: [] }, { status: 400 });
      }
    }
    case 'forget':
      await forgetImport(database(), actor, id);
      throw redirect('/imports', { headers: await answer(importWords.forgotten) });
    case 'undo': {
      const { takenBack, stay } = await undoImport(database(), actor, id, now);
      const headers = await answer(importWords.undone(counted(takenBack, 'row', 'rows'), stay));
      return data({ ...none, passOn: [] }, { headers });
    }
    default:
      return data({ ...none, passOn: [] }, { status: 400 });
  }
});

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: importWords.pageTitle(loaderData?.fileName ?? '') },
];

/** One file: what its columns hold, what each row comes to; and once it came in, how to take it back. */
export default function Import({ loaderData, actionData }: Route.ComponentProps) {
  const { id, kind, fileName, open, isOpen, discreet } = loaderData;
  return (
    <Page
      marginName={kindNames[kind]}
      margin={
        <section aria-label={kindNames[kind]}>
          <MarginTitle>{kindNames[kind]}</MarginTitle>
          {open && (
            <Confirm kind={kind} counts={open.counts} commands={open.commands} refused={actionData?.refused ?? null} />
          )}
          <p className="mt-8">
            <Link to="/imports" className="font-semibold link">
              {importWords.toAll}
            </Link>
          </p>
        </section>
      }
    >
      <h1 className="text-3xl wrap-anywhere">{fileName}</h1>
      {actionData && actionData.passOn.length > 0 && <PassOn links={actionData.passOn} />}
      {discreet && isOpen && <p className="mt-5 text-ink-2">{importWords.namesAreHidden}</p>}
      {open && (
        <>
          <MappingForm
            key={`${id} ${JSON.stringify(open.mapping)}`}
            kind={kind}
            {...open}
            result={actionData?.result}
          />
          <Preview {...open} rows={open.rows satisfies PreviewRow[]} />
        </>
      )}
      {!isOpen && <CameIn {...loaderData} />}
    </Page>
  );
}
