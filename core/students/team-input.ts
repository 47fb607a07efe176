import { z } from 'zod';
import { isoDateField } from '../calendar/date-fields';
import { accountInput, emailField, whoField } from '../people/account-input';
import { grantable } from './roles';

/** So long an invitation can be accepted. */
export const INVITATION_DAYS = 14;

/** What somebody may be who was asked to join; the case manager is chosen on the roster. */
export const joinableRoles = ['educator', 'paraprofessional', 'specialist'] as const;

const rights = z.array(z.enum(grantable)).default([]);
const until = isoDateField.optional();

export const memberInput = z
  .object({
    personId: z.uuid({ error: 'Choose somebody.' }),
    role: z.enum(joinableRoles, { error: 'Choose what they are to the student.' }),
    rights,
    from: isoDateField,
    until,
    /** Other students on whose teams they come in the same step, with the same. */
    alsoOf: z.array(z.uuid()).max(200).default([]),
  })
  .refine(({ from, until: end }) => !end || end >= from, { error: 'It ends before it begins.', path: ['until'] });
export type MemberInput = z.infer<typeof memberInput>;

export const invitationInput = z.object({
  id: z.uuid(),
  name: whoField,
  email: emailField,
  role: z.enum(joinableRoles, { error: 'Choose what they are to the student.' }),
  rights,
  until,
});
export type InvitationInput = z.infer<typeof invitationInput>;

/** What it takes to accept an invitation: an account. */
export const acceptanceInput = accountInput;
export type AcceptanceInput = z.infer<typeof acceptanceInput>;
