import { config } from '~/server/platform/config';
import { database } from '~/server/platform/db/current';
import { schoolIfAny } from '~/server/school/school';

/** Whether messages reach people. In a demo, and without a mail server, links are told to whoever makes them instead. */
export const mailLeavesFrom = ({ isDemo }: { isDemo: boolean }): boolean => !isDemo && config.SMTP_URL !== undefined;

/** The same, where nobody has signed in. */
export async function mailLeaves(): Promise<boolean> {
  const school = await schoolIfAny(database());
  return school !== null && mailLeavesFrom(school);
}
