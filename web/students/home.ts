import { redirect } from 'react-router';

/** The students are where the day begins. */
export function loader() {
  return redirect('/students');
}
