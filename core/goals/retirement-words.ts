/** Why a goal is no longer worked on. */
export const retirementWords = {
  met: 'Met',
  discontinued: 'Discontinued',
  replaced: 'Replaced by another goal',
} as const;
