// The sheets of a day with their rigs and runs, as tasks; and the plan of them.
import type { SheetRow, SheetRun, StoredSheet } from '@lastmark/contract/plan';
import type { StoredInstrument, StoredRig } from '@lastmark/contract/types';
import {
  type DayPlan,
  type DayProblem,
  type DaySheet,
  type Person,
  resourcesOf,
  tasksOf,
} from '@lastmark/core/schedule';
import { keepPreviousData, useQueries, useQuery } from '@tanstack/react-query';
import { type Remote, wrap } from 'comlink';
import { useEffect, useMemo, useState } from 'react';
import { instrumentsQuery, rigsQuery, runQuery, sheetQuery } from '../api/queries.ts';
import { sampleName } from '../parts/sampleName.ts';
import type { DayWork } from '../workers/day.worker.ts';

/** So many orders are tried at most: a second or two for the largest day, and away from the screen. */
const TRIES = 1000;

/** A sheet with when its sample is there, s after midnight, and the chamber of its soaks; null for all day, and for the open room. */
export interface PlannedSheet {
  readonly row: SheetRow;
  readonly from: number | null;
  readonly due: number | null;
  readonly chamberId: string | null;
}

export interface DayAsked {
  /** Sheets, in the order they were chosen. */
  readonly sheets: readonly PlannedSheet[];
  /** ISO day. */
  readonly day: string;
  /** When it begins, s after midnight. */
  readonly from: number;
  readonly people: readonly Person[];
  readonly setUp: number;
  /** Where somebody holds a step, s after midnight. */
  readonly pins: Readonly<Record<string, number>>;
}

const midnight = (day: string): number => new Date(`${day}T00:00:00`).getTime();

/** What a run did so far, against the day. */
function begunOf(run: SheetRun | undefined, day: string): DaySheet['begun'] {
  if (!run) return [];
  const start = midnight(day);
  const at = (moment: string) => (Date.parse(moment) - start) / 1000;
  let last = at(run.startedAt);
  return run.steps.flatMap(({ id, skip }) => {
    const outcome = run.outcomes[id];
    if (skip !== null || !outcome) return [];
    const [from, to] = [last, Math.max(last + 1, at(outcome.at))];
    last = to;
    return [{ stepId: id, from, to }];
  });
}

function daySheet(
  { row, ...there }: PlannedSheet,
  sheet: StoredSheet,
  rig: StoredRig,
  run: SheetRun | undefined,
  day: string,
): DaySheet {
  return {
    id: sheet.id,
    sampleId: row.sample.id,
    name: sampleName(row.sample),
    steps: run?.steps ?? sheet.steps,
    rig,
    ...there,
    begun: begunOf(run, day),
  };
}

/** How long a meter may be used: to the end of the day its calibration ends on. */
const untilOf = ({ calibrationDue }: StoredInstrument, day: string): number | null =>
  calibrationDue ? (midnight(calibrationDue) - midnight(day)) / 1000 + 86_400 : null;

export interface Day {
  readonly problem: DayProblem;
  readonly plan: DayPlan;
}

/** @returns null while it is being put together */
export function useDay({ sheets: rows, day, from, people, setUp, pins }: DayAsked): Day | null {
  const [{ worker, work }] = useState(() => {
    const started = new Worker(new URL('../workers/day.worker.ts', import.meta.url), { type: 'module' });
    return { worker: started, work: wrap<DayWork>(started) as Remote<DayWork> };
  });
  useEffect(() => () => worker.terminate(), [worker]);
  const { data: rigs } = useQuery(rigsQuery);
  const { data: instruments } = useQuery(instrumentsQuery);
  const sheets = useQueries({ queries: rows.map(({ row }) => sheetQuery(row.id)) });
  const runs = useQueries({ queries: rows.flatMap(({ row: { run } }) => (run ? [runQuery(run.id)] : [])) });
  const stamp = [...sheets, ...runs].map(({ dataUpdatedAt }) => dataUpdatedAt).join();
  const ready = rigs && instruments && [...sheets, ...runs].every(({ data }) => data !== undefined);
  // biome-ignore lint/correctness/useExhaustiveDependencies: what was fetched is told by when it was
  const problem = useMemo((): DayProblem | null => {
    if (!ready) return null;
    const known = rows.flatMap((planned, at) => {
      const { row } = planned;
      const sheet = sheets[at]?.data;
      const rig = rigs.items.find(({ id }) => id === sheet?.rigId);
      const run = runs.find(({ data }) => data?.id === row.run?.id)?.data;
      return sheet && rig ? [daySheet(planned, sheet, rig, run, day)] : [];
    });
    return {
      tasks: tasksOf(known, pins),
      resources: resourcesOf(
        known,
        instruments.items.map((one) => ({ id: one.id, name: one.name, until: untilOf(one, day) })),
      ),
      people,
      setUp,
      now: from,
    };
  }, [ready, stamp, rows, day, from, people, setUp, pins]);
  const { data } = useQuery({
    queryKey: ['day', problem],
    enabled: problem !== null,
    queryFn: async (): Promise<Day> => ({
      problem: problem as DayProblem,
      plan: await work.plan(problem as DayProblem, TRIES),
    }),
    placeholderData: keepPreviousData,
    gcTime: 0,
    retry: false,
  });
  return data ?? null;
}
