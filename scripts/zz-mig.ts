import { migrate } from '/work/main/server/db/migrate';
import { dropDatabase, makeDatabase, newName, urlOf } from '/work/main/tests/database/databases';

const n = newName('mig');
await makeDatabase(n);
try {
  await migrate(urlOf(n));
  console.log('ok');
} catch (e) {
  console.error((e as Error).message.slice(-1500));
} finally {
  await dropDatabase(n);
}
