// What several ports delivered together, from split runs, in the common form of all evidence about power.
import type { SeriesResult } from '../efficiency/index.ts';
import { type Instrument, mainsLabel, type OutputResult, type Rig } from '../reading/index.ts';
import { splitReading } from '../split/readings.ts';
import { setKey } from '../split/types.ts';
import { measured, sum } from '../uncertainty/index.ts';
import type { Delivered, Run } from './types.ts';

interface Bench {
  readonly ports: readonly string[];
  readonly rigs: readonly Rig[];
  readonly instruments: readonly Instrument[];
  readonly series: readonly SeriesResult[];
}

/** Split runs of two ports or more; single ports and lightly loaded ones say nothing about a combination. */
export const deliveredBySplits = (runs: readonly Run[], bench: Bench): readonly Delivered[] =>
  runs.flatMap((run): Delivered[] => {
    if (run.kind !== 'split' || run.order.length < 2 || run.shares.some(({ light }) => light)) return [];
    const { occupied, watts, rest } = splitReading(run, bench);
    const outputs = run.shares.flatMap(({ port, volts, amps }): OutputResult[] => {
      const own = watts[port];
      return own && volts !== null && amps !== null
        ? [{ port, volts: measured(volts, 0), amps: measured(amps, 0), watts: own }]
        : [];
    });
    const complete = outputs.length === occupied.length;
    const open = occupied.filter((port) => !watts[port]);
    return [
      {
        sourceIds: [run.id],
        asked: occupied.map((port) => {
          const share = run.shares.find((one) => one.port === port);
          return { port, volts: share?.volts ?? 0, amps: share?.amps ?? 0 };
        }),
        load: 1,
        evidence: run.evidence,
        mains: run.mains,
        takenAt: run.takenAt,
        outputs,
        watts: complete ? sum(outputs.map((output) => output.watts)) : null,
        wall: null,
        conditions: `${setKey(occupied)} together, ${mainsLabel(run.mains)}`,
        epoch: 0,
        runs: 1,
        notes: [],
        everything: run.evidence === 'load',
        byRest: open.length === 1 && open[0] && rest ? { port: open[0], interval: rest } : null,
      },
    ];
  });
