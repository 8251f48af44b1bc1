// Measures of one's own, by formula; apart from the rest, since what reads formulas is large.
export * from './formula.ts';
