// What was delivered: proof points, full loads measured for efficiency, and what devices took, in one common form.

import type { Interval } from '../decision/index.ts';
import type { SeriesResult } from '../efficiency/index.ts';
import { outputFromWall } from '../efficiency/index.ts';
import type { Delivered } from '../evidence/index.ts';
import { groupsBy, memoOfLists } from '../memo/index.ts';
import { formatPlain } from '../quantity/index.ts';
import {
  asMeasured,
  beforeMeter,
  type Instrument,
  mainsLabel,
  type OutputResult,
  outputAtReceptacle,
  type Point,
  type Rig,
  readAt,
  readingAt,
  type Setup,
  statedLead,
} from '../reading/index.ts';
import type { Device, DeviceRun } from '../run/index.ts';
import { stepTitle } from '../steps/steps.ts';
import { combineRepeats, type Measured, measured, product, sum, unstatedOf } from '../uncertainty/index.ts';
import type { Chain } from './chain.ts';
import { runUncertainty } from './runs.ts';

/** Outputs of one proof point at the receptacle: read there, or at the load end with the drop put back. */
function outputsOf(point: Point, setup: Setup, rig: Rig, resistance: Measured | null): readonly OutputResult[] | null {
  const outputs = setup.outputs.flatMap(({ port }): OutputResult[] => {
    const lead = rig.outputPlace === 'load-end' ? statedLead(rig) : resistance;
    for (const place of ['port', 'load-end'] as const) {
      if (place === 'load-end' && rig.outputPlace === 'port' && lead === null) continue;
      const result = outputAtReceptacle(point, port, place, lead);
      if ('watts' in result) return [result];
      const volts = readingAt(point, 'voltage', place, port);
      // Without load the volts alone are the whole reading.
      if (point.load === 0 && volts) {
        const noAmps = measured(0, 0);
        return [{ port, volts: asMeasured(volts), amps: noAmps, watts: product(asMeasured(volts), noAmps) }];
      }
    }
    return [];
  });
  return outputs.length === setup.outputs.length ? outputs : null;
}

/** Pool repeats of one step: same loading, supply, load and rig. Kept for the first of them while it stays the same. */
const pooled = memoOfLists(
  (
    _first: Point,
    group: readonly Point[],
    [setup, rig, resistance, epoch]: readonly [Setup, Rig, Measured | null, number],
  ): Delivered | null => {
    const each = group.flatMap((point) => {
      const outputs = outputsOf(point, setup, rig, resistance);
      return outputs ? [{ point, outputs }] : [];
    });
    const [first] = group;
    const latest = each.at(-1)?.point ?? group.at(-1);
    if (!first || !latest || each.length === 0) return null;
    const outputs = setup.outputs.flatMap((_, index): OutputResult[] => {
      const same = each.flatMap(({ outputs: own }) => own[index] ?? []);
      const [any] = same;
      if (!any) return [];
      return [
        {
          port: any.port,
          volts: combineRepeats(same.map(({ volts }) => volts)),
          amps: combineRepeats(same.map(({ amps }) => amps)),
          watts: combineRepeats(same.map(({ watts }) => watts)),
        },
      ];
    });
    const overrides = [...new Set(group.flatMap(({ override }) => override ?? []))];
    const hidden = rig.outputPlace === 'port' ? beforeMeter(rig.elements) : [];
    return {
      sourceIds: each.map(({ point }) => point.id),
      asked: setup.outputs,
      load: first.load,
      evidence: first.evidence,
      mains: first.mains,
      takenAt: latest.takenAt,
      outputs,
      watts: sum(
        outputs.map(({ watts }) => watts),
        rig.id,
      ),
      wall: null,
      conditions: `${stepTitle({ outputs: setup.outputs, load: first.load === 0 ? 0 : 1 })}, ${mainsLabel(first.mains)}`,
      epoch,
      runs: each.length,
      notes: [
        ...overrides.map((reason) => `Beyond the rating of the line, because: ${reason}`),
        ...(hidden.length > 0
          ? [
              `The ${hidden.map(({ kind, name }) => `${kind} "${name}"`).join(' and ')} sits before the meter: its drop is in the voltage.`,
            ]
          : []),
      ],
    };
  },
);

/** A step of which only the socket was read. */
function wallOnly(
  point: Point,
  setup: Setup,
  epoch: number,
  series: readonly SeriesResult[],
  assumed: Interval | undefined,
): Delivered | null {
  const input = point.load === 0 ? undefined : readingAt(point, 'power', 'mains');
  if (!input) return null;
  const wall = outputFromWall(asMeasured(input), series, point.mains, assumed);
  return {
    sourceIds: [point.id],
    asked: setup.outputs,
    load: point.load,
    evidence: 'wall',
    mains: point.mains,
    takenAt: point.takenAt,
    outputs: [],
    watts: null,
    wall,
    conditions: `${stepTitle({ outputs: setup.outputs, load: 1 })}, ${mainsLabel(point.mains)}, read at the socket`,
    epoch,
    runs: 1,
    notes: [
      wall.assumed
        ? 'From the socket by an assumed efficiency: measure it around this power, or narrow the assumption at Rules.'
        : 'From the socket by this sample’s own efficiency.',
    ],
  };
}

