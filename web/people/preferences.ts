import { redirect } from 'react-router';
import { z } from 'zod';
import { preferencesCookie, preferencesOf } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { localPath } from '../platform/http/local-path';
import type { Route } from './+types/preferences';

const change = z.object({
  theme: z.enum(['system', 'light', 'dark']).optional(),
  discreet: z.enum(['on', 'off']).optional(),
  shortcuts: z.enum(['on', 'off']).optional(),
  keepsPages: z.enum(['on', 'off']).optional(),
  from: z.string().optional(),
});

/** Changes what this device prefers; what is not named stays. */
export async function action({ request }: Route.ActionArgs) {
  const before = await preferencesOf(request);
  const { theme, discreet, shortcuts, keepsPages, from } = change
    .catch({})
    .parse(Object.fromEntries(await formOf(request)));
  const after = {
    theme: theme ?? before.theme,
    discreet: discreet ? discreet === 'on' : before.discreet,
    shortcuts: shortcuts ? shortcuts === 'on' : before.shortcuts,
    keepsPages: keepsPages ? keepsPages === 'on' : before.keepsPages,
  };
  return redirect(localPath(from) ?? '/students', {
    headers: { 'Set-Cookie': await preferencesCookie.serialize(after) },
  });
}

export function loader() {
  return redirect('/account');
}
