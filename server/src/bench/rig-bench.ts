// A rig has instruments of one bench.
import type { StoredInstrument, StoredRig } from '@lastmark/contract';
import { refused } from '../http/problem.ts';

/** Every instrument a rig names. */
export const namedBy = ({ meters, drives }: Pick<StoredRig, 'meters' | 'drives'>): string[] =>
  [...Object.values(meters), ...Object.values(drives ?? {})].filter((id): id is string => typeof id === 'string');

/**
 * The bench of a rig: of its instruments that are spoken to.
 * @param all every instrument there is
 * @returns null where none is spoken to: it can be carried out anywhere
 * @throws 422 where they stand on several
 */
export function benchOfRig(
  rig: Pick<StoredRig, 'name' | 'meters' | 'drives'>,
  all: readonly StoredInstrument[],
): string | null {
  const named = namedBy(rig);
  const spoken = all.filter(({ id, address }) => address !== null && named.includes(id));
  const [first] = spoken;
  const other = spoken.find(({ bench }) => bench !== first?.bench);
  if (first && other)
    throw refused(
      'meters',
      `"${first.name}" stands on bench "${first.bench}" and "${other.name}" on "${other.bench}": a rig has instruments of one bench.`,
    );
  return first?.bench ?? null;
}
