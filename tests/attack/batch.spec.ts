// A file for a group, asked for while one might, and fetched when one may not any more.
import { randomUUID } from 'node:crypto';
import { expect, schoolId, signInAs, studentId, test } from '../e2e/fixtures';
import { textOfPdf } from '../examples/pdf-text';

test('the papers of a group are handed out under the rights of the day they are fetched', async ({ app, page }) => {
  const { id: hanneke } = (await app.db('people').where({ name: 'Hanneke Bruun' }).first('id'))!;
  const saying = (text: string) => JSON.stringify({ title: text, head: text, blocks: [{ kind: 'text', text }] });
  const id = randomUUID();
  const names = ['Ansel', 'Jory'];
  await app.db('document_batches').insert({
    id,
    school_id: await schoolId(app.db),
    label: 'All students',
    students: names,
    what: 'running',
    made_by: hanneke,
    made_at: new Date(),
    state: 'ready',
  });
  for (const [position, name] of names.entries()) {
    const part = { batch_id: id, student_id: await studentId(app.db, name), position, pages: 1 };
    await app.db('document_batch_parts').insert({ ...part, document: saying(`Report of ${name}`) });
  }
  await signInAs(app, page);
  const fetch = () => page.request.get(`${app.url}/batches/${id}`);
  const said = async () => (await textOfPdf(await (await fetch()).body())).pages.join('\n');
  expect(await said()).toMatch(/Report of Ansel[\s\S]*Report of Jory/);

  const jory = await studentId(app.db, 'Jory');
  await app.db('team_members').where({ student_id: jory, person_id: hanneke }).update({ until_date: '2026-11-01' });
  const after = await said();
  expect(after).toContain('Report of Ansel');
  expect(after).not.toContain('Report of Jory');
  expect(after).toMatch(/Not in this file[\s\S]*Jory/);
  const readings = await app.db('access_log').where({ person_id: hanneke, how: 'exported' }).select('student_id');
  expect(readings.map(({ student_id }) => student_id).filter((one) => one === jory)).toHaveLength(1);

  // Nobody else’s, and nothing of a student who is archived.
  await signInAs(app, page, 'Samir Tadesse');
  expect((await fetch()).status()).toBe(404);
  await signInAs(app, page);
  await app.db('students').where({ first_name: 'Ansel' }).update({ archived_at: new Date() });
  expect((await fetch()).status()).toBe(404);
});
