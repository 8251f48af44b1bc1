// Holds how points were taken against a procedure: each deviation a sentence, so that a verdict can be told from a hint.
import { formatPlain } from '../quantity/index.ts';
import type { Instrument, Mains, Point, Stated, Taken } from '../reading/index.ts';
import { isCalibrationStated, mainsLabel } from '../reading/index.ts';
import type { Measured } from '../uncertainty/index.ts';
import { meterSays } from './meter.ts';
import { procedureOf } from './procedures.ts';
import type { Procedure } from './types.ts';

const minutes = (seconds: number): string => formatPlain(seconds, 'duration', 'min');
const percent = (fraction: number, digits = 1): string => `${(fraction * 100).toFixed(digits)} %`;

/** What is known of how a point was taken: its own record, else the newest statement about its loading and supply. */
export function takenOf(point: Point, stated: readonly Stated[]): Taken | null {
  if (point.taken) return point.taken;
  const own = stated.filter(
    (one) => one.setupId === point.setupId && mainsLabel(one.mains) === mainsLabel(point.mains),
  );
  return (
    own.reduce<Stated | null>((newest, one) => (newest && newest.statedAt > one.statedAt ? newest : one), null)
      ?.taken ?? null
  );
}

function warmUpSays({ warmUp: asked }: Procedure, warmUp: number | null): string[] {
  if (warmUp === null) return ['Warm-up is not recorded.'];
  return warmUp < asked - 1 ? [`Warmed up ${minutes(warmUp)}; the procedure asks for ${minutes(asked)}.`] : [];
}

function restSays({ settle }: Procedure, rest: Taken['rest']): string[] {
  if (!rest) return ['How the input settled is not recorded.'];
  if (rest.averaged) {
    return rest.over < settle.average - 1
      ? [`Averaged over ${minutes(rest.over)}; without settling the procedure asks for ${minutes(settle.average)}.`]
      : [];
  }
  if (rest.drift === null) return ['The drift of the input was not watched.'];
  if (rest.drift > settle.fraction)
    return [`Input still drifted ${percent(rest.drift)}; the procedure allows ${percent(settle.fraction)}.`];
  return rest.over < settle.over - 1
    ? [`Watched for ${minutes(rest.over)}; the procedure asks for ${minutes(settle.over)}.`]
    : [];
}

/** What of the supply was off or unknown. DC supplies have neither frequency nor distortion. */
export function sourceSays(procedure: Procedure, mains: Mains, source: Taken['source'] | null): string[] {
  const known = source ?? { volts: null, hertz: null, distortion: null, crest: null };
  const says: string[] = [];
  const unknown: string[] = [];
  const { volts, hertz, distortion, crest } = known;
  if (volts === null) unknown.push('voltage');
  else if (Math.abs(volts / mains.volts - 1) > procedure.sourceVolts)
    says.push(
      `Supply at ${formatPlain(volts, 'voltage')}; ${mainsLabel(mains)} ± ${percent(procedure.sourceVolts, 0)} is asked.`,
    );
  if (mains.kind === 'ac') {
    if (hertz === null) unknown.push('frequency');
    else if (Math.abs(hertz / mains.hertz - 1) > procedure.sourceHertz)
      says.push(`Supply at ${hertz} Hz; ${mains.hertz} Hz ± ${percent(procedure.sourceHertz, 0)} is asked.`);
    if (distortion === null) unknown.push('distortion');
    else if (distortion > procedure.sourceDistortion)
      says.push(
        `Supply distorted by ${percent(distortion)}; at most ${percent(procedure.sourceDistortion, 0)} is allowed.`,
      );
    const { low, high } = procedure.sourceCrest;
    if (crest !== null && (crest < low || crest > high))
      says.push(`Crest factor of the supply ${crest.toFixed(2)}; ${low} to ${high} is allowed.`);
  }
  if (unknown.length > 0) says.push(`Supply ${unknown.join(', ')} not recorded.`);
  return says;
}

