// What others do appears by itself: asked for every other second while the page is in sight, and taken in when nobody is
// in the middle of a form.
import type { Here, News } from '@lastmark/contract/together';
import { STATIONS_ABOUT } from '@lastmark/core/station';
import { queryOptions, useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useSyncExternalStore } from 'react';
import { useMatch } from 'react-router';
import { api, isMissing, TAB } from '../api/client.ts';
import { dossierQuery, queryClient } from '../api/queries.ts';
import { isBehind, isOutdated } from './news.ts';

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

/** Changes to the shelf that are not shown yet: a list does not move under somebody who reads it. */
let shelfChanges = 0;
const watchers = new Set<() => void>();

function setShelfChanges(count: number): void {
  if (count === shelfChanges) return;
  shelfChanges = count;
  for (const watch of watchers) watch();
}

export const useShelfChanges = (): number =>
  useSyncExternalStore(
    (watch) => {
      watchers.add(watch);
      return () => watchers.delete(watch);
    },
    () => shelfChanges,
  );

/** The shelf is shown as it is now. */
export const shelfShown = (): void => setShelfChanges(0);

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
        missed ? !['who', 'news', 'samples'].includes(String(queryKey[0])) : isOutdated(queryKey, entries),
    });
  const shelf = entries.filter((one) => one.sampleId !== null).length + (missed ? 1 : 0);
  if (shelf > 0) setShelfChanges(shelfChanges + shelf);
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