/** How many of some moments lie before another. */
export const epochAt = (takenAt: string, stresses: readonly string[]): number =>
  stresses.filter((moment) => moment < takenAt).length;

/** Repeats of one step: same loading, supply, load and rig, with as many stress runs behind them. */
interface Repeats {
  readonly setup: Setup;
  readonly rig: Rig;
  readonly epoch: number;
  readonly group: readonly Point[];
}

const repeatsOf = memoOfLists(
  (
    rigs: readonly Rig[],
    setups: readonly Setup[],
    points: readonly Point[],
    stresses: readonly string[],
  ): readonly Repeats[] => {
    const groups = groupsBy(points, ({ setupId, mains, load, rigId, takenAt }) =>
      [setupId, mainsLabel(mains), load, rigId, epochAt(takenAt, stresses)].join('|'),
    );
    return [...groups.values()].flatMap((group) => {
      const [first] = group;
      const setup = setups.find(({ id, purpose }) => id === first?.setupId && purpose === 'proof');
      const rig = rigs.find(({ id }) => id === first?.rigId);
      return first && setup && rig ? [{ setup, rig, epoch: epochAt(first.takenAt, stresses), group }] : [];
    });
  },
);

/**
 * What the proof points of a sample delivered.
 * @param stresses when each stress run was, so that what follows it is told apart
 */
export function deliveredByPoints(
  setups: readonly Setup[],
  points: readonly Point[],
  rigs: readonly Rig[],
  chains: readonly Chain[],
  series: readonly SeriesResult[],
  stresses: readonly string[] = [],
  assumed?: Interval,
): readonly Delivered[] {
  return repeatsOf(rigs, setups, points, stresses).flatMap(({ setup, rig, epoch, group }) => {
    const [first] = group;
    const chain = chains.find(({ rigId }) => rigId === rig.id);
    const full = first ? pooled(first, group, [setup, rig, chain?.resistance ?? null, epoch]) : null;
    return full ? [full] : group.flatMap((point) => wallOnly(point, setup, epoch, series, assumed) ?? []);
  });
}

/** Full loads measured for efficiency prove as well as any. */
export const deliveredByEfficiency = (
  series: readonly SeriesResult[],
  stresses: readonly string[] = [],
): readonly Delivered[] =>
  series.flatMap(({ setup, byMains }) =>
    byMains.flatMap(({ mains, loads }) =>
      loads
        // What a device took of a loading is a lower bound at whatever share of it.
        .filter(({ load }) => Math.abs(load - 1) < 1e-6 || (load > 0 && setup.evidence === 'device'))
        .map(
          (full): Delivered => ({
            sourceIds: full.pointIds,
            asked: setup.outputs,
            load: 1,
            evidence: setup.evidence,
            mains,
            takenAt: full.takenAt,
            outputs: full.outputs,
            watts: full.output,
            wall: null,
            conditions: `${setup.outputs.length === 1 ? `${setup.outputs[0]?.port} alone` : setup.name}, ${mainsLabel(mains)}, ${Math.round(full.load * 100)} % load`,
            epoch: epochAt(full.takenAt, stresses),
            runs: full.runs,
            notes: [],
          }),
        ),
    ),
  );

/** What a device run is worked out with. */
export interface DeviceBench {
  readonly series: readonly SeriesResult[];
  readonly rigs: readonly Rig[];
  readonly instruments: readonly Instrument[];
  readonly assumed?: Interval | undefined;
}

/** What a device took, or what the socket says it took. It never refutes: a device takes what it wants. */
export function deliveredByDevice(
  run: DeviceRun,
  device: Pick<Device, 'name'> | undefined,
  { series, rigs, instruments, assumed }: DeviceBench,
): Delivered {
  const who = device?.name ?? 'a device';
  const rig = rigs.find(({ id }) => id === run.rigId);
  // A spec of nothing but zeroes is refused at the door: no uncertainty means that none was stated when it was taken.
  const u = run.u || (rig ? runUncertainty(run, rig, instruments) : null);
  const meters = rig?.meters;
  const watts =
    u || run.watts === 0
      ? measured(run.watts, u ?? 0)
      : measured(
          run.watts,
          0,
          0,
          Number.POSITIVE_INFINITY,
          run.place === 'mains'
            ? [{ meter: meters?.mains ?? null, quantity: 'power' }]
            : unstatedOf([
                readAt(run.volts ?? 0, 'voltage', rig?.outputPlace ?? 'port', rig, instruments),
                readAt(0, 'current', rig?.outputPlace ?? 'port', rig, instruments),
              ]),
        );
  const volts = run.volts ?? 0;
  const amps = volts > 0 ? run.watts / volts : 0;
  const wall = run.place === 'mains' ? outputFromWall(watts, series, null, assumed) : null;
  return {
    sourceIds: [run.id],
    asked: [{ port: run.port, volts, amps }],
    load: 1,
    evidence: 'device',
    mains: null,
    takenAt: run.takenAt,
    outputs: [],
    watts: wall ? null : watts,
    wall,
    conditions: `${who} on ${run.port}${volts > 0 ? ` at ${formatPlain(volts, 'voltage')}` : ''}, ${run.workload}${wall ? ', read at the socket' : ''}`,
    epoch: 0,
    runs: 1,
    notes: [],
  };
}
