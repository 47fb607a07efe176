// npm run simulate: how often what is claimed would be right. The tables of docs/measures.md.
import { chanceMet } from '~/core/progress/luck';
import { pageCases, pagesWithFinding } from './pages';
import { decisionRates, trendCases, trendCoverage } from './rates';

const REPLICATIONS = 1000;
const one = (value: number) => value.toFixed(1);

console.log(
  '\nTrend: how often the 95% interval holds the true slope, and its width beside one that knows the correlation\n',
);
console.table(
  trendCases.map((some, i) => {
    const { coverage, widthRatio } = trendCoverage(some, REPLICATIONS, 1 + i);
    const { days, opportunities, correlation } = some;
    return { correlation, days, opportunities, 'holds %': one(coverage), 'times as wide': widthRatio.toFixed(2) };
  }),
);

console.log(
  '\nDecision: how often a student is said to be behind or ahead (6 opportunities a day, 8 points day to day)\n',
);
console.table(
  [10, 20].flatMap((days) =>
    [0, 10, 15, 20].map((below) => {
      const { behind, ahead } = decisionRates({ below, days }, REPLICATIONS, 100 + days + below);
      return { days, 'points below the line': below, 'behind %': one(behind), 'ahead %': one(ahead) };
    }),
  ),
);

console.log(
  '\nLuck: of 100 students at a true level, how many meet “80% on 3 of 4 days” within 57 observation days (exact)\n',
);
console.table(
  [4, 5, 6, 8, 10, 12].map((opportunities) => {
    const rule = { k: 3, n: 4, comparison: 'atLeast' as const, value: 80, opportunities };
    const of = (truly: number) => Math.round(100 * chanceMet(rule, truly, 57));
    return { opportunities, 'truly 50%': of(50), 'truly 60%': of(60), 'truly 70%': of(70), 'truly 80%': of(80) };
  }),
);

console.log(
  '\nFindings: how many of 100 behavior pages find anything where there is nothing, or what is three times as likely\n',
);
console.table(
  pageCases.map((some, i) => ({
    ...{ 'three times as likely': some.threefold ?? 'nothing', notes: some.notes, 'burst of': some.burst },
    'found %': one(pagesWithFinding(some, REPLICATIONS / 2, 200 + i)),
  })),
);
