// Rows of the table of a set: held to ranges, in the order of a column, in groups.
import type { SetMember } from '@lastmark/contract/types';
import type { SortingState } from '@tanstack/react-table';
import { type MeasureView, sampleTitle } from './views.ts';

export const GROUPS = ['no groups', 'kind', 'maker', 'model'] as const;
export type Group = (typeof GROUPS)[number];

export type Range = readonly [from: string, to: string];
const number = (text: string): number | null => {
  const value = Number(text.trim().replace(',', '.'));
  return text.trim() === '' || !Number.isFinite(value) ? null : value;
};

/** A range a column is held to. */
export interface Filter {
  readonly id: string;
  readonly range: Range;
}

/** Members whose values lie in every range; one without a value lies in none. */
export function insideAll(
  members: readonly SetMember[],
  filters: readonly Filter[],
  views: readonly MeasureView[],
): readonly SetMember[] {
  // What is typed is read once, not once a sample.
  const bounds = filters.flatMap(({ id, range }) => {
    const view = views.find((one) => one.id === id);
    const [low, high] = [number(range[0]), number(range[1])];
    if (!view || (low === null && high === null)) return [];
    return [{ byId: view.byId, factor: view.factor, low: low ?? -Infinity, high: high ?? Infinity }];
  });
  if (bounds.length === 0) return members;
  return members.filter(({ id }) =>
    bounds.every(({ byId, factor, low, high }) => {
      const value = byId.get(id)?.value;
      return value !== undefined && value * factor >= low && value * factor <= high;
    }),
  );
}

/** Samples in the order of a column; those without a value come last, whichever way. */
export function inOrder(
  members: readonly SetMember[],
  by: SortingState[number] | undefined,
  views: readonly MeasureView[],
): readonly SetMember[] {
  if (!by) return members;
  const down = by.desc ? -1 : 1;
  const view = views.find(({ id }) => id === by.id);
  if (!view)
    return [...members].sort((a, b) => down * sampleTitle(a).localeCompare(sampleTitle(b), 'en', { numeric: true }));
  const value = ({ id }: SetMember) => view.byId.get(id)?.value;
  return [...members].sort((a, b) => {
    const [one, other] = [value(a), value(b)];
    if (one === undefined || other === undefined) return one === other ? 0 : one === undefined ? 1 : -1;
    return down * (one - other);
  });
}

export interface Line {
  /** Of a group; null for a sample. */
  readonly head: string | null;
  readonly member: SetMember | null;
}

export function grouped(members: readonly SetMember[], group: Group): readonly Line[] {
  if (group === 'no groups') return members.map((member) => ({ head: null, member }));
  const groups = new Map<string, SetMember[]>();
  for (const member of members) {
    const own = groups.get(member[group]);
    if (own) own.push(member);
    else groups.set(member[group], [member]);
  }
  return [...groups].flatMap(([name, all]): Line[] => [
    { head: `${name}: ${all.length}`, member: null },
    ...all.map((member) => ({ head: null, member })),
  ]);
}
