import { useId, useState } from 'react';
import { counted, percent } from '~/core/words/counting';
import { pooledSharesWords } from './words';

/** All opportunities of a time together, by the help they took. */
export interface PooledShares {
  label: string;
  sessions: number;
  parts: { key: string; label: string; tone: string; n: number; share: number }[];
}

/** One bar of all opportunities over a time that is chosen, with its counts: what is taken into a meeting. */
export function PooledSharesBar({ times }: { times: PooledShares[] }) {
  const [chosen, setChosen] = useState(0);
  const id = useId();
  const time = times[chosen] ?? times[0];
  if (!time) return null;
  const parts = time.parts.filter(({ n }) => n > 0);
  return (
    <div className="max-w-3xl">
      <p className="mb-2 flex flex-wrap items-center gap-2 text-small">
        <label htmlFor={id}>{pooledSharesWords.over}</label>
        <select
          id={id}
          value={chosen}
          onChange={(event) => setChosen(Number(event.target.value))}
          className="select w-auto"
        >
          {times.map(({ label }, i) => (
            <option key={label} value={i}>
              {label}
            </option>
          ))}
        </select>
        <span className="text-ink-2">{counted(time.sessions, 'session', 'sessions')}</span>
      </p>
      <div aria-hidden className="flex h-8 overflow-hidden rounded-field border border-rule">
        {parts.map(({ key, tone, share }) => (
          <span key={key} className={`trial-mark h-full rounded-none ${tone}`} style={{ width: `${share}%` }} />
        ))}
      </div>
      <ul className="mt-2 flex flex-wrap gap-x-5 gap-y-1 text-small">
        {time.parts.map(({ key, label, tone, n, share }) => (
          <li key={key} className="flex items-center gap-1.5">
            <span aria-hidden className={`trial-mark size-3 ${tone}`} /> {label}: {n} ({percent(share)})
          </li>
        ))}
      </ul>
    </div>
  );
}
