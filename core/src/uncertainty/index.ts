// Uncertainty of measurement after the GUM (JCGM 100:2008): specs, combination, coverage.

export * from './combine.ts';
export * from './measured.ts';
export * from './spec.ts';
export * from './usual.ts';
