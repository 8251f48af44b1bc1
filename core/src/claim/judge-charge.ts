// Promises of a charge time: held against whole charges of that device, and against what its battery would need.
import { HAIR, levelSince, percentOf, tenthMinutes, timeFor } from '../charge/index.ts';
import type { Limit } from '../decision/index.ts';
import { type ClaimTest, decidingFirst, settle, stateOf } from '../evidence/index.ts';
import { formatPlain } from '../quantity/index.ts';
import { type Charged, type Judged, type Known, notTested, type PromiseOf } from './known.ts';

type Promise = PromiseOf<'charge-time'>;

/** What came of one charge: a test, or why it says nothing of this promise. */
type Outcome = { readonly test: ClaimTest } | { readonly not: string };

const plain = (name: string): string => name.trim().toLowerCase().replace(/\s+/g, ' ');

/** Devices a promise is about: all of them where it names none. */
export const isAbout = (promise: Pick<Promise, 'device'>, device: string): boolean =>
  plain(promise.device) === '' || plain(promise.device) === plain(device);

/**
 * One charge against a promise. A charge that began fuller than promised had less to do: it can only be short. One that began
 * emptier is read over the promised levels. A device that worked meanwhile took longer: it can only prove.
 */
function outcomeOf({ from, to, seconds }: Promise, charge: Charged): Outcome {
  const { session, conditions, captureId, workload, heldBy } = charge;
  const { curve } = session;
  if (!curve) return { not: `${conditions}: its level is not known.` };
  const first = curve.levels[0] as number;
  const last = curve.levels.at(-1) as number;
  const fuller = first > from + HAIR;
  const begun = first > from - HAIR ? first : from;
  const limit: Limit = { kind: 'at-most', high: seconds };
  const since = levelSince(curve, begun);
  if (since === null || begun >= to)
    return { not: `${conditions}: it began at ${percentOf(first)}, above what is promised.` };
  const reached = timeFor(curve, begun, to);
  const seen = reached ?? (curve.times.at(-1) as number) - since;
  // A level is told in steps: what it began with may have been reached a step before.
  const step = begun === first && curve.source !== 'energy' ? stepTime(curve) : 0;
  const working = workload === 'screen on' || workload === 'heavy computing';
  const where = fuller ? `${conditions}, from ${percentOf(first)} only` : conditions;
  const interval =
    reached === null
      ? { low: seen, high: Number.POSITIVE_INFINITY }
      : {
          low: fuller ? seen : working || heldBy !== null ? 0 : seen,
          high: fuller ? Number.POSITIVE_INFINITY : seen + step,
        };
  const evidence = { kind: 'device' as const, interval, conditions: where, pointIds: [captureId] };
  const state = stateOf(evidence, limit);
  if (reached === null && state !== 'short')
    return { not: `${conditions}: it was not seen to ${percentOf(to)}, only to ${percentOf(last)}.` };
  if (fuller && state !== 'short')
    return { not: `${where}: ${tenthMinutes(seen)} to ${percentOf(to)}, and the start is another than promised.` };
  if (heldBy !== null && state !== 'proven') return { not: `${where}: ${tenthMinutes(seen)}, and ${heldBy}.` };
  if (working && state !== 'proven') return { not: `${conditions}: the device worked meanwhile (${workload}).` };
  return {
    test: {
      quantity: 'duration',
      limit,
      value: reached,
      words: reached === null ? `more than ${tenthMinutes(seen)}` : tenthMinutes(seen),
      expanded: Number.POSITIVE_INFINITY,
      unstated: [],
      state,
      probability: null,
      evidence,
    },
  };
}

/** s one step of a level takes at the beginning of a curve. */
function stepTime({ times, levels }: NonNullable<Charged['session']['curve']>): number {
  const rise = (levels[1] as number) - (levels[0] as number);
  return rise > 0 ? (((times[1] as number) - (times[0] as number)) * Math.min(0.01, rise)) / rise : 0;
}

/** What the battery would need on the way, beside what is promised and what the device takes. */
function needs(promise: Promise, { charged, devices, promisedWatts }: Known): readonly string[] {
  const { from, to, seconds } = promise;
  const device = devices.find(({ name }) => plain(promise.device) !== '' && isAbout(promise, name));
  const battery = device?.battery ?? null;
  if (!device || battery === null || charged.some(({ device: name }) => isAbout(promise, name))) return [];
  const mean = (battery * (to - from)) / seconds;
  const most = Math.max(0, ...device.ceilings.map(({ watts }) => watts));
  const needed = `From ${percentOf(from)} to ${percentOf(to)} the battery of ${device.name} takes ${formatPlain(battery * (to - from), 'energy', 'Wh')}: in ${tenthMinutes(seconds)} that is a mean of ${formatPlain(Number(mean.toPrecision(3)), 'power')}, losses left out.`;
  if (promisedWatts !== null && mean > promisedWatts)
    return [`${needed} No port promises more than ${formatPlain(promisedWatts, 'power')}: it cannot be.`];
  if (most > 0 && mean > most)
    return [`${needed} The device takes ${formatPlain(most, 'power')} at most: it cannot be.`];
  return [needed];
}

export function judgeChargeTime(promise: Promise, known: Known): Judged {
  const about = known.charged.filter(({ device }) => isAbout(promise, device));
  const notes = [...needs(promise, known)];
  const promised = `${percentOf(promise.from)} to ${percentOf(promise.to)} in ${tenthMinutes(promise.seconds)}`;
  if (about.length === 0) {
    const others = known.charged.length > 0 ? ' The charges there are went into other devices.' : '';
    return { ...notTested(`No whole charge of ${promise.device || 'a device'} yet.${others}`), notes };
  }
  const outcomes = about.map((charge) => outcomeOf(promise, charge));
  const tests = outcomes.flatMap((one) => ('test' in one ? [one.test] : []));
  const not = outcomes.flatMap((one) => ('not' in one ? [one.not] : []));
  if (tests.length === 0)
    return { ...notTested(`Not comparable. ${not[0] ?? ''}`), notes: [...not.slice(1), ...notes] };
  const { state, disagree } = settle(tests.map((test) => test.state));
  const sorted = decidingFirst(tests, state);
  const [first] = sorted;
  return {
    state,
    sentence: first ? `${first.words} (${first.evidence.conditions}); promised ${promised}.` : '',
    notes: [...(disagree ? ['The charges do not agree: some took less, some more.'] : []), ...not, ...notes],
    tests: sorted,
  };
}
