// Supply conditions: naming and matching.
import type { Mains } from './types.ts';

/** How a supply is written everywhere: `230 V 50 Hz`, `13.8 V DC`. Also serves as its key. */
export const mainsLabel = (mains: Mains): string =>
  mains.kind === 'ac' ? `${mains.volts} V ${mains.hertz} Hz` : `${mains.volts} V DC`;

/** True when a supply meets a wanted one within ±1 % of voltage and frequency (source tolerance of the test procedures). */
export function mainsMatches(actual: Mains, wanted: Mains): boolean {
  const near = (a: number, b: number) => Math.abs(a - b) <= 0.01 * b + 1e-9;
  if (actual.kind === 'dc' || wanted.kind === 'dc') {
    return actual.kind === wanted.kind && near(actual.volts, wanted.volts);
  }
  return near(actual.volts, wanted.volts) && near(actual.hertz, wanted.hertz);
}

/** The pair most regulations name, and the default. */
export const REGULATORY_PAIR: readonly Mains[] = [
  { kind: 'ac', volts: 115, hertz: 60 },
  { kind: 'ac', volts: 230, hertz: 50 },
];

/** Mains pairs in use on benches. */
export const MAINS_CHOICES: readonly {
  readonly id: string;
  readonly title: string;
  readonly mains: readonly Mains[];
}[] = [
  { id: 'regulatory', title: '115 V 60 Hz and 230 V 50 Hz', mains: REGULATORY_PAIR },
  {
    id: 'pair-110-220',
    title: '110 V 60 Hz and 220 V 50 Hz',
    mains: [
      { kind: 'ac', volts: 110, hertz: 60 },
      { kind: 'ac', volts: 220, hertz: 50 },
    ],
  },
  {
    id: 'pair-120-230',
    title: '120 V 60 Hz and 230 V 50 Hz',
    mains: [
      { kind: 'ac', volts: 120, hertz: 60 },
      { kind: 'ac', volts: 230, hertz: 50 },
    ],
  },
  { id: 'local-230', title: '230 V 50 Hz only', mains: [{ kind: 'ac', volts: 230, hertz: 50 }] },
  { id: 'local-120', title: '120 V 60 Hz only', mains: [{ kind: 'ac', volts: 120, hertz: 60 }] },
];

/** What a vehicle gives: a 12 V and a 24 V system with the engine running. */
export const CAR_SUPPLIES: readonly Mains[] = [
  { kind: 'dc', volts: 13.8 },
  { kind: 'dc', volts: 27.6 },
];

/** Supplies a car charger's efficiency is read over, V: 10 to 16 V and 20 to 32 V. */
export const CAR_STOPS = {
  '12 V': [10, 11, 12, 13.8, 14.4, 16],
  '24 V': [20, 22, 24, 27.6, 28.8, 32],
} as const satisfies Record<string, readonly number[]>;

/**
 * Supplies a kind of charger is measured at: those of the method that fit it, else what is usual for it.
 * @param chosen mains of the method, which may be meant for the other kind
 */
export function suppliesFor(kind: 'wall' | 'desktop' | 'car' | 'cable', chosen: readonly Mains[]): readonly Mains[] {
  const wanted = kind === 'car' ? 'dc' : 'ac';
  const fitting = chosen.filter((one) => one.kind === wanted);
  if (fitting.length > 0) return fitting;
  return kind === 'car' ? CAR_SUPPLIES : REGULATORY_PAIR;
}
