import { z } from 'zod';
import { largest, sum, tenths } from '../../statistics/spread';
import { counted, lengthOfTime, percent } from '../../words/counting';
import { totalDurationAgreement } from '../agreement/agreement';
import { lengthCell } from '../cells';
import { usualCriterion } from '../criterion-definition';
import type { MeasureKind } from '../measure-kind';
import { lengths } from '../measure-table';
import { noun } from '../named';
import type { BreakdownLine, Score } from '../score';

/** A goal measured by how long: altogether, on average for an episode, or as a share of the session. */
export const durationDefinition = z.object({
  kind: z.literal('duration'),
  of: z.enum(['total', 'episode', 'share']),
  /** The unit of the value; shares are in percent whatever it says. */
  unit: z.enum(['seconds', 'minutes']).default('minutes'),
  episode: noun.default({ one: 'episode', many: 'episodes' }),
});
export type DurationDefinition = z.infer<typeof durationDefinition>;

/** The length of each episode, and of the session where it was noted. No episode is a total of 0. */
export type DurationData = { episodes: number[]; sessionSeconds: number | null };

const DAY = 86_400;

function durationData({ of, episode }: DurationDefinition): z.ZodType<DurationData> {
  return z
    .object({
      episodes: z
        .array(
          z
            .number({ error: `Say how long each ${episode.one} was.` })
            .positive({ error: `A length of nothing is no ${episode.one}.` })
            .max(DAY, { error: `No ${episode.one} lasts longer than a day.` }),
        )
        .max(500, { error: `At most 500 ${episode.many} fit in one entry.` }),
      sessionSeconds: z
        .number()
        .positive({ error: 'Say how long the session was.' })
        .max(DAY, { error: 'No session lasts longer than a day.' })
        .nullable(),
    })
    .superRefine(({ episodes, sessionSeconds }, context) => {
      const refuse = (message: string, path: string) =>
        context.addIssue({ code: 'custom', message, path: [path], input: episodes });
      if (sessionSeconds === null) {
        if (of === 'share') refuse('Say how long the session was; a share needs it.', 'sessionSeconds');
      } else if (sum(episodes) > sessionSeconds + 1e-9) {
        refuse(
          `The ${episode.many} add up to ${lengthOfTime(sum(episodes))}, longer than the session of ${lengthOfTime(sessionSeconds)}.`,
          'episodes',
        );
      }
    });
}

const perUnit = ({ unit }: DurationDefinition) => (unit === 'minutes' ? 60 : 1);

/**
 * Total time, mean time for an episode, or the share of the session. Without an episode the total and the share are 0, and
 * there is no mean.
 *
 * @returns value in the goal's unit or in percent; amount in seconds; weight 1 for a total, episodes for a mean, the
 *   session's seconds for a share
 * @see Cooper, Heron & Heward, Applied Behavior Analysis: total duration per session, duration per occurrence
 */
export function scoreDuration(definition: DurationDefinition, { episodes, sessionSeconds }: DurationData): Score {
  const amount = sum(episodes);
  if (definition.of === 'total') return { value: amount / perUnit(definition), amount, weight: 1 };
  if (definition.of === 'episode') {
    if (episodes.length === 0) return { value: null, reason: 'noOpportunity' };
    return { value: amount / episodes.length / perUnit(definition), amount, weight: episodes.length };
  }
  if (!sessionSeconds) return { value: null, reason: 'nothingScored' };
  return { value: (100 * amount) / sessionSeconds, amount, weight: sessionSeconds };
}

function durationLines(_: DurationDefinition, { episodes, sessionSeconds }: DurationData): BreakdownLine[] {
  const line = (key: string, label: string, seconds: number | null): BreakdownLine => ({
    key,
    label,
    value: seconds,
    said: seconds === null ? 'none' : lengthOfTime(seconds),
  });
  const any = episodes.length > 0;
  return [
    { key: 'episodes', label: 'Episodes', value: episodes.length, said: String(episodes.length) },
    line('total', 'Altogether', sum(episodes)),
    line('mean', 'On average', any ? sum(episodes) / episodes.length : null),
    line('longest', 'Longest', any ? largest(episodes) : null),
    ...(sessionSeconds === null ? [] : [line('session', 'Session', sessionSeconds)]),
  ];
}

