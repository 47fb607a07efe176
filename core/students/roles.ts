/** What a member of a student's support team is to that student. */
export const roles = ['caseManager', 'educator', 'paraprofessional', 'specialist'] as const;
export type Role = (typeof roles)[number];

export const roleWords: Record<Role, string> = {
  caseManager: 'Case manager',
  educator: 'Educator',
  paraprofessional: 'Paraprofessional',
  specialist: 'Specialist',
};

/** What can be given to a member of a team, beside reading the report. */
export const grantable = ['observe', 'editGoals', 'share'] as const;
export type Granted = (typeof grantable)[number];

export const grantedWords: Record<Granted, string> = {
  observe: 'observe',
  editGoals: 'edit goals',
  share: 'share',
};
