import { lastFiveWords } from './words';

const WIDTH = 282;
const HEIGHT = 84;
const PLACES = 6;

interface LastFiveProps {
  /** Up to five values, oldest first. */
  last: readonly number[];
  /** What this session comes to; null while nothing is marked. */
  now: number | null;
  /** The largest value there can be; null where that depends on what was measured. */
  max: number | null;
  /** A value in words. */
  said: (value: number) => string;
  target: number;
  isUp: boolean;
}

/** Where this session falls beside the last five: the clay ring is this one. */
export function LastFive({ last, now, max, said, target, isUp }: LastFiveProps) {
  const top = max ?? 1.1 * Math.max(target, now ?? 0, ...last, 0.1);
  const x = (place: number) => 14 + (place * (WIDTH - 28)) / (PLACES - 1);
  const y = (value: number) => 6 + (HEIGHT - 12) * (1 - value / top);
  const first = PLACES - 1 - last.length;
  const points = last.map((value, i) => `${x(first + i)} ${y(value)}`);
  const before = last.length === 0 ? lastFiveWords.noPointsBeforeThisOne : `Before: ${last.map(said).join(', ')}`;
  return (
    <svg
      role="img"
      aria-label={lastFiveWords.nowTarget(before, now === null ? lastFiveWords.nothingYet : said(now), said(target))}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="block h-auto w-full text-ink"
    >
      <rect
        y={isUp ? 0 : y(target)}
        width={WIDTH}
        height={isUp ? y(target) : HEIGHT - y(target)}
        className="fill-fern-wash"
      />
      <path d={`M0 ${y(target)}H${WIDTH}`} className="stroke-fern" strokeWidth="1.2" />
      {points.length > 0 && <path d={`M${points.join('L')}`} fill="none" stroke="currentColor" strokeWidth="1.6" />}
      {points.map((at) => (
        <path key={at} d={`M${at}h0`} stroke="currentColor" strokeWidth="5.5" strokeLinecap="round" />
      ))}
      {now !== null && (
        <circle cx={x(PLACES - 1)} cy={y(now)} r="5" fill="none" strokeWidth="2.2" className="stroke-clay" />
      )}
    </svg>
  );
}
