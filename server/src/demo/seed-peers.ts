// The years before: each unit bought, measured a week later, and at the end of the shelf.
import { seededRandom } from '@lastmark/core/random';
import { eq } from 'drizzle-orm';
import { createClaim } from '../claims/store.ts';
import type { Database } from '../db/database.ts';
import { samples } from '../db/schema.ts';
import { createSample, createUnit } from '../samples/store.ts';
import { type DemoBench, measureUnit } from './measure-unit.ts';
import { PEERS } from './peers.ts';

const MINUTE = 60_000;
const DAY = 86_400_000;

/** What was measured in the years before, each at its time, by chance of its own. */
export async function seedPeers(db: Database, bench: DemoBench, seed: number): Promise<void> {
  const random = seededRandom(seed);
  for (const { model, claims, units, physics, bought, worse } of PEERS) {
    const from = new Date(`${bought}T08:00:00.000Z`).getTime() + 7 * DAY;
    let clock = from;
    const then: DemoBench = {
      ...bench,
      random,
      moment: () => {
        clock += 6 * MINUTE;
        return new Date(clock).toISOString();
      },
    };
    let first: string | null = null;
    for (const [at, one] of units.entries()) {
      const made: { readonly id: string } =
        first === null ? await createSample(db, { model, unit: one.unit }) : await createUnit(db, first, one.unit);
      const { id } = made;
      if (first === null) for (const claim of claims) await createClaim(db, id, claim);
      first ??= id;
      const more = 1 + (worse[at] ?? 0);
      await measureUnit(db, then, id, one, {
        ...physics,
        proportionalLoss: physics.proportionalLoss * more,
        fixedLoss: physics.fixedLoss * more,
        idle: physics.idle * (1 + 3 * (worse[at] ?? 0)),
      });
      const when = new Date(from - 7 * DAY);
      await db.update(samples).set({ createdAt: when, updatedAt: when }).where(eq(samples.id, id));
    }
  }
}
