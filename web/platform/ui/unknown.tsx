import { data } from 'react-router';

/** Any address that leads nowhere. */
export function loader() {
  throw data(null, { status: 404 });
}

/** Never drawn: it makes this a page, so that its failure is one too. */
export default function Unknown() {
  return null;
}
