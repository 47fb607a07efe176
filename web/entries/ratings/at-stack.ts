import { data, type RouterContextProvider } from 'react-router';
import { type BehindStack, stackBehind } from '~/server/entries/ratings/stack-rater';
import { canOpenLink } from '~/server/people/attempts';
import { asking, database } from '~/server/platform/db/current';
import { closed } from '../../platform/http/at-door';
import { demoIsOpen } from '../../platform/http/demo-open';
import { withFailures } from '../../platform/http/failure-answer';
import { addressContext } from '../../platform/http/security';

interface AtStack {
  params: { token: string };
  context: Readonly<RouterContextProvider>;
}

/** A loader or action for whoever rates a stack by their link: with their list. A link that was never given out is a 404 and counted. */
export const withErrorsAtStack = <Args extends AtStack, Result>(
  handler: (args: Args, list: BehindStack[]) => Promise<Result>,
): ((args: Args) => Promise<Result>) =>
  withFailures(async (args: Args) => {
    if (!(await canOpenLink(database(), args.context.get(addressContext)))) throw data(null, { status: 429 });
    const list = (await stackBehind(database(), args.params.token)).filter(({ isDemo }) => !isDemo || demoIsOpen);
    if (list.length === 0) throw await closed(args.context);
    return handler(args, list);
  });

interface AtSample extends AtStack {
  params: { token: string; sampleId: string };
}

/** The same for one work sample on the list: in one transaction that sees the student whose it is, and is told by no page. */
export const withErrorsAtSample = <Args extends AtSample, Result>(
  handler: (args: Args, sample: BehindStack & { next: string | null }) => Promise<Result>,
): ((args: Args) => Promise<Result>) =>
  withErrorsAtStack(async (args: Args, list) => {
    const at = list.findIndex(({ sampleId }) => sampleId === args.params.sampleId);
    const sample = list[at];
    if (!sample) throw data(null, { status: 404 });
    const next = [...list.slice(at + 1), ...list.slice(0, at)].find(({ isRated }) => !isRated)?.sampleId ?? null;
    return asking({ doorTo: sample.studentId }, () => handler(args, { ...sample, next }));
  });
