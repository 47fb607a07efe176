import { stepSaid } from '~/core/desk/steps';
import { sayStep } from '~/server/desk/steps';
import { database } from '~/server/platform/db/current';
import { onlySent, takes } from './takes';

/**
 * Takes what a student says of one step: how it stands, and where they are stuck.
 */
export const action = takes(stepSaid, (desk, said) => sayStep(database(), desk, said, desk.now));

export const loader = onlySent;
