import { useEffect, useState } from 'react';
import { keepNow } from './connection';
import { canLock, forgetPagesBut, keptSize } from './device';
import { keptHereWords } from './words';

/** What this device keeps for when there is no network: how many pages, and how much room they take. */
export function KeptHere({ isOn }: { isOn: boolean }) {
  const [said, setSaid] = useState('');
  useEffect(() => {
    if (!canLock() || !('serviceWorker' in navigator)) return setSaid(keptHereWords.thisBrowserCannot);
    // What was chosen holds at once.
    keepNow();
    const forgotten = isOn ? Promise.resolve() : forgetPagesBut([]);
    forgotten.then(keptSize).then(
      ({ pages, bytes }) => setSaid(pages === 0 ? keptHereWords.nothing : keptHereWords.pages(pages, sizeOf(bytes))),
      () => setSaid(keptHereWords.thisBrowserCannot),
    );
  }, [isOn]);
  return <p className="mt-1 text-small text-ink-2">{said}</p>;
}

/** A size in words, as files are told: up to a megabyte in kB. */
function sizeOf(bytes: number): string {
  return bytes < 1_000_000 ? `${Math.ceil(bytes / 1000)} kB` : `${(bytes / 1_000_000).toFixed(1)} MB`;
}
