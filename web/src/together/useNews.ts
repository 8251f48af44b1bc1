// What others do appears by itself: asked for every other second while the page is in sight, and taken in when nobody is
// in the middle of a form.
import type { Here, News, NewsEntry } from '@lastmark/contract/together';
import { STATIONS_ABOUT } from '@lastmark/core/station';
import { queryOptions, useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useSyncExternalStore } from 'react';
import { useMatch } from 'react-router';
import { api, isMissing, TAB } from '../api/client.ts';
import { dossierQuery, queryClient } from '../api/queries.ts';
import { countAbout, isBehind, isOutdated } from './news.ts';

const EVERY_MILLISECONDS = 2000;

/** Where the last answer ended. */
let newest = '';

const newsQuery = (sampleId: string | null, place: string) =>
  queryOptions({
    queryKey: ['news', sampleId, place],
    queryFn: ({ signal }) =>
      api<News>('/news', { method: 'POST', body: { tab: TAB, newest, sampleId, place }, signal }),
    refetchInterval: EVERY_MILLISECONDS,
    staleTime: 0,
    gcTime: EVERY_MILLISECONDS,
    retry: false,
  });

/** Lists that do not move under somebody who reads them. */
export type StillList = 'shelf' | 'log';

/** What they do not show yet; null for what is not told in full. */
const unshown: Record<StillList, readonly (NewsEntry | null)[]> = { shelf: [], log: [] };
/** More than anybody counts. */
const MOST_UNSHOWN = 1000;
const watchers = new Set<() => void>();

function setUnshown(list: StillList, entries: readonly (NewsEntry | null)[]): void {
  if (entries.length === 0 && unshown[list].length === 0) return;
  unshown[list] = entries.slice(-MOST_UNSHOWN);
  for (const watch of watchers) watch();
}

/**
 * How much others did that a list does not show yet.
 * @param shownAt when what it shows was fetched
 * @param sampleId the sample it is all about; empty for a list of everything
 */
export function useUnshown(list: StillList, shownAt: number, sampleId: string): number {
  useEffect(() => {
    if (shownAt > 0) setUnshown(list, []);
  }, [list, shownAt]);
  return useSyncExternalStore(
    (watch) => {
      watchers.add(watch);
      return () => watchers.delete(watch);
    },
    () => countAbout(unshown[list], sampleId),
  );
}

/** Whether somebody is in the middle of something that would be about another state. */
const isBusy = (): boolean =>
  document.querySelector('[role=dialog]') !== null ||
  (document.activeElement?.closest('form:not([data-live])') ?? null) !== null;

function takeIn({ entries, missed, revisions, newest: now }: News, sampleId: string | null): void {
  if (isBusy()) return;
  newest = now;
  const known = sampleId === null ? undefined : queryClient.getQueryData(dossierQuery(sampleId).queryKey);
  if (sampleId !== null && known && isBehind(known.revisions, revisions))
    void queryClient.invalidateQueries({ queryKey: ['dossier', sampleId] });
  if (entries.length > 0 || missed)
    void queryClient.invalidateQueries({
      predicate: ({ queryKey }) =>
        missed ? !['who', 'news', 'samples', 'log'].includes(String(queryKey[0])) : isOutdated(queryKey, entries),
    });
  const told = [...entries, ...(missed ? [null] : [])];
  setUnshown('shelf', [...unshown.shelf, ...told.filter((one) => one?.sampleId !== null)]);
  setUnshown('log', [...unshown.log, ...told]);
  // Whoever comes back to it sees it as it is.
  if (told.length > 0) void queryClient.invalidateQueries({ queryKey: ['log'], refetchType: 'none' });
}

/** Ask for news as long as the page is open. */
export function useNews(): void {
  const at = useMatch('/samples/:sampleId/:station')?.params;
  const sampleId = at?.sampleId && at.sampleId !== 'new' ? at.sampleId : null;
  const place = STATIONS_ABOUT.find(({ id }) => id === at?.station)?.title ?? '';
  const { data, dataUpdatedAt, error } = useQuery(newsQuery(sampleId, place));
  const gone = sampleId !== null && (data?.revisions === null || isMissing(error));
  const taken = useRef(0);
  useEffect(() => {
    if (!data || taken.current === dataUpdatedAt) return;
    taken.current = dataUpdatedAt;
    takeIn(data, sampleId);
  }, [data, dataUpdatedAt, sampleId]);
  useEffect(() => {
    // Deleted, or no more for the eyes of whoever looks: it does not stay on screen.
    if (gone) void queryClient.resetQueries({ queryKey: ['dossier', sampleId] });
  }, [gone, sampleId]);
}

const NOBODY: readonly Here[] = [];

/** Who else has a sample open now. */
export function useHere(sampleId: string): readonly Here[] {
  const station = useMatch('/samples/:sampleId/:station')?.params.station;
  const place = STATIONS_ABOUT.find(({ id }) => id === station)?.title ?? '';
  const { data } = useQuery({ ...newsQuery(sampleId, place), enabled: false });
  return data?.here.filter((one) => one.sampleId === sampleId) ?? NOBODY;
}
