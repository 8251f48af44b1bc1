// What the work of a station needs to be shown on the demo's shelf.
import { eq } from 'drizzle-orm';
import type { Database } from '../db/database.ts';
import { samples } from '../db/schema.ts';

/** A demo shelf with its chargers on it, while work is done on them. */
export interface DemoShelf {
  readonly db: Database;
  /** Rigs to measure with; ids. */
  readonly rigs: { readonly load: string; readonly proof: string };
  /** Demo time of the next reading. */
  readonly moment: () => string;
}

/** Work of one station on chargers of the shelf, through the same doors a person's entries take. */
export interface DemoWork {
  /** Serials it is done on, in order. */
  readonly serials: readonly string[];
  /** @param chance of this work alone, so that what is added elsewhere leaves its readings as they are */
  readonly seed: (shelf: DemoShelf, sampleId: string, serial: string, chance: () => number) => Promise<void>;
}

export async function sampleOf(db: Database, serial: string): Promise<string | null> {
  const [row] = await db.select({ id: samples.id }).from(samples).where(eq(samples.serial, serial));
  return row?.id ?? null;
}
