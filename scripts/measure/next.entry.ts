// What the measurement of next steps runs: samples nobody shaped for it, measured in two orders.
import type { ClaimResult } from '../../core/src/claim/index.ts';
import { nextSteps, stepsFor } from '../../core/src/next/index.ts';
import { makeSheet, methodOf, type SheetStep, stepSeconds } from '../../core/src/plan/index.ts';
import type { Claim, ClaimDuration, Promised } from '../../core/src/promise/index.ts';
import { seededRandom } from '../../core/src/random/index.ts';
import { type Mains, REGULATORY_PAIR } from '../../core/src/reading/index.ts';
import { NO_SPEC } from '../../core/src/uncertainty/index.ts';

const LEVELS = [5, 9, 15, 20] as const;

interface Simulated {
  readonly claims: readonly Claim[];
  readonly steps: readonly SheetStep[];
  /** Promises that a measurement decides: true by true value and meter, not by what anybody believes. */
  readonly decided: ReadonlySet<string>;
}

/** A sample with a label as labels are: some promise much, some little, some say for how long. */
function sampleOf(seed: number): Simulated {
  const random = seededRandom(seed);
  const one = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)] as T;
  const claims: Claim[] = [];
  const promise = (promised: Promised, duration: ClaimDuration = { kind: 'unstated' }) =>
    claims.push({ id: `c${claims.length}`, promise: promised, duration, printed: 'label' });
  const ports = Array.from({ length: 1 + Math.floor(random() * 4) }, (_one, at) => `C${at + 1}`);
  const watts = one([20, 30, 45, 65, 100]);
  const levels = LEVELS.slice(0, 2 + Math.floor(random() * 3));
  for (const port of ports)
    for (const volts of levels) promise({ kind: 'port-line', port, volts, amps: Math.min(3, watts / volts) });
  const mains: Mains | null = random() < 0.5 ? null : one(REGULATORY_PAIR);
  if (random() < 0.8) promise({ kind: 'total', watts }, random() < 0.3 ? { kind: 'continuous' } : { kind: 'unstated' });
  for (let at = 1; at < ports.length; at += 1)
    if (random() < 0.6)
      promise({
        kind: 'combination',
        shares: ports.slice(0, at + 1).map((port) => ({ port, watts: watts / (at + 1) })),
      });
  if (random() < 0.6) promise({ kind: 'idle', watts: 0.075, mains });
  if (random() < 0.5) promise({ kind: 'average-efficiency', ratio: 0.88, mains });
  if (random() < 0.25) promise({ kind: 'ripple', volts: 0.12, mains: null });
  if (random() < 0.15) promise({ kind: 'surface', celsius: 60 });
  const method = methodOf('regulatory-pair');
  if (!method) throw new Error('The method is gone.');
  const steps = makeSheet(method, { ports, claims, readOuts: [], loadings: [], devices: [], wanted: [] });
  return { claims, steps, decided: new Set(claims.filter(() => random() > 0.12).map(({ id }) => id)) };
}

const spec = (readingPercent: number, offset: number) => ({ ...NO_SPEC, readingPercent, offset });
const RIG = { name: 'Bench', meters: { mains: 'w', outputVolts: 'v', outputAmps: 'a', loadEnd: null } };
const INSTRUMENTS = [
  { id: 'w', name: 'w', specs: { power: spec(0.1, 0.001) }, sees: null },
  { id: 'v', name: 'v', specs: { voltage: spec(0.05, 0.004) }, sees: null },
  { id: 'a', name: 'a', specs: { current: spec(0.1, 0.002) }, sees: null },
];
const RULES = { rule: 'guarded', allowance: 0.02, tolerance: null, continuous: 3600 } as const;

const untested = ({ id }: Claim): ClaimResult => ({
  claimId: id,
  state: 'not tested',
  sentence: '',
  notes: [],
  unstated: [],
  tests: [],
});

/** Seconds until all that can be decided is, the steps done in an order; null where the sheet decides nothing. */
function secondsTo({ claims, steps, decided }: Simulated, order: readonly SheetStep[]): number | null {
  const asked = { steps, continuous: RULES.continuous, allowance: RULES.allowance, devices: [] };
  const wanted = claims
    .filter(({ id }) => decided.has(id))
    .map((claim) => stepsFor(claim, asked))
    .filter((own) => own.length > 0);
  if (wanted.length === 0) return null;
  const done = new Set<SheetStep>();
  let seconds = 0;
  for (const step of order) {
    if (done.has(step)) continue;
    done.add(step);
    seconds += stepSeconds(step);
    if (wanted.every((own) => own.every((one) => done.has(one)))) return seconds;
  }
  return null;
}

/** Time of both orders for many samples, s. */
export function compareOrders(count: number): readonly { readonly stations: number; readonly next: number }[] {
  const found: { stations: number; next: number }[] = [];
  for (let seed = 1; found.length < count; seed += 1) {
    const sample = sampleOf(seed);
    const { works } = nextSteps({
      steps: sample.steps,
      claims: sample.claims,
      results: sample.claims.map(untested),
      devices: [],
      rig: RIG,
      rigs: [RIG],
      instruments: INSTRUMENTS,
      rules: RULES,
    });
    const byId = new Map(sample.steps.map((step) => [step.id, step]));
    const rig = sample.steps.filter(({ kind }) => kind === 'rig');
    const order = [...rig, ...works.flatMap(({ stepIds }) => stepIds.flatMap((id) => byId.get(id) ?? []))];
    const [stations, next] = [secondsTo(sample, sample.steps), secondsTo(sample, order)];
    if (stations !== null && next !== null) found.push({ stations, next });
    if (stations !== null && next === null)
      throw new Error(`Sample ${seed}: the list leaves out what the sheet decides.`);
  }
  return found;
}
