import { afterEach, describe, expect, it, vi } from 'vitest';
import { LostOwnership, type Ownership } from '../leases/ownership.ts';
import type { RigDriver } from './driver.ts';
import { ANSWER_MILLISECONDS, LeaseWatch } from './lease-watch.ts';

/** What the database says, one answer an ask, the last for all that follow. */
type Answer = 'of before' | 'mine' | 'lost' | 'error' | 'nothing';

/** A run that has stood still for ten seconds and drew before; the database answers in this order. */
async function woken(...answers: readonly Answer[]) {
  const state = { valid: true, lost: false, takenWhileValid: false, on: true, asked: 0, offAfter: [] as number[] };
  const renew = async () => {
    const answer = answers[Math.min(state.asked, answers.length - 1)];
    state.asked += 1;
    if (answer === 'nothing') return new Promise<void>(() => undefined);
    if (answer === 'error') throw new Error('Deadlock found when trying to get lock');
    if (answer === 'lost') {
      state.lost = true;
      throw new LostOwnership();
    }
    state.valid = answer === 'mine';
  };
  const offSays = async () => {
    state.on = false;
    state.offAfter.push(state.asked);
    return null;
  };
  const own = Object.defineProperties(
    { renew },
    {
      valid: { get: () => state.valid },
      lost: { get: () => state.lost },
      takenWhileValid: { get: () => state.takenWhileValid },
    },
  ) as unknown as Ownership;
  const driver = Object.defineProperties(
    { offSays, makeSafe: offSays },
    {
      isOn: { get: () => state.on },
    },
  ) as unknown as RigDriver;
  const slept = { by: 0 };
  const now = performance.now.bind(performance);
  vi.spyOn(performance, 'now').mockImplementation(() => now() + slept.by);
  const wakes: (() => void)[] = [];
  const lease = new LeaseWatch({
    own,
    driver,
    wake: () => {
      for (const wake of wakes.splice(0)) wake();
    },
    note: (error) => {
      throw error;
    },
  });
  const looked = new Promise<void>((resolve) => wakes.push(resolve));
  slept.by = 10_000;
  state.valid = false;
  return { lease, state, looked };
}

describe('a server that wakes from a standstill', () => {
  afterEach(() => vi.restoreAllMocks());

  it.each<readonly [string, Answer[]]>([
    ['says so', ['lost']],
    ['answers first what was asked before it stood still', ['of before', 'lost']],
    ['fails once', ['error', 'lost']],
    ['fails and answers of before', ['error', 'of before', 'error', 'lost']],
  ])('commands nothing that another has by now, where the database %s', async (_what, answers) => {
    const { lease, state, looked } = await woken(...answers);
    await looked;
    expect(state).toMatchObject({ on: true, offAfter: [], asked: answers.length });
    await expect(lease.makeSafe()).rejects.toBeInstanceOf(LostOwnership);
    expect(state.offAfter).toEqual([]);
    lease.close();
  });

  it('switches off what is still its own, and says why', async () => {
    const { lease, state, looked } = await woken('of before', 'mine');
    await looked;
    expect(state).toMatchObject({ on: false, offAfter: [2] });
    expect(lease.databaseGone).toBeNull();
    expect(lease.found()).toMatch(/^The server stood still for 10 s; loads were switched off\.$/);
    lease.close();
  });

  it.each<Answer>(['nothing', 'error', 'of before'])(
    'switches off where the database tells it nothing for so long: %s',
    async (answer) => {
      const { lease, state, looked } = await woken(answer);
      const began = performance.now();
      await looked;
      // Timers may come a millisecond early.
      expect(performance.now() - began).toBeGreaterThan(ANSWER_MILLISECONDS - 5);
      expect(state.on).toBe(false);
      expect(lease.databaseGone).not.toBeNull();
      lease.close();
    },
  );
});
