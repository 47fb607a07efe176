import { useEffect, useRef, useState } from 'react';
import { useLocation, useNavigation } from 'react-router';

/** Once a page has come, its title stands; and what it focuses by itself has been focused. In milliseconds. */
const STANDS_AFTER = 100;

/**
 * Says which page has come, as a browser does for a page that it loads; and where what was focused went with the page before, the
 * focus begins at the new one.
 */
export function Announced() {
  const { pathname } = useLocation();
  const isIdle = useNavigation().state === 'idle';
  const shown = useRef(pathname);
  const [said, setSaid] = useState('');
  useEffect(() => {
    if (!isIdle || shown.current === pathname) return;
    const timer = setTimeout(() => {
      shown.current = pathname;
      setSaid(document.title);
      const { activeElement } = document;
      if (!activeElement || activeElement === document.body) {
        document.getElementById('page')?.focus({ preventScroll: true });
      }
    }, STANDS_AFTER);
    return () => clearTimeout(timer);
  }, [pathname, isIdle]);
  return (
    <p aria-live="polite" data-announced className="sr-only">
      {said}
    </p>
  );
}
