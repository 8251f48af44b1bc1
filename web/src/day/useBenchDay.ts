// The bench day everybody shares: what is typed is kept a moment after the last key; what others kept comes by itself.
import type { BenchDay, BenchDayBody } from '@lastmark/contract/plan';
import { queryOptions, useMutation, useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useRef, useState } from 'react';
import { ApiProblem, api, versionTag } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
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
  /** What was typed and is not kept yet; null for nothing. */
  const [typed, setTyped] = useState<DayForm | null>(null);
  const newest = useRef(typed);
  newest.current = typed;
  const keep = useMutation({
    mutationFn: ({ body, seen }: { readonly body: BenchDayBody; readonly seen: BenchDay; readonly form: DayForm }) =>
      api<BenchDay>(`/bench-days/${day}`, { method: 'PUT', body, ifMatch: versionTag(seen) }),
    onSuccess: (kept, { form }) => {
      queryClient.setQueryData(benchDayQuery(day).queryKey, kept);
      if (newest.current === form) setTyped(null);
    },
  });
  const conflict = keep.error instanceof ApiProblem && keep.error.status === 412;
  const { mutate, isPending, reset } = keep;
  // A name of another sheet changes nothing of what was typed.
  const names = useRef(nameOf);
  names.current = nameOf;
  useEffect(() => {
    if (!typed || !stored || isPending || conflict) return;
    const { body } = readForm(typed, names.current);
    if (!body) return;
    const waiting = setTimeout(() => mutate({ body, seen: stored, form: typed }), REST_MILLISECONDS);
    return () => clearTimeout(waiting);
  }, [typed, stored, isPending, conflict, mutate]);
  const kept = useMemo(() => (stored ? formOf(stored) : null), [stored]);
  const form = typed ?? kept;
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
      if (form) setTyped({ ...form, ...part });
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
