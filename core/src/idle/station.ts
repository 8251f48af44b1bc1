// Idle as a station.
import { nameplateOf, type SeriesResult, verdictStates } from '../efficiency/index.ts';
import { worstOf } from '../evidence/index.ts';
import { chosenSets, type LimitLine, type LimitSet } from '../limits/index.ts';
import { type Instrument, type Mains, mainsLabel, type Rig, specFor, suppliesFor } from '../reading/index.ts';
import { aboutStation, type Station } from '../station/index.ts';
import { specAt } from '../uncertainty/index.ts';
import { type IdleResult, idleResults } from './index.ts';
import { type IdleFacts, limitsOfIdle } from './limits.ts';

export interface IdleStationFacts extends IdleFacts {
  readonly sample: IdleFacts['sample'] & { readonly kind: 'wall' | 'desktop' | 'car' | 'cable' };
  readonly setups: readonly (IdleFacts['setups'][number] & { readonly id: string })[];
  readonly rigs: readonly Rig[];
  readonly instruments: readonly Instrument[];
  readonly limitSets: readonly LimitSet[];
  readonly profile: IdleFacts['profile'] & {
    readonly mains: readonly Mains[];
    readonly limitSetIds: readonly string[];
  };
}

export interface IdleConclusion {
  readonly draws: readonly IdleResult[];
  readonly limits: readonly LimitLine[];
}

export const idleStation: Station<
  'idle',
  IdleStationFacts,
  { readonly efficiency: { readonly series: readonly SeriesResult[] } },
  IdleConclusion
> = {
  ...aboutStation('idle'),
  reads: ['sample', 'claims', 'readOuts', 'setups', 'points', 'stated', 'rigs', 'instruments', 'profile', 'limitSets'],
  needs: ['efficiency'],
  conclude(slice, { efficiency }) {
    const { points, setups, rigs, instruments } = slice;
    const floors = new Map(
      rigs.map((rig) => {
        const spec = specFor('power', 'mains', rig, instruments);
        // Idle is read in the finest range.
        return [rig.id, spec ? specAt(spec, 0).floor : 0];
      }),
    );
    const floorOf = (rigId: string) => floors.get(rigId) ?? 0;
    // A step of a proof without load has something attached and negotiated: it is no idle draw.
    const proofs = new Set(setups.filter(({ purpose }) => purpose === 'proof').map(({ id }) => id));
    const draws = idleResults(
      points.filter(({ setupId }) => setupId === null || !proofs.has(setupId)),
      floorOf,
    );
    return { draws, limits: limitsOfIdle(slice, draws, nameplateOf(slice, efficiency.series), chosenSets(slice)) };
  },
  evidence: ({ draws }) => ({ idle: draws }),
  progress({ draws, limits }, { sample, profile }, settles) {
    const total = suppliesFor(sample.kind, profile.mains).map(mainsLabel).length;
    const bare = draws.filter(({ attached }) => attached === 'nothing');
    return { done: Math.min(bare.length, total), total, worst: worstOf([...settles, ...verdictStates(limits)]) };
  },
};
