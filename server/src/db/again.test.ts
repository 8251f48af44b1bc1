import { describe, expect, it } from 'vitest';
import { again, collided, isGone } from './again.ts';

const failure = (code: string) => Object.assign(new Error(code), { code });
/** As the driver tells of a connection that is gone. */
const broken = (code: string) => Object.assign(failure(code), { fatal: true });
/** As a query builder wraps what the driver says. */
const wrapped = (error: Error) => new Error('Failed query', { cause: error });

describe('what failed for no reason of its own', () => {
  it('is done again: beside something else always, without its host where there is another', async () => {
    for (const [cluster, error] of [
      [false, failure('ER_LOCK_DEADLOCK')],
      [true, wrapped(failure('ER_LOCK_DEADLOCK'))],
      [true, broken('ECONNREFUSED')],
      [true, wrapped(broken('PROTOCOL_CONNECTION_LOST'))],
      [true, failure('ER_UNKNOWN_COM_ERROR')],
      [true, Object.assign(new Error('in closed state'), { fatal: true })],
    ] as const) {
      const tries: number[] = [];
      const result = await again(cluster, async (attempt) => {
        tries.push(attempt);
        if (attempt < 2) throw error;
        return 'done';
      });
      expect([result, tries]).toEqual(['done', [0, 1, 2]]);
    }
  });

  it('is not done again where it failed for one, or where there is one host only', async () => {
    for (const [cluster, code] of [
      [true, 'ER_DUP_ENTRY'],
      [true, 'ER_PARSE_ERROR'],
      [true, 'ECONNREFUSED'],
      [false, 'ECONNREFUSED'],
      [false, 'ER_UNKNOWN_COM_ERROR'],
      [false, 'ER_LOCK_WAIT_TIMEOUT'],
    ] as const) {
      let tries = 0;
      const work = async () => {
        tries += 1;
        throw failure(code);
      };
      await expect(again(cluster, work), code).rejects.toThrow(code);
      expect(tries, code).toBe(1);
    }
  });

  it('is given up in the end where it goes on colliding', async () => {
    let tries = 0;
    const work = async () => {
      tries += 1;
      throw failure('ER_LOCK_DEADLOCK');
    };
    await expect(again(true, work)).rejects.toThrow('ER_LOCK_DEADLOCK');
    expect(tries).toBe(8);
  });

  it('is told from what is', () => {
    expect(isGone(wrapped(broken('ECONNRESET')))).toBe(true);
    // Of an instrument, or of the lab's own sign-in.
    expect(isGone(failure('ECONNREFUSED'))).toBe(false);
    expect(isGone(failure('ER_DUP_ENTRY'))).toBe(false);
    expect(isGone(Object.assign(failure('ER_ACCESS_DENIED_ERROR'), { fatal: true }))).toBe(false);
    expect(isGone('ECONNRESET')).toBe(false);
    expect(isGone(null)).toBe(false);
    expect(collided(wrapped(failure('ER_CHECKREAD')))).toBe(true);
  });
});
