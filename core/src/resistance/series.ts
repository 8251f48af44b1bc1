// Resistance of a sample from its runs: by conductor and by how often it had been bent.
import { type CableRun, dropOf, type ResistanceRun, type Side } from '../cable/index.ts';
import { type Instrument, type Rig, specFor } from '../reading/index.ts';
import { currentRuns } from '../run/index.ts';
import { combineMeters, type Measured } from '../uncertainty/index.ts';
import { resistanceOf } from './fit.ts';
import type { DropAccuracy, DropReading, Resistance } from './types.ts';

const ZERO_CELSIUS = 273.15;

/** One conductor at one count of bends. */
export interface ResistanceSeries {
  readonly side: Side;
  readonly bends: number;
  readonly runIds: readonly string[];
  readonly readings: readonly DropReading[];
  readonly result: Resistance;
  /** Ω as read, all kits of meters together. */
  readonly ohms: Measured;
  /** Ω at 20 °C; null where a temperature is missing. */
  readonly at20: Measured | null;
}

const readingsOf = (run: ResistanceRun): readonly DropReading[] =>
  run.steps.flatMap((step) => {
    const drop = dropOf(step);
    return drop === null
      ? []
      : [
          {
            amps: step.amps,
            drop,
            near: run.how === 'two meters' ? step.near : null,
            celsius: step.temperature === null ? null : step.temperature - ZERO_CELSIUS,
            plugging: run.id,
          },
        ];
  });

/** What is known of the meters of a run: as it was accepted; a spec stated later counts where there was none. */
function accuracyOf(run: ResistanceRun, rigs: readonly Rig[], instruments: readonly Instrument[]): DropAccuracy {
  const rig = rigs.find(({ id }) => id === run.rigId);
  const at = (quantity: 'current' | 'voltage', place: 'port' | 'load-end') =>
    (rig && specFor(quantity, place, rig, instruments)) ?? null;
  const two = run.how === 'two meters';
  return {
    amps: run.accuracy?.amps ?? at('current', 'port'),
    ...(two ? { near: run.accuracy?.near ?? at('voltage', 'port') } : {}),
    far: run.accuracy?.far ?? at('voltage', two ? 'load-end' : 'port'),
    meters: {
      amps: rig?.meters.outputAmps ?? null,
      near: rig?.meters.outputVolts ?? null,
      far: (two ? rig?.meters.loadEnd : rig?.meters.outputVolts) ?? null,
    },
  };
}

/** All series of a sample: by side, then by how often it was bent. */
export function resistanceSeries(
  cableRuns: readonly CableRun[],
  rigs: readonly Rig[],
  instruments: readonly Instrument[],
): readonly ResistanceSeries[] {
  const runs = currentRuns(cableRuns).filter((run): run is ResistanceRun => run.kind === 'resistance');
  const groups = new Map<string, ResistanceRun[]>();
  for (const run of runs) {
    const key = `${run.side} ${run.bends}`;
    groups.set(key, [...(groups.get(key) ?? []), run]);
  }
  return [...groups.values()]
    .flatMap((group): ResistanceSeries[] => {
      const [first] = group;
      if (!first) return [];
      const kits = [...new Set(group.map(({ rigId, how }) => `${rigId} ${how}`))].flatMap((kit) => {
        const own = group.filter(({ rigId, how }) => `${rigId} ${how}` === kit);
        const readings = own.flatMap(readingsOf);
        const result = resistanceOf(readings, accuracyOf(own[0] as ResistanceRun, rigs, instruments));
        return result ? [{ kit, readings, result }] : [];
      });
      const [kit] = kits;
      if (!kit) return [];
      const combined = (of: (result: Resistance) => Measured | null): Measured | null => {
        const all = kits.map(({ result, kit: name }) => ({ of: of(result), meters: [name] }));
        return all.every((one) => one.of !== null)
          ? combineMeters(all.map((one) => ({ of: one.of as Measured, meters: one.meters }))).result
          : null;
      };
      return [
        {
          side: first.side,
          bends: first.bends,
          runIds: group.map(({ id }) => id),
          readings: kits.flatMap((one) => one.readings),
          result: kit.result,
          ohms: combined(({ ohms }) => ohms) ?? kit.result.ohms,
          at20: combined(({ at20 }) => at20),
        },
      ];
    })
    .sort((a, b) => a.side.localeCompare(b.side) || a.bends - b.bends);
}
