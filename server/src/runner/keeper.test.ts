import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Database } from '../db/database.ts';
import { LostOwnership, type Ownership } from '../leases/ownership.ts';
import { Keeper } from './keeper.ts';

interface Row {
  readonly stepId: string;
  readonly body: readonly { readonly instrumentId: string }[];
}

/** A database that takes what it is given, unless it is told to fail. */
function fakeDatabase() {
  const state = { rows: [] as Row[], failing: null as Error | null };
  const tx = {
    insert: () => ({
      values: async (rows: readonly Row[]) => {
        if (state.failing) throw state.failing;
        state.rows.push(...rows);
      },
    }),
  };
  const db = { transaction: (work: (given: typeof tx) => Promise<void>) => work(tx) } as unknown as Database;
  return { state, db };
}

const told = (instrumentId: string) => ({ instrumentId, values: [] }) as never;

describe('what instruments told', () => {
  let fake: ReturnType<typeof fakeDatabase>;
  let failures: unknown[];
  let lost: boolean;
  let keeper: Keeper;
  beforeEach(() => {
    vi.useFakeTimers();
    fake = fakeDatabase();
    failures = [];
    lost = false;
    const own = {
      assert: async () => {
        if (lost) throw new LostOwnership();
      },
    } as unknown as Ownership;
    keeper = new Keeper(fake.db, 'run', own, (error) => failures.push(error));
  });
  afterEach(() => {
    vi.useRealTimers();
  });
  const kept = () =>
    fake.state.rows.map(({ stepId, body }) => [stepId, ...body.map(({ instrumentId }) => instrumentId)]);

  it('is committed by itself within half a second, a part a step, in order', async () => {
    keeper.take('one', told('a'));
    keeper.take('one', told('b'));
    keeper.take('two', told('c'));
    expect(kept()).toEqual([]);
    await vi.advanceTimersByTimeAsync(500);
    expect(kept()).toEqual([
      ['one', 'a', 'b'],
      ['two', 'c'],
    ]);
  });

  it('is kept while the database does not take it, and committed once when it does', async () => {
    fake.state.failing = new Error('gone');
    keeper.take('one', told('a'));
    await vi.advanceTimersByTimeAsync(500);
    keeper.take('one', told('b'));
    await vi.advanceTimersByTimeAsync(500);
    expect(kept()).toEqual([]);
    expect(failures).toHaveLength(2);
    fake.state.failing = null;
    await vi.advanceTimersByTimeAsync(500);
    expect(kept()).toEqual([
      ['one', 'a'],
      ['one', 'b'],
    ]);
    await vi.advanceTimersByTimeAsync(2000);
    expect(kept()).toHaveLength(2);
  });

  it('after another server took over belongs to its run: it is dropped', async () => {
    lost = true;
    keeper.take('one', told('a'));
    await vi.advanceTimersByTimeAsync(500);
    expect(failures[0]).toBeInstanceOf(LostOwnership);
    lost = false;
    await keeper.close();
    expect(kept()).toEqual([]);
  });

  it('is all committed before it closes, or it says that it is not', async () => {
    keeper.take('one', told('a'));
    await keeper.close();
    expect(kept()).toEqual([['one', 'a']]);
    fake.state.failing = new Error('gone');
    keeper.take('two', told('b'));
    await expect(keeper.close()).rejects.toThrow('could not be stored');
    fake.state.failing = null;
    await keeper.close();
    expect(kept()).toEqual([
      ['one', 'a'],
      ['two', 'b'],
    ]);
  });
});
