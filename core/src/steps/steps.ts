// The load steps that offers and claims call for, port by port: no load and rated current of every level, corners and
// middle of every range, and the total.

import { describeOffer, type SourceObject, SPR_AVS_RANGE, type SupplyKind, usableAmps, voltsOf } from '../pd/index.ts';
import type { Claim } from '../promise/index.ts';
import { formatPlain } from '../quantity/index.ts';
import { bestReadOut, offersOf, type ReadOut } from '../read-out/index.ts';
import { type Output, RANGE_SUPPLIES, SUPPLY_WORDS, sameOutputs, setAmps } from '../reading/index.ts';

/** Why a step is on the list. */
export type StepReason = 'offered' | 'promised' | 'range' | 'total' | 'own';

export interface ProofStep {
  /** What is loaded, each with the level and the current at it. */
  readonly outputs: readonly Output[];
  /** 0 without load, 1 at the currents above. */
  readonly load: 0 | 1;
  readonly reason: StepReason;
  /** Kind of offer it stands for; null for a promise alone, a total or a step of the user's. */
  readonly supply: SupplyKind | null;
  /** What calls for it: "fixed 20 V 3.25 A", "label: 20 V 5 A". */
  readonly from: string;
}

/** Key of a step: what is set, and whether it is loaded. */
export const stepKey = ({ outputs, load }: Pick<ProofStep, 'outputs' | 'load'>): string =>
  `${outputs.map(({ port, volts, amps, supply = 'fixed' }) => `${port} ${supply} ${volts} ${amps}`).join(' + ')} @${load}`;

/** What to set, as read aloud at the bench: "C1 20 V 3.25 A", "C1 20 V, no load". */
export function stepTitle({ outputs, load }: Pick<ProofStep, 'outputs' | 'load'>): string {
  const each = outputs.map(({ port, volts, amps, supply }) => {
    const set = `${port} ${supply ? `${SUPPLY_WORDS[supply]} ` : ''}${formatPlain(volts, 'voltage')}`;
    return load === 0 ? set : `${set} ${formatPlain(amps, 'current')}`;
  });
  return `${each.join(' + ')}${load === 0 ? ', no load' : ''}`;
}

const hundredth = (value: number): number => Math.round(value * 100) / 100;
function levelSteps(port: string, object: SourceObject & { kind: 'fixed' }): ProofStep[] {
  const outputs = [{ port, volts: object.volts, amps: object.amps }];
  const from = describeOffer(object);
  return object.amps > 0 && object.volts > 0
    ? ([0, 1] as const).map((load) => ({ outputs, load, reason: 'offered' as const, supply: 'fixed' as const, from }))
    : [];
}

/** Voltages at which a range is proved: both ends, the middle, and where its current steps. */
function rangeVolts(object: SourceObject): readonly number[] {
  const range = voltsOf(object);
  if (!range) return [];
  if (object.kind === 'spr-avs') {
    const { low, middle, high } = SPR_AVS_RANGE;
    return object.ampsAbove > 0 ? [low, middle, high] : [low, (low + middle) / 2, middle];
  }
  return [range.low, hundredth((range.low + range.high) / 2), range.high];
}

function rangeSteps(port: string, object: SourceObject, sourceWatts: number | null): ProofStep[] {
  return rangeVolts(object).flatMap((volts) => {
    const amps = setAmps(usableAmps(object, volts, sourceWatts));
    if (!(amps > 0) || !(volts > 0)) return [];
    const supply = RANGE_SUPPLIES.find((kind) => kind === object.kind);
    const outputs = [{ port, volts, amps, ...(supply ? { supply } : {}) }];
    return [{ outputs, load: 1 as const, reason: 'range' as const, supply: object.kind, from: describeOffer(object) }];
  });
}

