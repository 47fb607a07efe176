import { data } from 'react-router';
import { z } from 'zod';
import { LARGEST_FILE } from '~/core/entries/evidence';
import { photographInput } from '~/core/entries/photograph';
import { addEvidence, withdrawEvidence } from '~/server/entries/evidence/add';
import { evidenceOf } from '~/server/entries/evidence/list';
import { database } from '~/server/platform/db/current';
import { Busy, Invalid } from '~/server/platform/failures';
import { requireStudent } from '~/server/students/students';
import { formOf } from '../../platform/http/form-of';
import { jsonOf } from '../../platform/http/json-of';
import { idFrom, personOf } from '../../platform/http/request-person';
import type { AboutRoute } from '../../platform/http/routes-known';
import { withErrors } from '../../platform/http/with-errors';
import type { Route } from './+types/entry-evidence';
import { entryEvidenceWords } from './words';

/** What stands beside one entry. */
export const loader = withErrors(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, discreet } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'see');
  const entryId = idFrom(params.entryId);
  // Pictures show faces, and files say in their names what is in them.
  if (discreet) return { evidence: [] };
  return { evidence: (await evidenceOf(database(), student.id, [entryId]))[entryId] ?? [] };
});

const change = z.discriminatedUnion('intent', [
  // From a device on which it waited.
  photographInput.extend({ intent: z.literal('photograph'), name: z.string() }),
  z.object({ intent: z.literal('add'), id: z.uuid(), file: z.instanceof(File) }),
  z.object({ intent: z.literal('withdraw'), id: z.uuid() }),
]);

/** A file, and what a form puts around it. */
export const handle: AboutRoute = { largestBody: LARGEST_FILE + 64 * 1024 };

/** Adds a photograph or a file to an entry, or takes one out. */
export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const studentId = idFrom(params.studentId);
  await requireStudent(database(), actor, studentId, 'observe');
  const isJson = request.headers.get('Content-Type')?.startsWith('application/json');
  const parsed = change.safeParse(isJson ? await jsonOf(request) : Object.fromEntries(await formOf(request)));
  if (!parsed.success) return data({ problem: entryEvidenceWords.chooseAPhotographOrA }, { status: 400 });
  try {
    if (parsed.data.intent === 'withdraw') await withdrawEvidence(database(), actor, studentId, parsed.data.id, now);
    else {
      const { id } = parsed.data;
      const { name, content } = await fileOf(parsed.data);
      await addEvidence(database(), actor, studentId, { id, entryId: idFrom(params.entryId), name, content }, now);
    }
  } catch (error) {
    if (error instanceof Busy)
      return data({ problem: entryEvidenceWords.tryItAgainInA(error.message) }, { status: 503 });
    if (!(error instanceof Invalid)) throw error;
    return data({ problem: error.fields.file ?? entryEvidenceWords.thisFileCannotBeKept }, { status: 400 });
  }
  return data({ problem: null });
});

type Sent = Exclude<z.infer<typeof change>, { intent: 'withdraw' }>;

async function fileOf(sent: Sent): Promise<{ name: string; content: Buffer }> {
  if (sent.intent === 'photograph') return { name: sent.name, content: Buffer.from(sent.content, 'base64') };
  return { name: sent.file.name, content: Buffer.from(await sent.file.arrayBuffer()) };
}

export const clientAction = async ({ serverAction }: Route.ClientActionArgs) => {
  try {
    return await serverAction();
  } catch {
    // With this status the page stays as it is: nothing of it can be loaded anew.
    return data({ problem: entryEvidenceWords.theFileDidNotGet, isUnreachable: true }, { status: 503 });
  }
};
