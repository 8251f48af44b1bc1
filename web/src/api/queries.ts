// What the screens ask the server for, each under one key.

import type { Lease, SheetRow, SheetRun, SimulatedBenchState, StoredSheet } from '@lastmark/contract/plan';
import type {
  AttachmentInfo,
  BenchPlace,
  DemoState,
  DossierAnswer,
  HeldBackCharger,
  InstrumentTraffic,
  Page,
  SampleDossier,
  SampleRow,
  StoredDevice,
  StoredInstrument,
  StoredInstrumentProfile,
  StoredLimitSet,
  StoredProfile,
  StoredRig,
  StoredTrial,
  TrialRow,
  UnitFate,
} from '@lastmark/contract/types';
import type { DeviceEvidence } from '@lastmark/core/charge';
import type { FilePlan } from '@lastmark/core/meter-file';
import type { Point } from '@lastmark/core/reading';
import { infiniteQueryOptions, notifyManager, QueryClient, queryOptions } from '@tanstack/react-query';
import { ApiProblem, api } from './client.ts';

const MOST_RETRIES = 2;

/** What was answered is drawn in the frame it came in: behind a timer it would wait for another paint first. */
notifyManager.setScheduler(queueMicrotask);

/** One client: lost connections are tried again, refusals are not. */
export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 5_000,
      retry: (count, error) =>
        count < MOST_RETRIES && error instanceof ApiProblem && (error.status === 0 || error.status >= 500),
    },
  },
});

export interface Items<T> {
  readonly items: T[];
}

export interface ShelfFilter {
  readonly q: string;
  readonly kind: string;
  /** One of their labels; empty for any. */
  readonly label: string;
  /** Id of the one they are in; empty for any. */
  readonly collection: string;
  readonly archived: boolean;
  /** Column it is sorted by; empty for the last changed first. */
  readonly sort: string;
  readonly down: boolean;
}

const SHELF_PAGE = 100;

/** How often figures that are being worked out are asked for again, ms. */
const PENDING_MILLISECONDS = 700;

export const shelfQuery = ({ q, kind, label, collection, archived, sort, down }: ShelfFilter) =>
  infiniteQueryOptions({
    queryKey: ['samples', q, kind, label, collection, archived, sort, down],
    initialPageParam: 1,
    queryFn: ({ pageParam, signal }) => {
      const query = new URLSearchParams({ page: String(pageParam), size: String(SHELF_PAGE) });
      if (q) query.set('q', q);
      if (kind) query.set('kind', kind);
      if (label) query.set('label', label);
      if (collection) query.set('collection', collection);
      if (archived) query.set('archived', 'true');
      if (sort) query.set('sort', sort);
      if (sort && down) query.set('down', 'true');
      return api<Page<SampleRow>>(`/samples?${query}`, { signal });
    },
    getNextPageParam: ({ page, size, total }) => (page * size < total ? page + 1 : undefined),
    refetchInterval: ({ state }) =>
      state.data?.pages.some(({ items }) => items.some(({ pending }) => pending)) ? PENDING_MILLISECONDS : false,
  });

/** A dossier with how often each part of it had been changed. */
export interface KnownDossier extends SampleDossier {
  readonly revisions: Readonly<Record<string, number>>;
}

/** Only what changed since is fetched; the rest stays the very same, so that nothing is concluded from it again. */
async function fetchDossier(sampleId: string, signal: AbortSignal): Promise<KnownDossier> {
  const known = queryClient.getQueryData<KnownDossier>(['dossier', sampleId]);
  const have = Object.entries(known?.revisions ?? {})
    .map((pair) => pair.join('.'))
    .join(',');
  const answer = await api<DossierAnswer>(`/samples/${sampleId}/dossier${have ? `?have=${have}` : ''}`, { signal });
  // Whoever has nothing is sent everything.
  return { ...known, ...answer } as KnownDossier;
}

export const dossierQuery = (sampleId: string) =>
  queryOptions({
    queryKey: ['dossier', sampleId],
    queryFn: ({ signal }) => fetchDossier(sampleId, signal),
    // Parts that did not change are the same already; comparing thousands of readings would only cost time.
    structuralSharing: false,
  });

/** Points as the server has them now, shown without fetching the others again. */
export function takePoints(sampleId: string, points: readonly Point[]): void {
  queryClient.setQueryData<KnownDossier>(['dossier', sampleId], (known) => {
    if (!known) return known;
    const newer = new Map(points.map((point) => [point.id, point]));
    const kept = known.points.map((point) => {
      const own = newer.get(point.id);
      newer.delete(point.id);
      return own ?? point;
    });
    const { points: before = 0 } = known.revisions;
    return {
      ...known,
      points: [...kept, ...newer.values()].sort((a, b) => (a.takenAt < b.takenAt ? -1 : a.takenAt > b.takenAt ? 1 : 0)),
      // Counted once more by this very write. Whatever else was written meanwhile makes it another number: all is fetched then.
      revisions: { ...known.revisions, points: before + 1 },
    };
  });
}

