import type { z } from 'zod';

/** What a schema says where it has no words of its own: what is wrong, not what a program expected. */
export const refusal: z.core.$ZodErrorMap = (issue) => {
  if (issue.code === 'invalid_type') {
    const missing: Record<string, string> = {
      number: 'A number is missing here.',
      string: 'Something is missing here.',
    };
    return missing[issue.expected] ?? 'Nothing that can be read is marked here.';
  }
  if (issue.code === 'too_big') return 'That is more than fits here.';
  if (issue.code === 'too_small') return 'That is less than is needed here.';
  return 'This cannot be read; mark it again.';
};
