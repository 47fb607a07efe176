import { redirect } from 'react-router';

/** The students are where the day begins. */
export function loader() {
  return redirect('/students');
}

/** Never drawn: it makes this a page, so that its failure is one too. */
export default function Home() {
  return null;
}