/** @example “3 episodes, 4 min 30 s of 25 min in all. Average 1 min 30 s; longest 2 min.” */
export function durationSentence(definition: DurationDefinition, { episodes, sessionSeconds }: DurationData): string {
  const { one, many } = definition.episode;
  const total = sum(episodes);
  const session = sessionSeconds === null ? '' : lengthOfTime(sessionSeconds);
  const share = definition.of === 'share' && sessionSeconds ? ` (${percent((100 * total) / sessionSeconds)})` : '';
  if (episodes.length === 0) return `No ${many}${session && ` in ${session}`}.`;
  const length = `${lengthOfTime(total)}${session && ` of ${session}`}`;
  if (episodes.length === 1) return `1 ${one}, ${length}${share}.`;
  const [average, longest] = [lengthOfTime(total / episodes.length), lengthOfTime(largest(episodes))];
  return `${episodes.length} ${many}, ${length} in all${share}. Average ${average}; longest ${longest}.`;
}

export const duration: MeasureKind<DurationDefinition, DurationData> = {
  question: 'How long',
  term: 'duration',
  example: 'two pauses, 6 minutes altogether',
  beginning: durationDefinition.parse({ kind: 'duration', of: 'total' }),
  holds: (data): data is DurationData => 'episodes' in data,
  data: durationData,
  pool: (_, sessions) => ({
    episodes: sessions.flatMap((session) => session.episodes),
    sessionSeconds: sessions.some((session) => session.sessionSeconds === null)
      ? null
      : sum(sessions.map((session) => session.sessionSeconds ?? 0)),
  }),
  accumulates: false,
  isShare: false,
  score: scoreDuration,
  breakdown: durationLines,
  sentence: durationSentence,
  said: (definition, value) => (definition.of === 'share' ? percent(value) : lengthOfTime(value * perUnit(definition))),
  basis: ({ of, episode }, { amount, weight }) => {
    if (of === 'total') return lengthOfTime(amount);
    if (of === 'share') return `${lengthOfTime(amount)} of ${lengthOfTime(weight)}`;
    return `${lengthOfTime(amount)} in ${counted(weight, episode.one, episode.many)}`;
  },
  asCount: () => null,
  weightNoun: ({ of, episode }) =>
    of === 'episode' ? episode : of === 'share' ? { one: 'second', many: 'seconds' } : { one: 'day', many: 'days' },
  axis: ({ of, unit }) =>
    of === 'share'
      ? { max: 100, unit: '%', change: 'points' }
      : { max: null, unit: unit === 'minutes' ? ' min' : ' s', change: unit },
  discreet: (definition) => ({ ...definition, episode: { one: 'episode', many: 'episodes' } }),
  defaultCriterion: ({ of, unit }) => usualCriterion('atLeast', of === 'share' ? 80 : unit === 'minutes' ? 10 : 60),
  meaning: () => [],
  table: {
    columns: ({ episode }) => [
      { key: 'episodes', label: `Each ${episode.one}`, example: '4:30; 1:15' },
      { key: 'sessionSeconds', label: 'Session', example: '30:00' },
    ],
    read: (_, cells, take) => ({
      episodes: take('episodes', lengths) ?? [],
      sessionSeconds: cells.sessionSeconds ? take('sessionSeconds', lengthCell) : null,
    }),
    columnOf: (_, path) => (path[0] === 'sessionSeconds' ? 'sessionSeconds' : 'episodes'),
  },
  agreement: (_, a, b) => ({
    share: totalDurationAgreement(a.episodes, b.episodes),
    basis: 'the shorter total over the longer',
  }),
  withClock: (_, data, seconds) => {
    if (seconds <= 0) return data;
    const { episodes, sessionSeconds } = data ?? { episodes: [], sessionSeconds: null };
    return { episodes: [...episodes, tenths(seconds)], sessionSeconds };
  },
};
