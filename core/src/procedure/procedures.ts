// The procedures that ship. Confirm against the current text before relying on one.
import { ONE_PERCENT_RULE } from './settle-rule.ts';
import type { Procedure } from './types.ts';

const COMMON = {
  warmUp: 1800,
  sourceVolts: 0.01,
  sourceHertz: 0.01,
  sourceDistortion: 0.02,
  sourceCrest: { low: 1.34, high: 1.49 },
  meterFraction: 0.02,
  meterBelow: 0.01,
} as const satisfies Partial<Procedure>;

export const PROCEDURES: readonly Procedure[] = [
  {
    ...COMMON,
    id: 'one-percent',
    title: 'Warm 30 min, input steady within 1 % over 5 min',
    source: '10 CFR 430 subpart B, appendix Z, 3 and 4; EN 50563:2011+A1:2013, 5',
    settle: ONE_PERCENT_RULE,
  },
  {
    ...COMMON,
    id: 'five-percent',
    title: 'Warm 30 min, input steady within 5 % over 5 min',
    source: 'Older texts of the same procedure',
    settle: { ...ONE_PERCENT_RULE, fraction: 0.05 },
  },
];

/** A procedure by id; the strictest for none in particular, or for one nobody knows any more. */
export const procedureOf = (id?: string): Procedure =>
  PROCEDURES.find((one) => one.id === id) ?? (PROCEDURES[0] as Procedure);
