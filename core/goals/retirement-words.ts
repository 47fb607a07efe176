/** Why a goal is no longer worked on. */
export const retirementWords = {
  met: 'Met',
  discontinued: 'Discontinued',
  replaced: 'Replaced by another goal',
} as const;

/** How a goal was retired, as it is kept. */
export type Retirement = keyof typeof retirementWords;

export const retirements = Object.keys(retirementWords) as [Retirement, ...Retirement[]];
