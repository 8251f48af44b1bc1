// What is only ever added: sent again it counts once, a correction names the one it takes the place of, once.
import { eq } from 'drizzle-orm';
import type { AnyMySqlColumn, MySqlTable } from 'drizzle-orm/mysql-core';
import type { Queries } from '../db/database.ts';
import { conflict, refused } from '../http/problem.ts';
import { wasRepeated } from '../who/who.ts';

/** What is added brings its own id. */
interface Added {
  readonly id: string;
  /** The one it takes the place of. */
  readonly supersedes?: string | null;
  /** It takes back what it supersedes, and puts nothing in its place. */
  readonly withdrawn?: boolean;
}

interface Ways<T extends Added> {
  readonly table: MySqlTable & { readonly id: AnyMySqlColumn };
  /** What one is called: "read-out". */
  readonly what: string;
  /** Where its fields stand in what was sent: "run." */
  readonly at?: string;
  /** All of the sample, oldest first. */
  readonly list: (db: Queries, sampleId: string) => Promise<readonly T[]>;
  /** Those that stand. */
  readonly current?: (all: readonly T[]) => readonly T[];
}

/** What was there before something is added. */
export interface Before<T> {
  /** The very same, sent before: nothing is to be added. */
  readonly repeated: T | null;
  /** The one it takes the place of. */
  readonly superseded: T | null;
}

/**
 * Look before adding, inside the transaction that adds.
 * @throws 409 when its id is another's, or what it corrects was corrected meanwhile; 422 when it takes back nothing
 */
export async function beforeAdding<T extends Added>(
  tx: Queries,
  sampleId: string,
  { id, supersedes = null, withdrawn = false }: Added,
  { table, what, at = '', list, current = (all) => all }: Ways<T>,
): Promise<Before<T>> {
  const all = await list(tx, sampleId);
  const repeated = all.find((one) => one.id === id) ?? null;
  if (repeated) {
    wasRepeated();
    return { repeated, superseded: null };
  }
  const [foreign] = await tx.select({ id: table.id }).from(table).where(eq(table.id, id));
  if (foreign) throw conflict(`Another ${what} has this id.`);
  const superseded = current(all).find((one) => one.id === supersedes) ?? null;
  if (supersedes !== null && !superseded)
    throw conflict(`Someone corrected this ${what} meanwhile. Reload to see theirs.`);
  if (withdrawn && !superseded) throw refused(`${at}supersedes`, `Say which ${what} is taken back.`);
  return { repeated: null, superseded };
}
