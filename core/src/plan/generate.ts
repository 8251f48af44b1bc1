// Makes a run sheet from a method, the sample's ports and claims, and what is known of its offers.

import type { Claim } from '../promise/index.ts';
import type { ReadOut } from '../read-out/index.ts';
import { type Mains, mainsLabel, type Output, sameOutputs } from '../reading/index.ts';
import { plugOrder, sweepSets } from '../split/sets.ts';
import { isOffered, offeredLevels, proofSteps } from '../steps/index.ts';
import {
  dipStep,
  fadingStep,
  inrushStep,
  rippleStep,
  soakStep,
  supplyPoint,
  sweepStep,
  waveformStep,
} from './capture-steps.ts';
import {
  chargeStep,
  coolStep,
  deviceStep,
  efficiencyPoint,
  holdStep,
  idleStep,
  loadOf,
  proofPoint,
  readOutStep,
  rigStep,
  splitStep,
  warmUpStep,
} from './steps.ts';
import type { Method, NewStep, SheetStep } from './types.ts';

export interface SheetSource {
  /** Port labels in physical order. */
  readonly ports: readonly string[];
  readonly claims: readonly Pick<Claim, 'promise'>[];
  readonly readOuts: readonly ReadOut[];
  /** Loadings of the efficiency station there are already. */
  readonly loadings: readonly (readonly Output[])[];
  readonly devices: readonly { readonly id: string; readonly name: string }[];
  /** How long the sample takes to cool, s; null or left out where nothing tells. */
  readonly cools?: number | null;
  /** What a complete efficiency result needs; some only at one mains. */
  readonly wanted: readonly { readonly outputs: readonly Output[]; readonly mains: Mains | null }[];
}

const wattsOf = (outputs: readonly Output[]): number => outputs.reduce((sum, { volts, amps }) => sum + volts * amps, 0);

/** Fixed levels that are to be loaded, one output each, strongest port first and upwards in volts. */
function levelsOf(source: SheetSource): readonly (readonly Output[])[] {
  const single = offeredLevels(source.ports, source.claims, source.readOuts);
  const portWatts = (port: string) =>
    Math.max(...single.filter((one) => one.port === port).map((one) => one.volts * one.amps));
  const strongest = [...source.ports]
    .filter((port) => single.some((one) => one.port === port))
    .sort((a, b) => portWatts(b) - portWatts(a))[0];
  const levels = single.filter(({ port }) => port === strongest).sort((a, b) => a.volts - b.volts);
  return levels
    .filter((level, index) => levels.findIndex(({ volts }) => volts === level.volts) === index)
    .map((level) => [level]);
}

interface Loading {
  readonly outputs: readonly Output[];
  /** The only mains it is taken at; null for all. */
  readonly mains: Mains | null;
}

/**
 * What the efficiency series is taken with: what a complete result needs, and the loadings there are as far as they are
 * offered; while nothing is known of either, levels of the strongest port and the total.
 */
function loadingsOf(method: Method, source: SheetSource): readonly Loading[] {
  if (method.loads.length === 0) return [];
  const everywhere = (outputs: readonly Output[]): Loading => ({ outputs, mains: null });
  const levels = levelsOf(source);
  const ends =
    method.levels === 'every fixed level' ? levels : levels.filter((_, at) => at === 0 || at === levels.length - 1);
  const total = proofSteps(source.ports, source.claims, source.readOuts).find(({ reason }) => reason === 'total');
  const there = source.loadings.filter((outputs) => outputs.every((one) => isOffered(source.readOuts, one)));
  const known = [...source.wanted, ...there.map(everywhere)];
  const wanted = [
    ...(known.length > 0 ? known : [...ends, ...(total ? [total.outputs] : [])].map(everywhere)),
    ...(method.levels === 'every fixed level' ? ends.map(everywhere) : []),
  ];
  // What is wanted at every mains serves the one that is wanted at one.
  const distinct = [...wanted]
    .sort((a, b) => Number(a.mains !== null) - Number(b.mains !== null))
    .filter(({ outputs }, at, all) => all.findIndex((other) => sameOutputs(other.outputs, outputs)) === at);
  // The strongest first: the warm-up before it is the hardest.
  return distinct.sort((a, b) => wattsOf(b.outputs) - wattsOf(a.outputs));
}

/** Steps with ids of their own, no hotter and no less watched than the method allows. */
export const asTheMethodSays = ({ hottest, watch }: Method, steps: readonly NewStep[]): readonly SheetStep[] =>
  steps.map((step, index) => ({
    ...step,
    id: `s${index + 1}`,
    ...(hottest == null ? {} : { hottest: Math.min(hottest, step.hottest ?? hottest) }),
    ...(watch === 'all the time' ? { attended: true } : {}),
  }));

/**
 * The steps of a sheet in the order that disturbs least: the rig proves itself, idle from cold unless the procedure puts
 * it behind the points, what is offered, proof level by level, then warm-up and the series at each mains, and what is held
 * long at the end.
 * @returns steps with ids of their own; only the rig's when nothing is known of the ports
 */
