// What ports delivered together, or one alone, from split runs, in the common form of all evidence about power.
import type { Delivered } from '../evidence/index.ts';
import { mainsLabel } from '../reading/index.ts';
import type { Run, SplitRun } from '../run/index.ts';
import { sum } from '../uncertainty/index.ts';
import { perRun, type SplitBench, splitOutputs, splitReading } from './readings.ts';
import { setKey } from './types.ts';

/** Split runs as evidence; a lightly loaded one says nothing about what there would have been. */
export const deliveredBySplits = (runs: readonly Run[], bench: SplitBench): readonly Delivered[] =>
  runs.flatMap((run) => (run.kind === 'split' ? deliveredBySplit(run, bench) : []));

const deliveredBySplit = perRun((run: SplitRun, bench: SplitBench): readonly Delivered[] => {
  if (run.shares.some(({ light }) => light)) return [];
  const { occupied, watts, rest, total } = splitReading(run, bench);
  const outputs = splitOutputs(run, bench);
  const complete = outputs.length === occupied.length;
  const open = occupied.filter((port) => !watts[port]);
  const who = occupied.length === 1 ? `${setKey(occupied)} alone` : `${setKey(occupied)} together`;
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
      watts: complete
        ? sum(
            outputs.map((output) => output.watts),
            'rig',
          )
        : null,
      wall: complete ? null : total,
      conditions: `${who}, ${mainsLabel(run.mains)}`,
      epoch: 0,
      runs: 1,
      notes: [],
      everything: run.evidence === 'load',
      rest: open.length > 0 && rest ? { ports: open, bound: rest } : null,
    },
  ];
});
