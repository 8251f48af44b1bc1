// The bench day everybody shares: what is typed is kept a moment after the last key; what others kept comes by itself.
import type { BenchDay, BenchDayBody } from '@lastmark/contract/plan';
import { queryOptions, useMutation, useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useRef } from 'react';
import { ApiProblem, api, versionTag } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { useDraft } from '../parts/useDraft.ts';
import { type DayForm, formOf, readForm } from './dayForm.ts';

/** Others plan too. */
const EVERY_MILLISECONDS = 10_000;
/** So long nobody typed, ms. */
const REST_MILLISECONDS = 500;

export const benchDayQuery = (day: string) =>
  queryOptions({
    queryKey: ['bench-day', day],
    queryFn: ({ signal }) => api<BenchDay>(`/bench-days/${day}`, { signal }),
    refetchInterval: EVERY_MILLISECONDS,
  });

/** What was typed and is not kept yet, with the version it was typed over: another's is never overwritten unseen. */
interface Typed {
  readonly form: DayForm;
  readonly version: number;
}

export interface DayControl {
  /** Null while it is being fetched. */
  readonly form: DayForm | null;
  readonly change: (part: Partial<DayForm>) => void;
  /** What keeping it came to. */
  readonly says: string;
  /** Somebody else kept the day meanwhile: take theirs. Null where nobody did. */
  readonly takeTheirs: (() => void) | null;
}

/** @param nameOf how a sheet is called in what is wrong */
export function useBenchDay(day: string, nameOf: (sheetId: string) => string): DayControl {
  const query = useQuery(benchDayQuery(day));
  const stored = query.data;
  // Also what cannot be kept yet, or was typed just before somebody left the page, is there again.
  const { value: typed, set: setTyped } = useDraft<Typed | null>(`bench-day.${day}`, null);
  const newest = useRef(typed);
  newest.current = typed;
  const keep = useMutation({
    mutationFn: ({ body, over }: { readonly body: BenchDayBody; readonly over: Typed }) =>
      api<BenchDay>(`/bench-days/${day}`, { method: 'PUT', body, ifMatch: versionTag(over) }),
    onSuccess: (kept, { over }) => {
      queryClient.setQueryData(benchDayQuery(day).queryKey, kept);
      const now = newest.current;
      // What was typed meanwhile was typed over what is kept now.
      setTyped(now === null || now.form === over.form ? null : { form: now.form, version: kept.version });
    },
  });
  const conflict = keep.error instanceof ApiProblem && keep.error.status === 412;
  const { mutate, isPending, reset } = keep;
  // A name of another sheet changes nothing of what was typed.
  const names = useRef(nameOf);
  names.current = nameOf;
  useEffect(() => {
    if (!typed || isPending || conflict) return;
    const { body } = readForm(typed.form, names.current);
    if (!body) return;
    const waiting = setTimeout(() => mutate({ body, over: typed }), REST_MILLISECONDS);
    return () => clearTimeout(waiting);
  }, [typed, isPending, conflict, mutate]);
  const kept = useMemo(() => (stored ? formOf(stored) : null), [stored]);
  const form = typed?.form ?? kept;
  const says = conflict
    ? 'Somebody else changed this day meanwhile; what you typed is not kept.'
    : keep.error
      ? `Not kept yet. ${keep.error.message}`
      : query.error
        ? query.error.message
        : typed
          ? isPending
            ? 'Being kept …'
            : 'Not kept yet.'
          : stored && stored.version > 0
            ? 'Kept for everybody.'
            : '';
  return {
    form,
    change: (part) => {
      const version = typed?.version ?? stored?.version;
      if (form && version !== undefined) setTyped({ form: { ...form, ...part }, version });
    },
    says,
    takeTheirs: conflict
      ? () => {
          setTyped(null);
          reset();
          void query.refetch();
        }
      : null,
  };
}
