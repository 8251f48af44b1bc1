// Beside a soak that goes on: where its hottest point leads, and what going on would still bring.
import type { RunSample, RunTrace, SheetRun } from '@lastmark/contract/plan';
import type { StoredRig } from '@lastmark/contract/types';
import { LONGER_SECONDS, type SoakForecast, soakForecast } from '@lastmark/core/heat';
import { fixed } from '@lastmark/core/quantity';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { api } from '../api/client.ts';
import { instrumentsQuery } from '../api/queries.ts';
import { listenLive } from '../state/liveSource.ts';
import { Warmth } from './warmth.ts';

/** How often it is worked out anew, ms. */
const EVERY_MILLISECONDS = 10_000;
const words = ({ fit, half, after, tight }: SoakForecast): string => {
  const [low, high] = fit.interval;
  if (half === null) return 'Hottest point: where it leads is not told yet.';
  const leads = `Hottest point leads to ${fixed(fit.steady, 1)} °C (${low === null ? '?' : fixed(low, 1)} to ${high === null ? '?' : fixed(high, 1)} °C).`;
  if (tight) return `${leads} Known to ± ${fixed(half, 1)} K: the soak may end (E).`;
  return after === null
    ? leads
    : `${leads} ${LONGER_SECONDS / 60} minutes more would bring about ± ${fixed(after, 1)} K.`;
};

export function SoakAhead({ run, rig }: { readonly run: SheetRun; readonly rig: StoredRig }) {
  const { data: instruments } = useQuery(instrumentsQuery);
  const [ahead, setAhead] = useState<SoakForecast | null>(null);
  const { id, stepId } = run;
  const ids = run.instrumentIds.join();
  const { spots } = rig;
  useEffect(() => {
    const classes = new Map(instruments?.items.map((one) => [one.id, one.class]) ?? []);
    const warmth = new Warmth(spots);
    const own = new Set(ids.split(','));
    const take = ({ instrumentId, values }: Pick<RunSample, 'instrumentId' | 'values'>) => {
      if (own.has(instrumentId)) warmth.take(classes.get(instrumentId) ?? '', values);
    };
    let gone = false;
    const look = () => setAhead(soakForecast(warmth.times, warmth.celsius));
    void api<RunTrace>(`/sheet-runs/${id}/trace${stepId ? `?step=${stepId}` : ''}`)
      .then(({ items }) => {
        if (gone || warmth.times.length > 5) return;
        for (const sample of items) take(sample);
        look();
      })
      .catch(() => undefined);
    const stop = listenLive(take, [...own]);
    const timer = setInterval(look, EVERY_MILLISECONDS);
    return () => {
      gone = true;
      stop();
      clearInterval(timer);
    };
  }, [instruments, ids, id, stepId, spots]);
  return (
    <Typography sx={{ minHeight: 24, mt: 1 }}>
      {ahead ? words(ahead) : 'Where it leads is worked out after five minutes.'}
    </Typography>
  );
}
