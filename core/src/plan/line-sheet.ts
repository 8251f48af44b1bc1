// The run sheet of something that sits in the line: its marker, its resistance plugging by plugging, its bends.

import type { Bending, BendPlan } from '../bends/index.ts';
import { CABLE_PLACES, placesOf } from '../cable/index.ts';
import { formatPlain } from '../quantity/index.ts';
import type { Mains } from '../reading/index.ts';
import { asTheMethodSays } from './generate.ts';
import { LOADED, readOutStep, rigStep, stepBase } from './steps.ts';
import type { Method, NewStep, SheetStep } from './types.ts';

/** The end that is loaded through it: where readings of a run are kept. */
export const [NEAR_END] = CABLE_PLACES;

/** What a run can load of a sample: its ports, or what sits in a line from its near end. */
export const loadedPlaces = (sample: Parameters<typeof placesOf>[0]): readonly string[] =>
  sample.kind === 'cable' ? [NEAR_END] : placesOf(sample);

/** What may flow where neither marker nor print says more, A. */
const UNMARKED_AMPS = 3;
/** Above this a source wants its higher levels, and a marker; A. */
const LOW_LEVEL_AMPS = 3;
/** Time for each current, s: contacts and meters come to rest. */
const CURRENT_SECONDS = 15;

export interface LineSource {
  /** A its marker lets through; null while nobody asked it. */
  readonly marked: number | null;
  /** A printed on it; null where nothing is. */
  readonly printed: number | null;
  readonly plan: BendPlan;
  readonly bending: Bending;
  /** How often it was bent already. */
  readonly bent: number;
}

/**
 * Currents of a series: none, whole amperes, and the most.
 * @param most A; nothing above 0 gives an empty series
 * @example currentsUpTo(2.4) // [0, 1, 2, 2.4]
 */
export function currentsUpTo(most: number): readonly number[] {
  if (!(most > 0) || !Number.isFinite(most)) return [];
  const whole = Array.from({ length: Math.floor(most) + 1 }, (_, amps) => amps);
  return whole.at(-1) === most ? whole : [...whole, most];
}

/** What it may carry: never more than its marker answers or its print says, 3 A where neither speaks. */
export const mostAmps = ({ marked, printed }: Pick<LineSource, 'marked' | 'printed'>): number =>
  Math.min(marked ?? UNMARKED_AMPS, printed ?? Number.POSITIVE_INFINITY);

/** A series of drops in one plugging. @param most A */
export const resistanceStep = (mains: Mains, most: number, replug: boolean, volts?: number): NewStep<'resistance'> => {
  const currents = currentsUpTo(most);
  return {
    ...stepBase(
      'resistance',
      'instruments',
      `Drop up to ${formatPlain(most, 'current')}${replug ? ', plugged in again' : ''}`,
    ),
    mains,
    outputs: [{ port: NEAR_END, volts: volts ?? (most > LOW_LEVEL_AMPS ? 20 : 5), amps: most }],
    load: 1,
    currents,
    replug,
    dwell: CURRENT_SECONDS * currents.length,
    needs: LOADED,
    caution: 'A worn contact gets hot: stop at heat or smell. Loads off before a plug is pulled.',
    attended: replug,
  };
};

/** A stretch at the bender. @param from bends it had before @param count altogether at its end */
export const bendStep = (bending: Bending, from: number, count: number): NewStep<'bend'> => ({
  ...stepBase('bend', 'keypad', `Bend to ${count}, then look at it`),
  angle: bending.angle,
  radius: bending.radius,
  tension: bending.tension,
  rate: bending.rate,
  count,
  dwell: bending.rate > 0 ? (Math.max(0, count - from) * 60) / bending.rate : 0,
  caution: 'Unplugged at both ends while it is bent. Keep fingers out of the bender.',
  attended: false,
});

/**
 * The steps in their order: the rig proves itself, its marker, its resistance in several pluggings; then, where it is
 * bent, every look that is still due with a series of drops behind it.
 * @example ofKind(makeLineSheet(method, source), 'resistance').map(({ replug }) => replug) // [false, true, true]
 */
export function makeLineSheet(method: Method, source: LineSource): readonly SheetStep[] {
  const { line, mains } = method;
  const [supply] = mains;
  if (!line || !supply) return [];
  const most = mostAmps(source);
  const due = line.bends ? source.plan.looks.filter((look) => look > source.bent) : [];
  const steps: NewStep[] = [
    rigStep('instruments'),
    { ...readOutStep('instruments', NEAR_END), title: 'Ask for its marker' },
    ...Array.from({ length: line.pluggings }, (_, at) => resistanceStep(supply, most, at > 0)),
    ...due.flatMap((look, at) => [
      bendStep(source.bending, due[at - 1] ?? source.bent, look),
      resistanceStep(supply, most, true),
    ]),
  ];
  return asTheMethodSays(method, steps);
}
