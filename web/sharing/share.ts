import { data } from 'react-router';
import { sharedNowTemplate } from '~/core/messages/message-template';
import { type OutsideKind, outsideKinds } from '~/core/sharing/reader-kind';
import { shareNowInput } from '~/core/sharing/share-link';
import { fieldWords, shownFields } from '~/core/sharing/visibility-rule';
import { setFrequency, writeLetter } from '~/server/messages/frequency';
import { config } from '~/server/platform/config';
import { database } from '~/server/platform/db/current';
import { Invalid } from '~/server/platform/failures';
import { endsOfLink, makeShareLink } from '~/server/sharing/share-links';
import { visibilityRules } from '~/server/sharing/visibility';
import { requireStudent } from '~/server/students/students';
import { formOf } from '../platform/http/form-of';
import { isWithoutMail } from '../platform/http/mail-leaves';
import { idFrom, personOf } from '../platform/http/request-person';
import { submitted } from '../platform/http/submitted';
import { withErrors } from '../platform/http/with-errors';
import { saveOrStay } from '../platform/ui/use-saving';
import type { Route } from './+types/share';
import { shareWords } from './words';

/** What is asked when a report is shared: what each kind of reader would see, and until when. */
export const loader = withErrors(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, school } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'share');
  const { rules } = await visibilityRules(database(), student.id);
  const seen = (kind: OutsideKind) =>
    [...shownFields(rules[kind].shows)].map((field) => fieldWords[field].label.toLowerCase());
  return {
    today: actor.today,
    isWithoutMail: isWithoutMail(school),
    ...endsOfLink(student.plan, actor.today),
    seen: Object.fromEntries(outsideKinds.map((kind) => [kind, seen(kind)])),
  };
});

/** Makes the link; says where messages go, and sends it, where that was chosen. */
export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, now, school } = personOf(context);
  const { id: studentId } = await requireStudent(database(), actor, idFrom(params.studentId), 'share');
  const { done, refused } = await submitted(await formOf(request), shareNowInput, async (input) => {
    const { email, sendsNow, ...link } = input;
    const token = await makeShareLink(database(), actor, studentId, link, now);
    if (!token) throw new Invalid({ '': shareWords.alreadyMade });
    if (email) await setFrequency(database(), actor, studentId, { id: link.id, email, frequency: 'byHand' }, now);
    const letter = { id: link.id, linkId: link.id, ...sharedNowTemplate };
    if (sendsNow) await writeLetter(database(), actor, studentId, letter, now);
    return {
      link: `${config.PUBLIC_URL}/shared/${token}`,
      readerName: link.readerName,
      sentTo: sendsNow && email && !isWithoutMail(school) ? email : null,
    };
  });
  if (refused) return data({ made: null, result: refused.data.result }, { status: 400 });
  return data({ made: done ?? null, result: null });
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => saveOrStay(serverAction);
