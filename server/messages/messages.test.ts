import { randomUUID } from 'node:crypto';
import { beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { usualTemplates } from '~/core/messages/message-template';
import type { Frequency } from '~/core/sharing/share-link';
import { carefulRules } from '~/core/sharing/visibility-rule';
import { emptied } from '~/tests/database/emptied';
import { freshDatabase } from '~/tests/database/fresh';
import {
  actorOf,
  addGoal,
  makeAdmin,
  now,
  type SmallSchool,
  schoolId,
  smallSchool,
  today,
  wall,
} from '~/tests/database/small-school';
import { withdrawObservation } from '../entries/change';
import { recordSession } from '../entries/record';
import { Invalid, NotFound } from '../platform/failures';
import { requireSchoolAdmin } from '../school/administrators';
import { type School, schoolOf } from '../school/school';
import { recordAccess } from '../sharing/access-log';
import { findShareLink, makeShareLink, shareLinksOf, tryPasscode } from '../sharing/share-links';
import { saveVisibilityRules } from '../sharing/visibility';
import { collectMessages, nextDigestAt } from './collect';
import { deliver, dueMessages, settleInterrupted } from './deliver';
import { findStop, setFrequency, setOwnFrequency, stopMessages, writeLetter } from './frequency';
import { messageTemplates, saveMessageTemplate } from './message-templates';
import { markArrived, messageCounts, messagesOf, sendAgain, setDailyLimit, stopMessage } from './messages';
import { sampleValues } from './sample';
import { addTestMailRule, keepArrived, removeTestMailRule, testMailInbox } from './test-mail';

const fresh = freshDatabase();
let school: SmallSchool;
let theSchoolOfIt: School;
let link: string;
beforeAll(async () => {
  school = await smallSchool(fresh.db);
  await makeAdmin(fresh.db, school.manager);
  theSchoolOfIt = await schoolOf(fresh.db, schoolId);
});

interface Mail {
  to: { address: string };
  subject: string;
  text: string;
  html: string;
  replyTo?: { name: string; address: string };
  messageId: string;
  headers?: Record<string, string>;
}
let mails: Mail[] = [];
let refuse: object | null = null;
const transport = {
  sendMail: async (mail: object) => {
    if (refuse) throw refuse;
    mails.push(mail as Mail);
  },
};
const mailServer = { transport: transport as never, from: 'school@example.org', takesOnce: true };
const around = (at = now) => ({ school: theSchoolOfIt, publicUrl: 'http://here', mailServer, now: at });
const later = (minutes: number) => new Date(now.getTime() + minutes * 60_000);

async function tell(frequency: Frequency) {
  link = randomUUID();
  const way = { id: link, readerName: 'Aunt Ida', kind: 'family' as const, endsOn: '2026-12-31' };
  await makeShareLink(fresh.db, actorOf(school.manager), school.student, way, now);
  await setFrequency(
    fresh.db,
    actorOf(school.manager),
    school.student,
    { id: link, frequency, email: 'ida@home.example' },
    now,
  );
}

async function observe(note = '', at = now) {
  const id = randomUUID();
  const outcome = { data: { trials: ['independent', 'incorrect'] }, reason: null };
  const session = { on: today, time: '09:00', observerId: school.manager, locationId: null };
  const entries = [{ id, goalId: school.goal, outcome, note }];
  await recordSession(fresh.db, actorOf(school.manager), school.student, { ...session, entries }, { wall, now: at });
  return id;
}

const theTestSchool = () => schoolOf(fresh.db, schoolId);

/** Makes what is due and sends it. */
async function post(at = now) {
  await collectMessages(fresh.db, await theTestSchool(), at);
  for (const { id } of await dueMessages(fresh.db, at)) await deliver(fresh.db, id, around(at));
}
const states = async () => (await messagesOf(fresh.db, actorOf(school.manager))).map(({ state }) => state);

beforeEach(async () => {
  await emptied(fresh.db, 'entries');
  await emptied(fresh.db, 'messages');
  await fresh.db('share_links').update({ frequency: 'byHand' });
  await fresh.db('schools').update({ daily_message_limit: 1500 });
  mails = [];
  refuse = null;
});

describe('messages at each entry', () => {
  it('are not sent where no mail server is set up: what the test mail server keeps has reached nobody', async () => {
    await tell('entry');
    await observe();
    await collectMessages(fresh.db, await theTestSchool(), now);
    const deliverAll = async (isDemo: boolean) => {
      const school = { ...theSchoolOfIt, isDemo };
      const kept = { ...around(), school, mailServer: { ...mailServer, keepsAll: true } };
      for (const { id } of await dueMessages(fresh.db, now)) await deliver(fresh.db, id, kept);
    };
    const sent = () => fresh.db('access_log').where({ link_id: link, how: 'sent' });
    await deliverAll(false);
    expect([await states(), await sent()]).toEqual([['notSetUp'], []]);
    await fresh.db('messages').update({ state: 'waiting' });
    await deliverAll(true);
    expect(await states()).toEqual(['sent']);
    // What was sent to a reader was not opened by them.
    expect(await sent()).toHaveLength(1);
    const [way] = await shareLinksOf(fresh.db, actorOf(school.manager), school.student).then((all) =>
      all.filter(({ id }) => id === link),
    );
    expect(way).toMatchObject({ readings: 0, lastReadAt: null });
    const opening = { studentId: school.student, what: 'report', how: 'opened' } as const;
    await recordAccess(fresh.db, { linkId: link }, opening, now);
    const ways = await shareLinksOf(fresh.db, actorOf(school.manager), school.student);
    expect(ways.find(({ id }) => id === link)).toMatchObject({ readings: 1, lastReadAt: now });
  });

  it('leave once, with what this reader may see and a link of their own', async () => {
    await tell('entry');
    await observe('A private word');
    await Promise.all([post(), collectMessages(fresh.db, await theTestSchool(), now)]);
    await post();
    expect(mails).toHaveLength(1);
    const [mail] = mails as [Mail];
    expect(mail).toMatchObject({
      to: { address: 'ida@home.example' },
      subject: 'A new entry in the report you follow',
    });
    expect(mail.text).toContain('1 of 2 seedlings with a gesture or less help (50%).');
    expect(mail.text).not.toContain('A private word');
    const token = /\/shared\/([\w-]{43})/.exec(mail.text)?.[1] as string;
    expect((await findShareLink(fresh.db, token, today))?.id).toBe(link);
    // It stands in the access log, as a disclosure like any other.
    const told = await fresh.db('access_log').where({ link_id: link }).select('what', 'how');
    expect(told).toEqual([{ what: 'a message', how: 'sent' }]);
    // What is kept opens no door.
    const [kept] = await messagesOf(fresh.db, actorOf(school.manager));
    expect(kept?.sent?.body).toContain('(the link)');
    expect(JSON.stringify(await fresh.db('messages'))).not.toContain(token);
  });

  it('tell of a session in one, however many goals it was about, as text and as HTML; answers reach the case manager', async () => {
    await tell('entry');
    const second = await addGoal(fresh.db, school.student, '2');
    const outcome = { data: { trials: ['independent', 'incorrect'] }, reason: null };
    const session = { on: today, time: '09:00', observerId: school.manager, locationId: null };
    const entries = [school.goal, second].map((goalId) => ({ id: randomUUID(), goalId, outcome, note: '' }));
    const around = { wall, now };
    await recordSession(fresh.db, actorOf(school.manager), school.student, { ...session, entries }, around);
    await observe('', later(1));
    await post(later(2));
    expect(mails).toHaveLength(2);
    const [mail] = mails as [Mail];
    expect(mail.text.match(/1 of 2 seedlings/g)).toHaveLength(2);
    expect(mail.text).toContain('– 2 · Plants a row: 1 of 2');
    expect(mail.html).toMatch(/– 1 · Plants a row: 1 of 2 .*<br>– 2 · Plants a row/);
    expect(mail.html).toMatch(/<a href="http:\/\/here\/shared\/[\w-]{43}">/);
    const { name, email } = (await fresh.db('people').where({ id: school.manager }).first('name', 'email'))!;
    expect(mail.replyTo).toEqual({ name, address: email });
    // Looked for again, it is not made again.
    await collectMessages(fresh.db, await theTestSchool(), later(3));
    expect(await fresh.db('messages').where({ kind: 'entry' })).toHaveLength(2);
    await fresh.db('goals').where({ id: second }).update({ retired_on: today, retired_how: 'discontinued' });
  });

  it('are not sent of what was withdrawn, or is not shown to this reader', async () => {
    await tell('entry');
    const id = await observe();
    await collectMessages(fresh.db, await theTestSchool(), now);
    const ids = { studentId: school.student, entryId: id };
    await withdrawObservation(fresh.db, actorOf(school.manager), ids, { version: 1, why: 'Not hers' }, now);
    await post();
    expect(mails).toEqual([]);
    expect(await states()).toEqual(['stopped']);
  });

  it('follow the table when they leave, not when the entry was made', async () => {
    await tell('entry');
    await observe('He asked.');
    const family = { ...carefulRules.family, shows: ['note' as const] };
    await saveVisibilityRules(fresh.db, actorOf(school.manager), school.student, { ...carefulRules, family }, now);
    await post();
    expect(mails[0]?.text).toContain('Observed.\nHe asked.');
    await saveVisibilityRules(fresh.db, actorOf(school.manager), school.student, carefulRules, now);
  });

  it('go to a member of the team too, who says so for themselves', async () => {
    await setOwnFrequency(fresh.db, actorOf(school.aide), school.student, 'entry');
    await observe('For the team');
    await post();
    expect(mails.map(({ to, text }) => [to.address, text.includes('For the team')])).toEqual([
      ['aide@school.example', true],
    ]);
    await setOwnFrequency(fresh.db, actorOf(school.aide), school.student, 'byHand');
    await expect(setOwnFrequency(fresh.db, actorOf(school.stranger), school.student, 'entry')).rejects.toThrow(
      NotFound,
    );
  });
});

describe('a digest', () => {
  it('leaves once after school with all that is new, and not when nothing is', async () => {
    await tell('daily');
    await observe();
    await observe();
    await post(later(60));
    expect(mails).toEqual([]);
    // 16:05 in New York.
    const afternoon = new Date('2026-11-24T21:05:00Z');
    await post(afternoon);
    await post(new Date('2026-11-24T22:05:00Z'));
    expect(mails).toHaveLength(1);
    expect(mails[0]?.text.match(/– Tue, Nov 24, 2026, 1 · Plants a row: 1 of 2/g)).toHaveLength(2);
    await post(new Date('2026-11-25T21:05:00Z'));
    expect(mails).toHaveLength(1);
  });

  it('of the week leaves on Friday', async () => {
    await tell('weekly');
    await observe();
    await post(new Date('2026-11-26T21:05:00Z'));
    expect(mails).toHaveLength(0);
    await post(new Date('2026-11-27T21:05:00Z'));
    expect(mails).toHaveLength(1);
  });
});

describe('what becomes of a message', () => {
  it('is tried again when the mail server is busy, and comes back with its words when it will not', async () => {
    await tell('entry');
    await observe();
    refuse = { responseCode: 451, response: '451 Try again later' };
    await post();
    expect(await states()).toEqual(['waiting']);
    await post(later(0.5));
    refuse = { responseCode: 550, response: '550 No such mailbox here' };
    await post(later(2));
    const [message] = await messagesOf(fresh.db, actorOf(school.manager));
    expect(message).toMatchObject({ state: 'bounced', reason: '550 No such mailbox here' });
    refuse = null;
    const again = { id: message?.id as string, newId: randomUUID(), email: 'ida@new.example' };
    await expect(sendAgain(fresh.db, actorOf(school.aide), again, later(3))).rejects.toThrow(NotFound);
    await sendAgain(fresh.db, actorOf(school.manager), again, later(3));
    await sendAgain(fresh.db, actorOf(school.manager), { ...again, newId: randomUUID() }, later(3));
    await post(later(4));
    expect(mails.map(({ to }) => to.address)).toEqual(['ida@new.example']);
    expect((await fresh.db('share_links').where({ id: link }).first())!.email).toBe('ida@new.example');
    const sent = { ...again, id: again.newId, newId: randomUUID() };
    await expect(sendAgain(fresh.db, actorOf(school.manager), sent, later(5))).rejects.toThrow(Invalid);
  });

  it('is held for tomorrow when the daily limit is reached', async () => {
    await tell('entry');
    await setDailyLimit(fresh.db, await requireSchoolAdmin(fresh.db, actorOf(school.manager)), 2, now);
    for (let i = 0; i < 3; i++) await observe('', new Date(now.getTime() + i));
    await post();
    expect((await states()).sort()).toEqual(['held', 'sent', 'sent']);
    await post(later(60));
    expect(mails).toHaveLength(2);
    await post(new Date('2026-11-25T12:01:00Z'));
    expect(mails).toHaveLength(3);
  });

  it('is never sent by two at once; after a death it goes again only where that cannot double it', async () => {
    await tell('entry');
    await observe();
    await collectMessages(fresh.db, await theTestSchool(), now);
    const [due] = await dueMessages(fresh.db, now);
    const id = due?.id as string;
    await Promise.all([1, 2, 3].map(() => deliver(fresh.db, id, around())));
    expect(mails).toHaveLength(1);
    const die = () => fresh.db('messages').where({ id }).update({ state: 'sending', sent_at: null });
    await die();
    await settleInterrupted(fresh.db, { takesOnce: false });
    expect(await states()).toEqual(['uncertain']);
    await die();
    await settleInterrupted(fresh.db, { takesOnce: true });
    await post(later(1));
    expect(new Set(mails.map(({ messageId }) => messageId)).size).toBe(1);
  });

  it('can be stopped by its reader from the message itself', async () => {
    await tell('entry');
    await observe();
    await post();
    const token = /\/stop\/([\w-]{43})/.exec(mails[0]?.text ?? '')?.[1] as string;
    expect(mails[0]?.headers?.['List-Unsubscribe']).toContain(`/stop/${token}`);
    expect(await findStop(fresh.db, token)).toEqual({ readerName: 'Aunt Ida', isStopped: false });
    await observe();
    await collectMessages(fresh.db, await theTestSchool(), now);
    await stopMessages(fresh.db, token, now);
    expect(await findStop(fresh.db, token)).toMatchObject({ isStopped: true });
    await observe();
    await post();
    expect(mails).toHaveLength(1);
    const letter = { id: randomUUID(), linkId: link, subject: 'x', body: 'y' };
    await expect(writeLetter(fresh.db, actorOf(school.manager), school.student, letter, now)).rejects.toThrow(Invalid);
    await expect(stopMessages(fresh.db, 'nobody’s', now)).rejects.toThrow(NotFound);
  });

  it('stopped by a reader who is told by hand, is stopped for every kind, the issued report’s too', async () => {
    await tell('byHand');
    const letter = { id: randomUUID(), linkId: link, subject: 'x', body: 'See {link} or stop: {stop}' };
    await writeLetter(fresh.db, actorOf(school.manager), school.student, letter, now);
    await post();
    const token = /\/stop\/([\w-]{43})/.exec(mails[0]?.text ?? '')?.[1] as string;
    expect(await findStop(fresh.db, token)).toMatchObject({ isStopped: false });
    const issued = (key: string) =>
      fresh.db('messages').insert({
        ...{ id: randomUUID(), key, kind: 'issued', student_id: school.student, link_id: link, to_name: 'Aunt Ida' },
        ...{ to_email: 'ida@home.example', state: 'waiting', not_before: now, made_at: now },
      });
    await issued('made before');
    await stopMessages(fresh.db, token, now);
    expect(await findStop(fresh.db, token)).toMatchObject({ isStopped: true });
    await issued('made at the same moment');
    await post();
    expect(mails).toHaveLength(1);
    expect((await states()).sort()).toEqual(['sent', 'stopped', 'stopped']);
  });

  it('of what was issued opens the report itself', async () => {
    await tell('byHand');
    const report = randomUUID();
    await fresh.db('messages').insert({
      ...{
        id: randomUUID(),
        key: `issued:${report}:${link}`,
        kind: 'issued',
        student_id: school.student,
        link_id: link,
      },
      ...{ to_name: 'Aunt Ida', to_email: 'ida@home.example', state: 'waiting', not_before: now, made_at: now },
    });
    await post();
    expect(mails[0]?.text).toMatch(new RegExp(`http://here/shared/[\\w-]{43}/issued/${report}`));
  });

  it('written by hand leaves as it was written, once', async () => {
    await tell('byHand');
    const letter = { id: randomUUID(), linkId: link, subject: 'Hello\tthere', body: 'Dear {reader}, see {link}' };
    for (let i = 0; i < 2; i++) await writeLetter(fresh.db, actorOf(school.manager), school.student, letter, now);
    await post();
    expect(mails).toHaveLength(1);
    expect(mails[0]).toMatchObject({
      subject: 'Hello there',
      text: expect.stringContaining('Dear Aunt Ida, see http://here/shared/'),
    });
    await expect(
      writeLetter(fresh.db, actorOf(school.aide), school.student, { ...letter, id: randomUUID() }, now),
    ).rejects.toThrow(NotFound);
  });

  it('tells the case manager of a way in that wrong passcodes have locked', async () => {
    const id = randomUUID();
    const way = { id, readerName: 'Dr. Perrin', kind: 'specialist' as const, endsOn: today, passcode: 'a long one' };
    await makeShareLink(fresh.db, actorOf(school.manager), school.student, way, now);
    for (let i = 0; i < 8; i++) await tryPasscode(fresh.db, id, 'wrong', later(60 * i));
    await post(later(500));
    expect(mails).toMatchObject([
      { to: { address: 'manager@school.example' }, subject: 'A share link has been locked' },
    ]);
  });
});

describe('the preview of a template', () => {
  const sample = (kind: 'entry' | 'digest' | 'invitation', readerKind: 'family' | 'team' = 'family') =>
    sampleValues(fresh.db, {
      ...{ studentId: school.student, kind, readerKind, school: theSchoolOfIt, publicUrl: 'http://here' },
    });

  it('is filled from the newest entry as that reader sees it, without a link that opens', async () => {
    expect(await sample('entry')).toBeNull();
    await observe('A private word');
    const values = await sample('entry');
    expect(values).toMatchObject({ student: 'Ada E.', percentage: '50%', note: null, link: 'http://here/shared/…' });
    expect((await sample('entry', 'team'))?.note).toBe('A private word');
    expect(await fresh.db('message_stops').count('token_hash as n').first()).toEqual({ n: '0' });
  });

  it('of a digest holds the newest few; an invitation needs no entry and cannot be stopped', async () => {
    for (let i = 0; i < 5; i++) await observe();
    expect((await sample('digest'))?.entries?.split('\n')).toHaveLength(3);
    expect(await sample('invitation')).toMatchObject({ school: 'Test School', stop: null });
  });
});

describe('how messages are worded', () => {
  it('is as usual, until who sets up the school words it, and can be as usual again', async () => {
    const own = { subject: 'News', body: 'See {link}' };
    await expect(
      requireSchoolAdmin(fresh.db, actorOf(school.aide)).then((admin) =>
        saveMessageTemplate(fresh.db, admin, 'entry', own, now),
      ),
    ).rejects.toThrow(NotFound);
    await saveMessageTemplate(fresh.db, await requireSchoolAdmin(fresh.db, actorOf(school.manager)), 'entry', own, now);
    expect((await messageTemplates(fresh.db, schoolId)).entry).toEqual(own);
    expect((await messageTemplates(fresh.db, schoolId)).digest).toEqual(usualTemplates.digest);
    await saveMessageTemplate(
      fresh.db,
      await requireSchoolAdmin(fresh.db, actorOf(school.manager)),
      'entry',
      null,
      now,
    );
    expect((await messageTemplates(fresh.db, schoolId)).entry).toEqual(usualTemplates.entry);
  });
});

describe('each step of sending fails on its own', () => {
  const one = async () => (await messagesOf(fresh.db, actorOf(school.manager)))[0];
  /** Makes one kind of write fail, as a database does that is full or restarts. */
  const refuseWrites = async (table: string, condition: string, times: number) => {
    await fresh.db.raw('create sequence if not exists failures');
    await fresh.db.raw(`select setval('failures', ${times + 1}, true)`);
    await fresh.db.raw(`create or replace function fail_for_now() returns trigger language plpgsql as $$
      begin
        if ${condition} and nextval('failures') <= ${2 * times + 1} then raise exception 'Not now.'; end if;
        return new;
      end $$`);
    await fresh.db.raw(
      `create trigger for_now before insert or update on ${table} for each row execute function fail_for_now()`,
    );
  };
  const mendWrites = (table: string) => fresh.db.raw(`drop trigger for_now on ${table}`);

  it('handed over, it is written down as sent, however often that takes, and is never handed over again', async () => {
    await tell('entry');
    await observe();
    for (const [table, condition] of [
      ['messages', "new.state = 'sent'"],
      ['access_log', "new.how = 'sent'"],
    ] as const) {
      await fresh.db('messages').update({ state: 'waiting', sent_at: null });
      mails = [];
      await refuseWrites(table, condition, 2);
      await post();
      await mendWrites(table);
      expect([mails.length, (await one())?.state]).toEqual([1, 'sent']);
    }
    expect(await fresh.db('access_log').where({ link_id: link, how: 'sent' })).toHaveLength(2);
  });

  it('what can never be written down holds nobody up: it is for a person to look at', async () => {
    await tell('entry');
    await observe();
    await collectMessages(fresh.db, await theTestSchool(), now);
    const [due] = await dueMessages(fresh.db, now);
    const id = due?.id as string;
    await refuseWrites('access_log', "new.how = 'sent'", 100);
    await expect(deliver(fresh.db, id, around())).rejects.toThrow('Not now.');
    await mendWrites('access_log');
    expect(mails).toHaveLength(1);
    await settleInterrupted(fresh.db, { takesOnce: false });
    expect(await one()).toMatchObject({ state: 'uncertain' });
    await fresh.db('messages').where({ id }).update({ state: 'sending', attempts: 6 });
    await settleInterrupted(fresh.db, { takesOnce: true });
    expect(await one()).toMatchObject({ state: 'uncertain' });
  });

  it('what cannot be put together is tried later and later, ends as failed, in words, and can be sent again', async () => {
    await tell('entry');
    await observe();
    await refuseWrites('message_stops', 'true', 100);
    const complaints: unknown[] = [];
    await collectMessages(fresh.db, await theTestSchool(), now);
    let at = now;
    for (let tries = 1; tries <= 6; tries++) {
      const [due] = await dueMessages(fresh.db, at);
      await deliver(fresh.db, due?.id as string, { ...around(at), complain: (error) => complaints.push(error) });
      const message = await one();
      if (tries < 6) {
        expect(message).toMatchObject({
          state: 'waiting',
          reason: expect.stringContaining('could not be put together'),
        });
        expect(await dueMessages(fresh.db, at)).toEqual([]);
        at = message?.notBefore as Date;
      } else expect(message).toMatchObject({ state: 'failed', reason: expect.stringContaining('after 6 tries') });
    }
    await mendWrites('message_stops');
    expect([mails.length, complaints.length]).toEqual([0, 6]);
    const failed = (await one())?.id as string;
    await sendAgain(
      fresh.db,
      actorOf(school.manager),
      { id: failed, newId: randomUUID(), email: 'ida@home.example' },
      at,
    );
    await post(at);
    expect(mails).toHaveLength(1);
  });

  it('broken off while it is handed over, nobody knows: it is not tried again by itself where that could double it', async () => {
    await tell('entry');
    await observe();
    await collectMessages(fresh.db, await theTestSchool(), now);
    const [due] = await dueMessages(fresh.db, now);
    refuse = { message: 'Connection closed', command: 'DATA' };
    const real = { ...mailServer, takesOnce: false };
    await deliver(fresh.db, due?.id as string, { ...around(), mailServer: real });
    expect(await one()).toMatchObject({ state: 'uncertain', reason: expect.stringContaining('may have arrived') });
  });
});

describe('after school', () => {
  it('digests of any number of readers are asked for in a few queries', async () => {
    const afternoon = new Date('2026-11-24T21:05:00Z');
    const queries = async () => {
      let count = 0;
      const counting = () => count++;
      fresh.db.on('query', counting);
      await collectMessages(fresh.db, await theTestSchool(), afternoon);
      fresh.db.off('query', counting);
      return count;
    };
    await tell('daily');
    const one = await queries();
    for (let i = 0; i < 30; i++) await tell('daily');
    expect(await queries()).toBe(one);
    await observe();
    await post(afternoon);
    expect(mails).toHaveLength(31);
    expect(await nextDigestAt(fresh.db, await theTestSchool(), afternoon)).toEqual(new Date('2026-11-25T21:00:00Z'));
    expect(await nextDigestAt(fresh.db, await theTestSchool(), now)).toEqual(new Date('2026-11-24T21:00:00Z'));
  });
});

describe('a message that a person sees to', () => {
  it('is taken out of the post before it leaves, and only by who may share', async () => {
    await tell('entry');
    await observe();
    await collectMessages(fresh.db, await theTestSchool(), now);
    const [due] = await dueMessages(fresh.db, now);
    const id = due?.id as string;
    await expect(stopMessage(fresh.db, actorOf(school.aide), id)).rejects.toThrow(NotFound);
    await expect(stopMessage(fresh.db, actorOf(school.manager), randomUUID())).rejects.toThrow(NotFound);
    await stopMessage(fresh.db, actorOf(school.manager), id);
    await post();
    expect([mails, await states()]).toEqual([[], ['stopped']]);
    expect(await messagesOf(fresh.db, actorOf(school.aide))).toEqual([]);
  });

  it('is said to have arrived, where nobody could know', async () => {
    await tell('entry');
    await observe();
    await collectMessages(fresh.db, await theTestSchool(), now);
    await fresh.db('messages').update({ state: 'sending' });
    await settleInterrupted(fresh.db, { takesOnce: false });
    const [message] = await messagesOf(fresh.db, actorOf(school.manager), { state: 'uncertain' });
    const id = message?.id as string;
    await expect(markArrived(fresh.db, actorOf(school.aide), id, now)).rejects.toThrow(NotFound);
    await markArrived(fresh.db, actorOf(school.manager), id, now);
    expect(await messageCounts(fresh.db, actorOf(school.manager))).toEqual({ sent: 1 });
    await expect(markArrived(fresh.db, actorOf(school.manager), id, now)).rejects.toThrow(NotFound);
  });
});

describe('the test mail server', () => {
  it('shows what it got, once, without what opens anything, and its rules, to administrators of a demo', async () => {
    const mail = {
      messageId: '<one>',
      recipient: 'ida@home.example',
      subject: 'News',
      body: 'See http://here/shared/abcDEF-123 (passcode: tulip-7). Stop: https://x.example/stop/zzz',
      headers: {},
      arrivedAt: now,
    };
    for (let i = 0; i < 2; i++) await keepArrived(fresh.db, mail);
    const rule = { id: randomUUID(), address: '@bounce.', does: 'bounce' as const, seconds: 0, words: '' };
    await expect(
      requireSchoolAdmin(fresh.db, actorOf(school.manager)).then((admin) => testMailInbox(fresh.db, admin)),
    ).rejects.toThrow(NotFound);
    await fresh.db('schools').update({ is_demo: true });
    for (let i = 0; i < 2; i++)
      await addTestMailRule(fresh.db, await requireSchoolAdmin(fresh.db, actorOf(school.manager)), rule, now);
    const shown = async () => testMailInbox(fresh.db, await requireSchoolAdmin(fresh.db, actorOf(school.manager)));
    const body = 'See (the link) (passcode: (the passcode) Stop: (the link)';
    expect(await shown()).toMatchObject({ inbox: [{ subject: 'News', body }], rules: [rule] });
    await removeTestMailRule(fresh.db, await requireSchoolAdmin(fresh.db, actorOf(school.manager)), rule.id);
    expect((await shown()).rules).toEqual([]);
    await expect(
      requireSchoolAdmin(fresh.db, actorOf(school.aide)).then((admin) => testMailInbox(fresh.db, admin)),
    ).rejects.toThrow(NotFound);
    await expect(
      requireSchoolAdmin(fresh.db, actorOf(school.aide)).then((admin) => addTestMailRule(fresh.db, admin, rule, now)),
    ).rejects.toThrow(NotFound);
  });
});