export const attachmentsQuery = (sampleId: string) =>
  queryOptions({
    queryKey: ['attachments', sampleId],
    queryFn: ({ signal }) => api<Items<AttachmentInfo>>(`/attachments?sampleId=${sampleId}`, { signal }),
  });

export const benchesQuery = queryOptions({
  queryKey: ['benches'],
  queryFn: ({ signal }) => api<Items<BenchPlace>>('/benches', { signal }),
});
export const instrumentsQuery = queryOptions({
  queryKey: ['instruments'],
  queryFn: ({ signal }) => api<Items<StoredInstrument>>('/instruments', { signal }),
});

export const instrumentProfilesQuery = queryOptions({
  queryKey: ['instrument-profiles'],
  queryFn: ({ signal }) => api<Items<StoredInstrumentProfile>>('/instrument-profiles', { signal }),
});

export const trafficQuery = (instrumentId: string) =>
  queryOptions({
    queryKey: ['traffic', instrumentId],
    queryFn: ({ signal }) => api<InstrumentTraffic>(`/instruments/${instrumentId}/traffic`, { signal }),
  });

export const leasesQuery = queryOptions({
  queryKey: ['leases'],
  queryFn: ({ signal }) => api<Items<Lease>>('/leases', { signal }),
});

export const sheetsQuery = (sampleId: string | null) =>
  queryOptions({
    queryKey: ['run-sheets', 'list', sampleId],
    queryFn: ({ signal }) => api<Items<SheetRow>>(`/run-sheets${sampleId ? `?sampleId=${sampleId}` : ''}`, { signal }),
  });

export const sheetQuery = (sheetId: string) =>
  queryOptions({
    queryKey: ['run-sheets', sheetId],
    queryFn: ({ signal }) => api<StoredSheet>(`/run-sheets/${sheetId}`, { signal }),
  });

export const runQuery = (runId: string) =>
  queryOptions({
    queryKey: ['sheet-runs', runId],
    queryFn: ({ signal }) => api<SheetRun>(`/sheet-runs/${runId}`, { signal }),
  });

export const simulatedBenchQuery = queryOptions({
  queryKey: ['simulated-bench'],
  queryFn: ({ signal }) => api<SimulatedBenchState>('/simulated-bench', { signal }),
});

export const rigsQuery = queryOptions({
  queryKey: ['rigs'],
  queryFn: ({ signal }) => api<Items<StoredRig>>('/rigs', { signal }),
});

export const devicesQuery = queryOptions({
  queryKey: ['devices'],
  queryFn: ({ signal }) => api<Items<StoredDevice>>('/devices', { signal }),
});

/** What every charger showed of the devices. */
export const deviceEvidenceQuery = queryOptions({
  queryKey: ['device-evidence'],
  queryFn: ({ signal }) => api<DeviceEvidence>('/device-evidence', { signal }),
});

/** Chargers a cable holds back. */
export const heldBackQuery = (sampleId: string) =>
  queryOptions({
    queryKey: ['held-back', sampleId],
    queryFn: ({ signal }) => api<Items<HeldBackCharger>>(`/samples/${sampleId}/held-back`, { signal }),
  });

/** How far the units of a model came by bends. */
export const fatesQuery = (sampleId: string) =>
  queryOptions({
    queryKey: ['fates', sampleId],
    queryFn: ({ signal }) => api<Items<UnitFate>>(`/samples/${sampleId}/fates`, { signal }),
  });

export const trialsQuery = (sampleId: string | null) =>
  queryOptions({
    queryKey: ['trials', 'list', sampleId],
    queryFn: ({ signal }) => api<Items<TrialRow>>(`/trials${sampleId ? `?sampleId=${sampleId}` : ''}`, { signal }),
  });

export const trialQuery = (trialId: string) =>
  queryOptions({
    queryKey: ['trials', trialId],
    queryFn: ({ signal }) => api<StoredTrial>(`/trials/${trialId}`, { signal }),
  });

/** What of the demo stands on the shelf. */
export const demoQuery = queryOptions({
  queryKey: ['demo'],
  queryFn: ({ signal }) => api<DemoState>('/demo', { signal }),
});

export const profileQuery = queryOptions({
  queryKey: ['profile'],
  queryFn: ({ signal }) => api<StoredProfile>('/profile', { signal }),
});

export const limitSetsQuery = queryOptions({
  queryKey: ['limit-sets'],
  queryFn: ({ signal }) => api<Items<StoredLimitSet>>('/limit-sets', { signal }),
});

export const columnMapsQuery = queryOptions({
  queryKey: ['column-maps'],
  queryFn: ({ signal }) => api<Items<{ headerKey: string; plan: FilePlan }>>('/column-maps', { signal }),
});

/** After a change to one sample: its dossier and the shelf are asked for anew. */
export async function refreshSample(sampleId: string): Promise<void> {
  await Promise.all([
    queryClient.invalidateQueries({ queryKey: ['dossier', sampleId] }),
    queryClient.invalidateQueries({ queryKey: ['samples'] }),
    queryClient.invalidateQueries({ queryKey: ['device-evidence'] }),
  ]);
}

/** After a change that touches every sample. */
export const refreshAll = (): Promise<void> => queryClient.invalidateQueries();
