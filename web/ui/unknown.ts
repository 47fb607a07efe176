import { data } from 'react-router';

/** Any address that leads nowhere. */
export function loader() {
  throw data(null, { status: 404 });
}