export function makeSheet(method: Method, source: SheetSource): readonly SheetStep[] {
  const { by, mains } = method;
  const [first] = mains;
  if (!first) return [];
  const loadings = loadingsOf(method, source);
  const heaviest = loadings[0]?.outputs;
  const held = heaviest ?? levelsOf(source).at(-1);
  const idleLast = method.idleWhen === 'after the points' && heaviest !== undefined;
  const steps: NewStep[] = [rigStep(by)];
  if (method.idle > 0 && !idleLast)
    for (const supply of mains)
      for (const attached of method.idleAttached) steps.push(idleStep(method, supply, attached));
  if (by === 'instruments' && source.ports.length > 0 && method.captures.includes('inrush'))
    for (const supply of mains) steps.push(inrushStep(supply));
  const [firstPort] = source.ports;
  if (by === 'instruments' && method.captures.includes('fading') && firstPort)
    steps.push(fadingStep(mains.at(-1) ?? first, firstPort));
  if (method.readOut && by === 'instruments') for (const port of source.ports) steps.push(readOutStep(by, port));
  if (method.proof)
    for (const { outputs, load } of proofSteps(source.ports, source.claims, source.readOuts))
      steps.push(proofPoint(by, mains.at(-1) ?? first, outputs, load));
  if (method.splits)
    for (const set of sweepSets(source.ports).sets) steps.push(splitStep(by, mains.at(-1) ?? first, plugOrder(set)));
  if (method.devices)
    for (const port of source.ports) for (const device of source.devices) steps.push(deviceStep(first, port, device));
  if (method.charges && firstPort)
    for (const device of source.devices) steps.push(chargeStep(first, firstPort, device, '', 0));
  for (const supply of mains) {
    if (heaviest && method.warmUp > 0) steps.push(warmUpStep(method, supply, heaviest));
    for (const { outputs, mains: only } of loadings)
      for (const load of only === null || mainsLabel(only) === mainsLabel(supply) ? method.loads : [])
        steps.push(efficiencyPoint(method, supply, outputs, load));
    if (by === 'instruments' && supply.kind === 'ac' && heaviest && method.captures.includes('waveform'))
      for (const load of [1, 0.25]) steps.push(waveformStep(supply, heaviest, load));
    // Warm, behind the points: every level of the strongest port, without load and with it.
    if (by === 'instruments' && heaviest && method.captures.includes('ripple'))
      for (const [output] of levelsOf(source))
        if (output) steps.push(rippleStep(supply, output, 0), rippleStep(supply, output, 1));
    if (method.idle > 0 && idleLast)
      for (const attached of method.idleAttached) steps.push(idleStep(method, supply, attached));
  }
  if (heaviest && by === 'instruments')
    for (const supply of method.sweep.filter((one) => !mains.some((own) => mainsLabel(own) === mainsLabel(one))))
      for (const load of [1, 0.5]) steps.push(supplyPoint(supply, heaviest, load));
  const strongest = heaviest?.[0];
  if (by === 'instruments' && strongest && first.kind === 'dc') {
    if (method.captures.includes('dip')) steps.push(dipStep(first, strongest));
    if (method.captures.includes('sweep')) steps.push(sweepStep(first, strongest));
  }
  if (method.hold > 0 && held) steps.push(holdStep(method, mains.at(-1) ?? first, held));
  if (loadings.length > 0 || method.hold > 0) steps.push(coolStep(by, source.cools ?? null));
  // From cold again, each mains on its own.
  if (method.soak > 0 && held && by === 'instruments')
    for (const supply of mains) steps.push(soakStep(supply, held, method.soak), coolStep(by, source.cools ?? null));
  return asTheMethodSays(method, steps);
}

/** What the order of a sheet gets wrong, a sentence each; an edited sheet is checked anew. */
export function orderFindings(steps: readonly SheetStep[]): readonly string[] {
  const findings: string[] = [];
  let loadedAt = 0;
  let warmAt: string | null = null;
  for (const [index, step] of steps.entries()) {
    if (step.skip !== null) continue;
    const number = index + 1;
    if (step.kind === 'idle' && !step.warm && loadedAt > 0)
      findings.push(`Step ${number}: idle is read from cold, but step ${loadedAt} loads the sample before.`);
    if (step.kind === 'point' && step.station === 'efficiency' && warmAt === null)
      findings.push(`Step ${number}: a load point of the series has no warm-up before it.`);
    if (step.kind === 'warm-up') warmAt = step.id;
    if (step.kind === 'cool') warmAt = null;
    if (step.kind === 'split' || loadOf(step) > 0) loadedAt ||= number;
  }
  const rig = steps.findIndex(({ kind, skip }) => kind === 'rig' && skip === null);
  if (rig !== 0 && steps.some(({ by }) => by === 'instruments'))
    findings.push('The rig does not prove itself first: a bad cable or a meter off zero would go unseen.');
  return findings;
}