/** Ends of promised ranges; proving both proves the range. */
const promisedEnds = (claims: readonly Pick<Claim, 'promise'>[], port: string): ProofStep[] =>
  claims.flatMap(({ promise }) => {
    if (promise.kind !== 'range' || promise.port !== port) return [];
    const { low, high, amps, supply } = promise;
    return [low, high].map((volts) => ({
      outputs: [{ port, volts, amps, supply }],
      load: 1 as const,
      reason: 'promised' as const,
      supply,
      from: `label: ${SUPPLY_WORDS[supply]} ${formatPlain(low, 'voltage').replace(' V', '')}–${formatPlain(high, 'voltage')}`,
    }));
  });

const promisedLines = (claims: readonly Pick<Claim, 'promise'>[], port: string): readonly Output[] =>
  claims.flatMap(({ promise }) => {
    if (promise.kind === 'port-line' && promise.port === port)
      return [{ port, volts: promise.volts, amps: promise.amps }];
    return [];
  });

/** The steps one port calls for. Ordered as it is least work at the bench: level by level, upwards. */
function portSteps(
  port: string,
  claims: readonly Pick<Claim, 'promise'>[],
  readOuts: readonly ReadOut[],
  sourceWatts: number | null,
): ProofStep[] {
  const best = bestReadOut(readOuts, port);
  const offers = best ? offersOf(best).filter(({ unreachable }) => unreachable === null) : [];
  const fixed = offers.flatMap(({ object }) => (object.kind === 'fixed' ? levelSteps(port, object) : []));
  const ranges = offers.flatMap(({ object }) => (object.kind === 'fixed' ? [] : rangeSteps(port, object, sourceWatts)));
  const covered = (line: Output) =>
    fixed.some(({ outputs: [only] }) => only && near(only.volts, line.volts) && only.amps >= line.amps - 0.011);
  // A level the charger refuses cannot be loaded; its claim is unreachable without a step.
  const refused = (line: Output) =>
    (best ? offersOf(best) : []).some(
      ({ object, unreachable }) => unreachable !== null && object.kind === 'fixed' && near(object.volts, line.volts),
    );
  const promised = promisedLines(claims, port)
    .filter((line) => !covered(line) && !refused(line))
    .flatMap((line): ProofStep[] => {
      const levelKnown = fixed.some(({ outputs: [only] }) => only && near(only.volts, line.volts));
      const from = `label: ${formatPlain(line.volts, 'voltage')} ${formatPlain(line.amps, 'current')}`;
      const loads = levelKnown ? ([1] as const) : ([0, 1] as const);
      return loads.map((load) => ({ outputs: [line], load, reason: 'promised', supply: null, from }));
    });
  const byVolts = (a: ProofStep, b: ProofStep) => (a.outputs[0]?.volts ?? 0) - (b.outputs[0]?.volts ?? 0);
  const covers = (end: ProofStep) =>
    ranges.some(({ outputs: [a] }) => {
      const [b] = end.outputs;
      return a && b && a.supply === b.supply && near(a.volts, b.volts) && a.amps >= b.amps - 0.051;
    });
  const ends = promisedEnds(claims, port).filter((end) => !covers(end));
  return [...[...fixed, ...promised].sort((a, b) => byVolts(a, b) || a.load - b.load), ...ranges, ...ends];
}

const near = (a: number, b: number): boolean => Math.abs(a - b) < 0.01 * b;

/** The level that gives a power at the least current, or null when none gives it. */
function levelFor(levels: readonly Output[], watts: number): Output | null {
  const able = levels.filter(({ volts, amps }) => volts * amps >= watts * 0.995);
  const highest = able.reduce<Output | null>((best, one) => (best && best.volts >= one.volts ? best : one), null);
  return highest ? { ...highest, amps: Math.min(highest.amps, hundredth(watts / highest.volts)) } : null;
}

