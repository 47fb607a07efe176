import { percent } from '~/core/words/counting';

const WIDTH = 282;
const HEIGHT = 84;
const PLACES = 6;

interface LastFiveProps {
  /** Up to five values, oldest first. */
  last: readonly number[];
  /** What this session comes to; null while nothing is marked. */
  now: number | null;
  target: number;
  isUp: boolean;
}

/** Where this session falls beside the last five: the clay ring is this one. */
export function LastFive({ last, now, target, isUp }: LastFiveProps) {
  const x = (place: number) => 14 + (place * (WIDTH - 28)) / (PLACES - 1);
  const y = (value: number) => 6 + (HEIGHT - 12) * (1 - value / 100);
  const first = PLACES - 1 - last.length;
  const points = last.map((value, i) => `${x(first + i)} ${y(value)}`);
  const said = last.length === 0 ? 'No points before this one' : `Before: ${last.map(percent).join(', ')}`;
  return (
    <svg
      role="img"
      aria-label={`${said}. Now: ${now === null ? 'nothing yet' : percent(now)}. Target ${percent(target)}.`}
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
