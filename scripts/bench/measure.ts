import { behavior } from './behavior';
import { measureCore } from './core';
import { at, clear, cookie, databaseUrl, db, get, milliseconds, page, row, school, server } from './ground';
import { imports } from './imports';
import { live } from './live';
import { caseload, cookieOf, pagesASecond } from './load';
import { classTotalsPage, firstLoad, goalPage, lists, memory, studentPage } from './pages';
import { measureReports, spreadsheet } from './reports';
import { rules } from './rules';
import { rowSecurity, saving, tableSave } from './saving';
import { measureOffline, measureTaps } from './taps';

// All that is measured, in this order, or the parts that are named: `npm run bench -- studentPage core`.
try {
  const manager = await caseload(db, row);
  await db.raw('analyze');
  const theirs = await cookieOf(db, manager);
  const bench = { db, databaseUrl, school, row, get, milliseconds, median: (times: number[]) => at(times, 0.5) };
  const parts: Record<string, () => unknown> = {
    lists: () => lists(theirs),
    studentPage,
    firstLoad,
    saving,
    goalPage,
    tableSave,
    behavior,
    reports: () => measureReports(bench),
    spreadsheet: () => spreadsheet(bench),
    taps: () => measureTaps(server.url, cookie, `${page}/observe`),
    secondStartSeconds: () => ({ measured: Number(process.env.SECOND_START), atMost: 10 }),
    rowSecurity,
    pagesASecondOfOneProcess: async () => [
      await pagesASecond(server.url, page, cookie, 100),
      await pagesASecond(server.url, '/students', theirs, 60),
      await pagesASecond(server.url, '/', theirs, 60),
    ],
    memory,
    // Last of the pages: its thirty students are the caseload of who asks.
    classTotalsPage,
    live,
    core: measureCore,
    // It brings a great many entries along.
    rules,
    imports,
    // The very last: it stops the server.
    offline: () => measureOffline(server.url, theirs, { stop: server.stop, students: 30 }),
  };
  const named = process.argv.slice(2);
  const unknown = named.filter((name) => !(name in parts));
  if (unknown.length > 0)
    throw new Error(`No such part: ${unknown.join(', ')}. There are ${Object.keys(parts).join(', ')}.`);
  const result: Record<string, unknown> = {};
  for (const [name, measure] of Object.entries(parts)) {
    if (named.length === 0 || named.includes(name)) result[name] = await measure();
  }
  console.log(JSON.stringify(result, null, 2));
} finally {
  await clear();
}
