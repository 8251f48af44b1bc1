// The run console: one step large, the next two in sight, live numbers against their limits, and every action on a key.
import type { Ask, SheetRun } from '@lastmark/contract/plan';
import type { StoredRig } from '@lastmark/contract/types';
import Box from '@mui/material/Box';
import { useMutation, useQuery } from '@tanstack/react-query';
import { type ComponentType, lazy, Suspense, useEffect } from 'react';
import { useParams } from 'react-router';
import { api } from '../api/client.ts';
import { instrumentsQuery, queryClient, refreshSample, rigsQuery, runQuery } from '../api/queries.ts';
import { QueryGate } from '../parts/QueryGate.tsx';
import { usePageTitle } from '../parts/usePageTitle.ts';
import { listenLive } from '../state/liveSource.ts';
import { RunActions } from './RunActions.tsx';
import { RunChart } from './RunChart.tsx';
import { RunEnd } from './RunEnd.tsx';
import { RunNumbers } from './RunNumbers.tsx';
import { RunSide } from './RunSide.tsx';
import { RunStep } from './RunStep.tsx';
import { SimulatedPlug } from './SimulatedPlug.tsx';
import { isOver, RUN_WORDS } from './words.ts';

/** The fit of a soak comes with the first soak, not with the console; where it cannot be had the console goes on without. */
const SoakAhead = lazy<ComponentType<{ readonly run: SheetRun; readonly rig: StoredRig }>>(() =>
  import('./SoakAhead.tsx').then(
    (module) => ({ default: module.SoakAhead }),
    () => ({ default: () => null }),
  ),
);

const LOOK_MILLISECONDS = 400;
const HERE_MILLISECONDS = 2500;

/**
 * Tells the server that someone is here. It is driven by the live stream rather than by a timer: browsers slow the timers
 * of pages out of sight, and a console whose stream has died is no console.
 */
function useHere(runId: string, wanted: boolean): void {
  useEffect(() => {
    if (!wanted) return;
    let last = Number.NEGATIVE_INFINITY;
    const tell = () => {
      if (performance.now() - last < HERE_MILLISECONDS) return;
      last = performance.now();
      // A lost one is made up for by the next.
      void api(`/sheet-runs/${runId}/here`, { method: 'POST' }).catch(() => undefined);
    };
    tell();
    return listenLive(tell);
  }, [runId, wanted]);
}

function useRunAsk(runId: string) {
  return useMutation({
    mutationFn: (ask: Ask) => api<SheetRun>(`/sheet-runs/${runId}/asks`, { method: 'POST', body: { ask } }),
    onSuccess: (run) => queryClient.setQueryData(runQuery(runId).queryKey, run),
  });
}

function Console({ run }: { readonly run: SheetRun }) {
  const over = isOver(run.state);
  // What it waits for is seen from another tab.
  usePageTitle(`${RUN_WORDS[run.state]} · ${run.title}`);
  useHere(run.id, !over);
  const ask = useRunAsk(run.id);
  const { data: rigs } = useQuery(rigsQuery);
  const { data: instruments } = useQuery(instrumentsQuery);
  const rig = rigs?.items.find(({ id }) => id === run.rigId);
  const at = run.steps.findIndex(({ id }) => id === run.stepId);
  const step = run.steps[at];
  /** Whether anything on this rig tells numbers by itself. */
  const live =
    instruments?.items.some(({ id, address }) => address !== null && run.instrumentIds.includes(id)) ?? false;
  useEffect(() => {
    if (over) void refreshSample(run.sample.id);
  }, [over, run.sample.id]);
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 1fr) 284px' },
        height: { md: 'calc(100vh - 62px)' },
      }}
    >
      <Box sx={{ p: 2.5, display: 'flex', flexDirection: 'column', gap: 1.5, minWidth: 0, overflowY: 'auto' }}>
        <RunStep run={run} step={step} number={at + 1} />
        {over ? (
          <RunEnd run={run} />
        ) : (
          <>
            {live && rig && instruments && step && (
              <RunNumbers run={run} step={step} rig={rig} instruments={instruments.items} />
            )}
            {live && <RunChart run={run} />}
            {live && rig && step?.kind === 'capture' && step.capture === 'soak' && (
              <Suspense fallback={null}>
                <SoakAhead run={run} rig={rig} />
              </Suspense>
            )}
            {step?.kind === 'charge' && run.state === 'waiting' && <SimulatedPlug run={run} step={step} />}
            <RunActions run={run} step={step} rig={rig} ask={ask.mutate} error={ask.error} />
          </>
        )}
      </Box>
      <RunSide run={run} at={at} />
    </Box>
  );
}

export function RunPage() {
  const { runId = '' } = useParams();
  // Asked for beside the run, so that no button moves as numbers come to stand above it; none waits for them, to stop least of all.
  useQuery(rigsQuery);
  useQuery(instrumentsQuery);
  const run = useQuery({
    ...runQuery(runId),
    refetchInterval: ({ state }) => (state.data && isOver(state.data.state) ? false : LOOK_MILLISECONDS),
    refetchIntervalInBackground: true,
  });
  return (
    <QueryGate query={run} what="the run">
      {(found) => <Console key={found.id} run={found} />}
    </QueryGate>
  );
}