/** What of one point's own conditions deviates. */
function pointSays(
  procedure: Procedure,
  point: Point,
  taken: Taken | null,
  instruments: readonly Instrument[],
): string[] {
  const meters = new Set(point.readings.map(({ instrumentId }) => instrumentId));
  const unstated = instruments.filter((one) => meters.has(one.id) && !isCalibrationStated(one));
  return [
    ...(point.evidence === 'load' ? [] : ['Loaded by a real device, not by an electronic load.']),
    ...(point.load > 0 ? warmUpSays(procedure, taken?.warmUp ?? null) : []),
    ...(point.load > 0 ? restSays(procedure, taken?.rest ?? null) : []),
    ...sourceSays(procedure, point.mains, taken?.source ?? null),
    ...(point.readings.some(({ overdue }) => overdue) ? ['A meter was overdue for calibration.'] : []),
    ...(unstated.length > 0 ? [`Calibration not stated: ${unstated.map(({ name }) => name).join(', ')}.`] : []),
  ];
}

const loadText = (load: number): string => (load === 0 ? 'no load' : `${Math.round(load * 100)} %`);

/** Sentences of many points: said once when all share them, else with the loads they are about. */
function gather(entries: readonly { readonly load: number; readonly says: readonly string[] }[]): string[] {
  const loadsOf = new Map<string, number[]>();
  for (const { load, says } of entries)
    for (const sentence of new Set(says)) loadsOf.set(sentence, [...(loadsOf.get(sentence) ?? []), load]);
  const all = entries.length;
  return [...loadsOf].map(([sentence, loads]) => {
    if (loads.length === all || all === 1) return sentence;
    const named = [...new Set(loads)].sort((a, b) => b - a).map(loadText);
    return `At ${named.join(', ')}: ${sentence}`;
  });
}

/** Points of a series are taken downwards, warm; a climb that does not start a new series is out of order. */
function orderSays(points: readonly Point[]): string[] {
  const taken = [...points].sort((a, b) => a.takenAt.localeCompare(b.takenAt));
  const highest = Math.max(...taken.map(({ load }) => load));
  for (const [index, point] of taken.entries()) {
    const before = taken[index - 1];
    if (!before || before.takenAt === point.takenAt) continue;
    if (point.load > before.load + 1e-9 && point.load < highest - 1e-9)
      return [
        `Out of order: ${loadText(point.load)} was taken after ${loadText(before.load)}; downwards from full load is asked.`,
      ];
  }
  return [];
}

/** A point with what was worked out from it. */
export interface TakenPoint {
  readonly point: Point;
  /** Powers the point gave, each with its name. */
  readonly powers: readonly { readonly what: string; readonly watts: Measured }[];
  /** What the point itself already noted, such as a load that was off. */
  readonly findings: readonly string[];
}

/**
 * Every way the points of a result deviate from a procedure. Empty when a verdict may be spoken.
 * @param points those behind one result at one supply: the points of an average, or of idle
 * @param instruments those of the bench; one that is no longer there has nothing said about it
 */
export function deviations(
  procedure: Procedure,
  points: readonly TakenPoint[],
  stated: readonly Stated[],
  instruments: readonly Instrument[] = [],
): readonly string[] {
  return [
    ...gather(
      points.map(({ point, powers, findings }) => ({
        load: point.load,
        says: [
          ...pointSays(procedure, point, takenOf(point, stated), instruments),
          ...powers.flatMap(({ what, watts }) => meterSays(procedure, watts, what)),
          ...findings,
        ],
      })),
    ),
    ...orderSays(points.map(({ point }) => point).filter(({ load }) => load > 0)),
  ];
}

/** Deviations of the points behind one result, worked out once a procedure, since several sets share one. */
export function deviationsOnce(
  points: readonly TakenPoint[],
  stated: readonly Stated[],
  instruments: readonly Instrument[],
): (procedureId: string) => readonly string[] {
  const known = new Map<string, readonly string[]>();
  return (id) => {
    const found = known.get(id) ?? deviations(procedureOf(id), points, stated, instruments);
    known.set(id, found);
    return found;
  };
}

/** Day of the newest of some points, ISO; empty for none. */
export const newestDay = (points: readonly Pick<TakenPoint, 'point'>[]): string =>
  points.reduce((newest, { point }) => (point.takenAt > newest ? point.takenAt : newest), '').slice(0, 10);
