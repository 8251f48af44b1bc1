// The shelf's figures are worked out in the background, by one server at a time.
import { sql } from 'drizzle-orm';
import pino from 'pino';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { newId } from '../src/db/ids.ts';
import { turns } from '../src/db/schema.ts';
import { FigureKeeper } from '../src/jobs/figure-keeper.ts';
import { workOutFigures } from '../src/shelf/figures.ts';
import { listSamples } from '../src/shelf/shelf.ts';
import { type Harness, makers, startHarness } from '../testing/harness.ts';

let harness: Harness;
beforeAll(async () => {
  harness = await startHarness('figures');
});
afterAll(async () => {
  await harness.stop();
});

const rowOf = async (id: string) => {
  const { items } = await listSamples(harness.db, { size: 200 });
  return items.find((one) => one.id === id);
};
const ownerNow = async () => (await harness.db.select({ owner: turns.owner }).from(turns))[0]?.owner;
const giveTurn = (owner: string, seconds: number) =>
  harness.db
    .insert(turns)
    .values({ what: 'figures', owner, until: sql`UTC_TIMESTAMP(3) + INTERVAL ${sql.raw(String(seconds))} SECOND` })
    .onDuplicateKeyUpdate({ set: { owner, until: sql`VALUES(${turns.until})` } });

const keeperOf = (jobs: object, owner: string, log: object = pino({ level: 'silent' })) =>
  new FigureKeeper({ db: harness.db, jobs: jobs as never, log: log as never, owner });

describe('figures in the background', () => {
  it('follow a write by themselves', async () => {
    const make = makers(harness);
    const { id } = await make.sample();
    await make.claim(id, { kind: 'total', watts: 65 });
    await expect.poll(() => rowOf(id)).toMatchObject({ pending: false, figures: { watts: 65 } });
    expect(await ownerNow()).toBeDefined();
  });

  it('are left to the server whose turn it is, and taken over when it falls silent', async () => {
    const other = newId();
    const self = newId();
    await giveTurn(other, 3600);
    const asked: number[] = [];
    const jobs = {
      run: async () => {
        asked.push(1);
        return false;
      },
    };
    const keeper = keeperOf(jobs, self);
    try {
      await keeper.settle();
      expect([asked.length, await ownerNow()]).toEqual([0, other]);
      // The server of this file has a keeper too: whose turn it becomes is a race, so it falls silent until it is ours.
      await expect
        .poll(async () => {
          await giveTurn(other, -1);
          await keeper.settle();
          return ownerNow();
        })
        .toBe(self);
      expect(asked.length).toBeGreaterThan(0);
    } finally {
      await keeper.close();
    }
  });

  it('are worked out for a while: what there is by then is kept, and that there is more is said', async () => {
    // Not by the server of this file meanwhile.
    await giveTurn(newId(), 3600);
    await harness.working.figures.settle();
    while (await workOutFigures(harness.db, 100));
    const make = makers(harness);
    const made = [await make.sample(), await make.sample(), await make.sample()];
    const waiting = async () =>
      (await Promise.all(made.map(({ id }) => rowOf(id)))).filter((row) => row?.pending).length;
    const counts = [await waiting()];
    for (let turn = 0; turn < 3; turn += 1) {
      expect(await workOutFigures(harness.db, 100, 0)).toBe(true);
      counts.push(await waiting());
    }
    expect(counts).toEqual([3, 2, 1, 0]);
    expect(await workOutFigures(harness.db, 100)).toBe(false);
  });

  it('of many changes are worked out at once, a moment later', async () => {
    const self = newId();
    await giveTurn(self, 3600);
    let asked = 0;
    const jobs = {
      run: async () => {
        asked += 1;
        return false;
      },
    };
    const keeper = keeperOf(jobs, self);
    try {
      for (let change = 0; change < 20; change += 1) keeper.nudge();
      expect(asked).toBe(0);
      await expect.poll(() => asked).toBe(1);
    } finally {
      await keeper.close();
    }
  });

  it('go on while there is more', async () => {
    const self = newId();
    await giveTurn(self, 3600);
    const asked: object[] = [];
    const jobs = { run: async (_: string, needs: object) => asked.push(needs) < 3 };
    const keeper = keeperOf(jobs, self);
    try {
      await keeper.settle();
      expect(asked).toEqual(Array.from({ length: 3 }, () => ({ most: 100, milliseconds: 1000 })));
    } finally {
      await keeper.close();
    }
  });

  it('that could not be worked out are tried again, and the server lives', async () => {
    await giveTurn(newId(), -1);
    const log: string[] = [];
    let failing = true;
    const jobs = {
      run: async () => {
        if (failing) throw new Error('a thread died');
        return false;
      },
    };
    const keeper = keeperOf(jobs, newId(), { warn: (_: object, text: string) => log.push(text) });
    try {
      await keeper.settle();
      expect(log).toHaveLength(1);
      failing = false;
      await keeper.settle();
      expect(log).toHaveLength(1);
    } finally {
      await keeper.close();
    }
  });
});
