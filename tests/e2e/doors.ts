// The ways in that need a code or a link of one's own, each opened with a word that is known here.
import { randomUUID } from 'node:crypto';
import { demoCards } from '~/demo/class-work';
import { hashToken } from '~/server/people/tokens';
import { type App, studentId } from './fixtures';

/** What a link ends with. */
const tokenOf = (door: string) => `known-to-the-tests-${door.replace('/', '-')}`;
const hashed = (door: string) => ({ token_hash: hashToken(tokenOf(door)) });

/**
 * Makes what the links lead to, with the demo school's own rows where it has some.
 *
 * @returns the addresses that anybody can open who has them, and the words that open a desk
 */
export async function doorsOf(app: App) {
  const { db } = app;
  const ansel = await studentId(db, 'Ansel');
  const { id: hanneke } = (await db('people').where({ name: 'Hanneke Bruun' }).first('id'))!;
  const made = { made_by: hanneke, made_at: new Date() };
  const { id: linkId } = (await db('share_links').where({ student_id: ansel, withdrawn_at: null }).first('id'))!;
  await db('share_links').where({ id: linkId }).update({ passcode_hash: null });
  await db('share_link_tokens').insert({ ...hashed('shared'), link_id: linkId, made_at: new Date() });
  await db('stack_raters')
    .where({ id: (await db('stack_raters').first('id'))!.id })
    .update(hashed('stack'));
  await db('presentations')
    .where({ id: (await db('presentations').first('id'))!.id })
    .update(hashed('seat/in'));
  const sample = (await db('work_samples').where({ stack_id: null, entry_id: null }).first('id'))!;
  const of = { id: randomUUID(), work_sample_id: sample.id, kind: 'peer' as const, label: 'A peer' };
  await db('rating_links').insert({ ...of, ...hashed('rate'), ends_at: new Date('2027-01-01') });
  const invitation = { id: randomUUID(), student_id: ansel, name: 'Ada Quill', email: 'ada@school.example' };
  await db('invitations').insert({ ...invitation, role: 'educator', ends_on: '2026-12-24', ...made });
  await db('invitation_tokens').insert({ ...hashed('invited'), invitation_id: invitation.id, is_read_out: true });
  const message = { id: randomUUID(), student_id: ansel, link_id: linkId, to_name: 'x', to_email: 'x@home.example' };
  await db('messages').insert({
    ...{ ...message, key: 'a digest', kind: 'digest', state: 'waiting', not_before: new Date(), ...made },
  });
  await db('message_stops').insert({ ...hashed('stop'), message_id: message.id });
  return {
    links: [
      '/forgotten',
      ...['shared', 'stack', 'seat/in', 'rate', 'invited', 'stop'].map((door) => `/${door}/${tokenOf(door)}`),
    ],
    desks: Object.values(demoCards),
  };
}
