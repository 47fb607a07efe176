import { randomBytes, randomUUID } from 'node:crypto';
import { expect, it } from 'vitest';
import { freshDatabase } from '~/tests/database/fresh';
import { actorOf, now, schoolId, smallSchool, today } from '~/tests/database/small-school';
import { makeAccountLink } from '../people/account-links';
import { countTry } from '../people/attempts';
import { beginHalf } from '../people/second-factor';
import { beginSession } from '../people/sessions';
import { rememberDevice } from '../people/sign-in';
import { makeShareLink, withdrawShareLink } from '../sharing/share-links';
import { invite, newInvitationLink } from '../students/invitations';
import { tidyUp } from './tidy-up';

const fresh = freshDatabase();
const DAY = 24 * 3_600_000;

it('clears what is over and opens nothing any more, and nothing else', async () => {
  const school = await smallSchool(fresh.db);
  const [manager, later] = [actorOf(school.manager), (days: number) => new Date(now.getTime() + days * DAY)];
  const count = async (table: string) => Number((await fresh.db(table).count('* as n').first())?.n);
  await beginSession(fresh.db, school.manager, now);
  await rememberDevice(fresh.db, school.manager, null, now);
  await countTry(fresh.db, 'names', 'x');
  const way = { id: randomUUID(), readerName: 'Aunt Ida', kind: 'family' as const, endsOn: '2026-12-31' };
  await makeShareLink(fresh.db, manager, school.student, way, now);
  const pass = { token_hash: randomBytes(32), link_id: way.id, ends_at: later(0.5) };
  await fresh.db('share_link_passes').insert(pass);
  const invitation = {
    id: randomUUID(),
    name: 'Odile',
    email: 'o@home.example',
    role: 'educator' as const,
    rights: [],
  };
  await invite(fresh.db, manager, school.student, invitation, { now, readsOut: false });
  await newInvitationLink(fresh.db, invitation.id);

  await beginHalf(fresh.db, school.manager, false, now);
  const asked = {
    kind: 'join' as const,
    schoolId,
    personId: null,
    name: 'Odile',
    email: 'o@home.example',
    madeBy: null,
  };
  await makeAccountLink(fresh.db, asked, { now, readsOut: true });

  const file = {
    school_id: schoolId,
    made_by: school.manager,
    made_at: now,
    kind: 'goals' as const,
    file_name: 'x.csv',
  };
  await fresh.db('imports').insert([
    { ...file, id: randomUUID(), mapping: {}, content: JSON.stringify({ is: 'tables', tables: [] }) },
    { ...file, id: randomUUID(), mapping: {}, done_at: now },
  ]);

  await tidyUp(fresh.db, now);
  const tables = [
    ...['sign_in_sessions', 'known_devices', 'share_link_tokens', 'share_link_passes', 'invitation_tokens'],
    ...['half_sign_ins', 'account_link_tokens', 'imports'],
  ];
  expect(await Promise.all(tables.map(count))).toEqual([1, 1, 1, 1, 1, 1, 1, 2]);

  await withdrawShareLink(fresh.db, manager, school.student, way.id, now);
  await fresh.db('invitations').update({ accepted_by: school.aide, accepted_at: now });
  await tidyUp(fresh.db, later(2));
  expect(await Promise.all(tables.map(count))).toEqual([0, 1, 0, 0, 0, 0, 1, 2]);
  await tidyUp(fresh.db, later(200));
  expect(await Promise.all([...tables, 'rate_limits'].map(count))).toEqual([0, 0, 0, 0, 0, 0, 0, 1, 0]);
  // What was there stays written down.
  expect(await fresh.db('share_links').select('id')).toEqual([{ id: way.id }]);
  expect(today < '2026-12-31').toBe(true);
});
