// One picture of each main view, from the demo on a fixed day: docs/screenshots/.
import { chromium as browserType, type Page } from '@playwright/test';
import { demoCards } from '~/demo/class-work';
import { loadDemo } from '~/demo/load';
import { connect } from '~/server/platform/db/database';
import { migrate } from '~/server/platform/db/migrate';
import { dropDatabase, makeDatabase, newName, urlOf } from '~/tests/database/databases';
import { chromium } from '~/tests/e2e/chromium';
import { clock } from '~/tests/e2e/demo-template';
import { startServer } from '~/tests/e2e/server';
import { ensureBuild } from './setup/packages.mjs';

const folder = 'docs/screenshots';
const laptop = { width: 1280, height: 800 };
const phone = { width: 390, height: 844 };

await ensureBuild();
const name = newName('pictures');
await makeDatabase(name);
const db = connect(urlOf(name));
await migrate(urlOf(name));
await loadDemo(db, new Date(clock));
const server = await startServer({ DATABASE_URL: urlOf(name), CLOCK: clock, LOG_LEVEL: 'silent' });
const browser = await browserType.launch(chromium);
try {
  await takeAll();
} finally {
  await browser.close();
  await server.stop();
  await db.destroy();
  await dropDatabase(name);
}

async function newPage(viewport: typeof laptop): Promise<Page> {
  const isHeld = viewport === phone;
  const context = await browser.newContext({
    viewport,
    baseURL: server.url,
    hasTouch: isHeld,
    isMobile: isHeld,
    locale: 'en-US',
  });
  const page = await context.newPage();
  const { id } = (await db('people').where({ demo_order: 1 }).first('id'))!;
  await page.request.post('/sign-in', { form: { demo: id }, headers: { origin: server.url }, maxRedirects: 0 });
  return page;
}

/** A page that listens for what is new is never quiet: when it is drawn and its graphs are there, it is ready. */
async function ready(page: Page) {
  await page.waitForLoadState('load');
  await page.waitForTimeout(900);
}

async function picture(page: Page, file: string, path?: string) {
  if (path) await page.goto(path);
  await ready(page);
  await page.screenshot({ path: `${folder}/${file}.png` });
  console.log(`${folder}/${file}.png`);
}

async function observe(page: Page, path: string, goal: string) {
  await page.goto(path);
  await ready(page);
  const sheet = page.getByRole('region', { name: goal });
  for (const level of ['Independent', 'Independent', 'Spoken', 'Gesture']) {
    await sheet.getByRole('button', { name: level, exact: true }).click();
  }
}

/** Marks an incident, unsaved. */
async function note(page: Page, student: string) {
  await page.goto(`/students/${student}/incidents/new`);
  await ready(page);
  for (const name of ['A tool started nearby', 'Leaves the bench', 'A walk away from the task']) {
    await page.getByRole('button', { name, exact: true }).click();
  }
}

async function takeAll() {
  const student = await db('students').where({ first_name: 'Emrys' }).first('id');
  const goal = await db('goals').where({ student_id: student!.id, number: '1a' }).first('id');
  const of = (view = '') => `/students/${student!.id}${view}`;

  const page = await newPage(laptop);
  await picture(page, 'today', '/');
  await picture(page, 'students', '/students');
  await picture(page, 'coverage', '/team');
  await picture(page, 'student', of());
  await observe(page, of('/observe'), 'Measures ingredients');
  await picture(page, 'observe');
  await picture(page, 'goal', of(`/goals/${goal!.id}`));
  await picture(page, 'goal-form', of(`/goals/${goal!.id}/edit`));
  const followed = await db('students').where({ first_name: 'Ansel' }).first('id');
  await picture(page, 'behavior', `/students/${followed!.id}/behavior`);
  await note(page, followed!.id);
  await picture(page, 'incident');
  await picture(page, 'class', '/class?group=Garden+group');
  const work = await db('works').first('id');
  await picture(page, 'board', `/class/works/${work!.id}`);
  const form = await db('forms').where({ side: 'self' }).first('id');
  await picture(page, 'answers', `/class/forms/${form!.id}`);
  await picture(page, 'patterns', '/patterns');
  await picture(page, 'report', `/students/${followed!.id}/individual-report`);
  await page.goto(`/students/${followed!.id}/progress-report`);
  await page
    .getByRole('link', { name: /To the draft/ })
    .first()
    .click();
  await page.getByRole('textbox', { name: 'Your words for the whole' }).click();
  await page.keyboard.type('Ansel asks for what he needs now, and comes to the workshop gladly.');
  await page.getByText(/^Kept/).waitFor();
  await picture(page, 'draft');
  await page.goto(of('/sharing/links'));
  await ready(page);
  await page.getByLabel('Who will read').fill('Grandmother of Emrys');
  await page.getByRole('button', { name: 'Make the link' }).click();
  const link = page.getByLabel('The link', { exact: true });
  await picture(page, 'reader', new URL(await link.inputValue()).pathname);

  const held = await newPage(phone);
  await picture(held, 'student-phone', of());
  await observe(held, of('/observe'), 'Measures ingredients');
  await held.evaluate(() => window.scrollTo(0, 0));
  await picture(held, 'observe-phone');

  await held.goto('/desk');
  await held.getByLabel('The four words on your card').fill(demoCards.Linnea ?? '');
  await held.getByRole('button', { name: 'Open my desk' }).click();
  await held.getByRole('heading', { name: /^Hello Linnea/ }).waitFor();
  await picture(held, 'desk');
}
