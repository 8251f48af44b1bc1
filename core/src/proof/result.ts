// Everything Proof concludes about a sample.
import type { Claim, ClaimState } from '../claim/types.ts';
import type { SeriesResult } from '../efficiency/index.ts';
import type { ReadOut } from '../read-out/index.ts';
import { type Instrument, type Point, type Rig, type Setup, specFor } from '../reading/index.ts';
import { specParts } from '../uncertainty/index.ts';
import { type Again, isStress, proofAgain } from './again.ts';
import { type Chain, reconcile } from './chain.ts';
import { deliveredByDevice, deliveredByEfficiency, deliveredByPoints } from './delivered.ts';
import { type DeviceSummary, deviceSummary } from './devices.ts';
import { type HoldSummary, holdSummaries, moveSentence, type OverSummary, overSummary } from './holds.ts';
import { judgeSteps, type ProofRules, type Regulation, regulations, type StepResult } from './judge.ts';
import { currentRuns } from './runs.ts';
import { deliveredBySplits } from './splits.ts';
import { proofSteps } from './steps.ts';
import type { Delivered, Device, DeviceRun, MoveRun, OverRun, Run } from './types.ts';

export interface MoveSummary {
  readonly run: MoveRun;
  readonly state: ClaimState;
  readonly sentence: string;
}

export interface ProofResult {
  readonly steps: readonly StepResult[];
  readonly regulation: readonly Regulation[];
  /** One per rig used. */
  readonly chains: readonly Chain[];
  readonly holds: readonly HoldSummary[];
  readonly moves: readonly MoveSummary[];
  readonly overs: readonly OverSummary[];
  readonly devices: readonly DeviceSummary[];
  readonly again: Again | null;
  /** All evidence about power in one form, for the claims. */
  readonly delivered: readonly Delivered[];
}

export interface ProofInput {
  readonly ports: readonly string[];
  readonly claims: readonly Pick<Claim, 'promise'>[];
  readonly readOuts: readonly ReadOut[];
  readonly setups: readonly Setup[];
  readonly points: readonly Point[];
  readonly runs: readonly Run[];
  readonly devices: readonly Device[];
  readonly rigs: readonly Rig[];
  readonly instruments: readonly Instrument[];
  readonly series: readonly SeriesResult[];
  readonly rules: ProofRules;
}

/** What one voltmeter's two readings share: the gain, and the rounding of each. */
function sharedByReadings({ setups, points, rigs, instruments }: ProofInput) {
  const proof = setups.filter(({ purpose }) => purpose === 'proof').map(({ id }) => id);
  const rigId = points.findLast(({ setupId }) => setupId !== null && proof.includes(setupId))?.rigId;
  const rig = rigs.find(({ id }) => id === rigId);
  return specParts(rig && specFor('voltage', rig.outputPlace, rig, instruments));
}

/** Judge everything about what a sample really delivers. */
export function proofResult(input: ProofInput): ProofResult {
  const { ports, claims, readOuts, setups, points, rigs, instruments, series, rules } = input;
  const runs = currentRuns(input.runs);
  const proofSetups = setups.filter(({ purpose }) => purpose === 'proof');
  const proofPoints = points.filter(({ setupId }) => proofSetups.some(({ id }) => id === setupId));
  const used = rigs.filter(({ id }) => proofPoints.some(({ rigId }) => rigId === id));
  const chains = used.map((rig) => reconcile(rig, proofSetups, proofPoints, instruments));
  const stresses = runs.filter(isStress).map(({ takenAt }) => takenAt);
  const byLoad = [
    ...deliveredByEfficiency(series, stresses),
    ...deliveredByPoints(proofSetups, proofPoints, rigs, chains, series, stresses),
  ];
  const deviceRuns = runs.filter((run): run is DeviceRun => run.kind === 'device');
  const deviceOf = ({ deviceId }: DeviceRun) => input.devices.find(({ id }) => id === deviceId) ?? null;
  const byDevice = deviceRuns.map((run) => deliveredByDevice(run, deviceOf(run) ?? undefined, series));
  const steps = judgeSteps(
    proofSteps(
      ports,
      claims,
      readOuts,
      proofSetups.map(({ outputs }) => outputs),
    ),
    byLoad,
    rules,
  );
  return {
    steps,
    regulation: regulations(byLoad, sharedByReadings(input)),
    chains,
    holds: holdSummaries(runs),
    moves: runs
      .filter((run): run is MoveRun => run.kind === 'move')
      .map((run) => ({ run, state: run.breaks > 0 ? 'short' : 'proven', sentence: moveSentence(run) })),
    overs: runs.filter((run): run is OverRun => run.kind === 'over').map(overSummary),
    devices: deviceRuns.map((run, index) => deviceSummary(run, deviceOf(run), byDevice[index]?.wall ?? null)),
    again: proofAgain(steps, runs),
    delivered: [...byLoad, ...byDevice, ...deliveredBySplits(runs, input)],
  };
}