/** How the promised total is drawn: as a promised combination that sums to it, else filled from the strongest port. */
function totalStep(
  ports: readonly string[],
  claims: readonly Pick<Claim, 'promise'>[],
  steps: readonly ProofStep[],
): ProofStep | null {
  const total = claims.flatMap(({ promise }) => (promise.kind === 'total' ? [promise.watts] : [])).at(0);
  if (total === undefined) return null;
  const levelsOf = (port: string) =>
    steps.flatMap(({ outputs, load, reason }) =>
      outputs[0]?.port === port && load === 1 && reason !== 'range' ? [outputs[0]] : [],
    );
  const step = (outputs: readonly Output[]): ProofStep => ({
    outputs,
    load: 1,
    reason: 'total',
    supply: null,
    from: `promised total ${formatPlain(total, 'power')}`,
  });
  for (const { promise } of claims) {
    if (promise.kind !== 'combination' || promise.shares.some((share) => share.with)) continue;
    const sum = promise.shares.reduce((all, { watts }) => all + watts, 0);
    if (!near(sum, total)) continue;
    const outputs = promise.shares.flatMap(({ port, watts }) => levelFor(levelsOf(port), watts) ?? []);
    if (outputs.length === promise.shares.length) return step(outputs);
  }
  const strongest = ports
    .map((port) =>
      levelsOf(port).reduce<Output | null>((a, b) => (a && a.volts * a.amps >= b.volts * b.amps ? a : b), null),
    )
    .flatMap((one) => one ?? [])
    .sort((a, b) => b.volts * b.amps - a.volts * a.amps);
  const outputs: Output[] = [];
  let left = total;
  for (const one of strongest) {
    if (left < 0.5) break;
    const amps = hundredth(Math.min(one.amps, left / one.volts));
    outputs.push({ ...one, amps });
    left -= one.volts * amps;
  }
  // A single port's total is one of its levels already.
  return outputs.length > 1 ? step(outputs) : null;
}

/** Everything to prove on a sample, each step once. @param own steps the user added */
export function proofSteps(
  ports: readonly string[],
  claims: readonly Pick<Claim, 'promise'>[],
  readOuts: readonly ReadOut[],
  own: readonly (readonly Output[])[] = [],
): readonly ProofStep[] {
  const total = claims.flatMap(({ promise }) => (promise.kind === 'total' ? [promise.watts] : [])).at(0) ?? null;
  const single = ports.length === 1 ? total : null;
  const listed = ports.flatMap((port) => portSteps(port, claims, readOuts, single));
  const together = totalStep(ports, claims, listed);
  const all = together ? [...listed, together] : listed;
  const added = own
    .filter((outputs) => !all.some((step) => step.load === 1 && sameOutputs(step.outputs, outputs)))
    .map((outputs): ProofStep => ({ outputs, load: 1, reason: 'own', supply: null, from: 'added by hand' }));
  const seen = new Set<string>();
  return [...all, ...added].filter((step) => {
    const key = stepKey(step);
    return seen.has(key) ? false : seen.add(key);
  });
}

/**
 * Whether a port's best read-out offers a level with its current.
 * @returns true for a port that was not read out, or where it cannot be told: nothing then speaks against it
 */
export function isOffered(readOuts: readonly ReadOut[], { port, volts, amps, supply }: Output): boolean {
  const best = bestReadOut(readOuts, port);
  if (!best || best.words.length === 0 || supply) return true;
  return offersOf(best).some(
    ({ object, unreachable }) =>
      unreachable === null && object.kind === 'fixed' && near(object.volts, volts) && object.amps >= amps - 0.011,
  );
}

/** Fixed levels every port offers alone, by read-out and label: one output each, at its rated current. */
export const offeredLevels = (
  ports: readonly string[],
  claims: readonly Pick<Claim, 'promise'>[],
  readOuts: readonly ReadOut[],
): readonly Output[] =>
  proofSteps(ports, claims, readOuts).flatMap(({ outputs, load, supply }) => {
    const [only, ...others] = outputs;
    const isLevel = load === 1 && others.length === 0 && (supply === 'fixed' || supply === null);
    return isLevel && only && !only.supply ? [only] : [];
  });
