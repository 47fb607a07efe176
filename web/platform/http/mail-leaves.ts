import { config } from '~/server/platform/config';
import { database } from '~/server/platform/db/current';
import { schoolIfAny } from '~/server/school/school';

/** Whether messages reach people. In a demo, and without a mail server, links are told to whoever makes them instead. */
export const mailLeavesFrom = ({ isDemo }: { isDemo: boolean }): boolean => !isDemo && config.SMTP_URL !== undefined;

/** Whether a school has no mail server: what it sends goes nowhere, and pages that send say so before. In a demo the world is played. */
export const isWithoutMail = ({ isDemo }: { isDemo: boolean }): boolean => !isDemo && config.SMTP_URL === undefined;

/** Whether messages reach people, where nobody has signed in. */
export async function mailLeaves(): Promise<boolean> {
  const school = await schoolIfAny(database());
  return school !== null && mailLeavesFrom(school);
}
