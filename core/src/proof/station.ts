// Proof as a station.
import type { Interval } from '../decision/index.ts';
import type { SeriesResult } from '../efficiency/index.ts';
import { worstOf } from '../evidence/index.ts';
import { formatMeasured } from '../quantity/index.ts';
import { currentRuns, type HoldRun, holdsOfSoaks } from '../run/index.ts';
import { aboutStation, type Station } from '../station/index.ts';
import { expandedUncertainty } from '../uncertainty/index.ts';
import type { ProofRules } from './judge.ts';
import { type ProofInput, type ProofResult, proofResult } from './result.ts';

export interface ProofFacts
  extends Pick<
    ProofInput,
    'claims' | 'readOuts' | 'setups' | 'points' | 'runs' | 'devices' | 'rigs' | 'instruments' | 'captures'
  > {
  readonly sample: { readonly ports: readonly { readonly label: string }[] };
  readonly profile: ProofRules & { readonly assumedEfficiency?: Interval | undefined };
}

/** How many load steps were read, and how they stand. */
function stepsLine({ steps }: ProofResult): string[] {
  const read = steps.filter(({ delivered }) => delivered.length > 0);
  if (read.length === 0) return [];
  const told = (['short', 'borderline', 'cannot be decided', 'proven'] as const).flatMap((state) => {
    const count = read.filter((step) => step.state === state).length;
    return count > 0 ? [`${count} ${state}`] : [];
  });
  return [`${read.length} of ${steps.length} load steps read: ${told.join(', ')}.`];
}

function chainLine({ chains }: ProofResult): string[] {
  const resistance = chains.find((chain) => chain.resistance)?.resistance;
  return resistance
    ? [
        `Line between port and load ${formatMeasured(resistance.value, expandedUncertainty(resistance), 'resistance')}, corrected.`,
      ]
    : [];
}

export const proofStation: Station<
  'proof',
  ProofFacts,
  { readonly efficiency: { readonly series: readonly SeriesResult[] } },
  ProofResult
> = {
  ...aboutStation('proof'),
  reads: [
    'sample',
    'claims',
    'readOuts',
    'setups',
    'points',
    'runs',
    'devices',
    'captures',
    'rigs',
    'instruments',
    'profile',
  ],
  needs: ['efficiency'],
  conclude(slice, { efficiency }) {
    const { rule, allowance, tolerance, assumedEfficiency } = slice.profile;
    return proofResult({
      ...slice,
      ports: slice.sample.ports.map(({ label }) => label),
      series: efficiency.series,
      rules: { rule, allowance, tolerance },
      assumed: assumedEfficiency,
    });
  },
  evidence: ({ delivered }, { runs, captures = [] }) => ({
    delivered,
    holds: [...currentRuns(runs).filter((run): run is HoldRun => run.kind === 'hold'), ...holdsOfSoaks(captures)],
  }),
  progress({ steps, again, moves }, _slice, claimed) {
    const lines = again?.lines ?? [];
    const read = steps.filter(({ delivered }) => delivered.length > 0);
    const proved = lines.filter((line) => line.done);
    const done = read.length + proved.length;
    const states = [...read, ...proved, ...moves].map(({ state }) => state);
    return {
      done,
      total: Math.max(1, steps.length + lines.length),
      worst: done > 0 ? worstOf([...states, ...claimed]) : null,
    };
  },
  says(result) {
    const { holds, causes, overs, moves, devices, again } = result;
    const due = again?.lines.filter(({ done }) => !done).length ?? 0;
    return [
      ...stepsLine(result),
      ...holds.map(({ title, sentence }) => `${title}: ${sentence}`),
      ...causes.map(({ sentence }) => sentence),
      ...overs.map(({ sentence }) => sentence),
      ...moves.map(({ sentence }) => sentence),
      ...devices.map(({ sentence }) => sentence),
      ...chainLine(result),
      ...(due > 0 ? [`After the stress ${due} ${due === 1 ? 'port is' : 'ports are'} still to be proved again.`] : []),
    ];
  },
};
