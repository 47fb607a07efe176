// General-purpose reference libraries that come without types; only what the tests ask of them.
declare module 'jstat' {
  export const jStat: {
    studentt: { inv(p: number, freedom: number): number; cdf(t: number, freedom: number): number };
    normal: { cdf(x: number, mean: number, sd: number): number };
    binomial: { cdf(k: number, n: number, p: number): number };
    hypgeom: { pdf(k: number, population: number, marked: number, drawn: number): number };
  };
}
declare module 'ml-regression-theil-sen' {
  export class TheilSenRegression {
    constructor(x: number[], y: number[]);
    slope: number;
    intercept: number;
  }
}
