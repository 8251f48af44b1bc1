// A connection that is cut at the worst moment: what was on its way is there once, whichever side of the commit it was cut on.
import { type AddressInfo, createConnection, createServer, type Server, type Socket } from 'node:net';
import { sql } from 'drizzle-orm';
import { afterAll, afterEach, beforeAll, describe, expect, inject, it } from 'vitest';
import { type Connection, connect } from '../src/db/database.ts';
import { commits, turns } from '../src/db/schema.ts';
import { takeTurn } from '../src/leases/turn.ts';
import { type Harness, startHarness } from '../testing/harness.ts';

/** When a connection is cut: before the server is told of a commit, or once it has answered and nobody heard it. */
type Cut = 'before' | 'after' | 'every time before' | null;

let harness: Harness;
let relay: Server;
let cut: Cut = null;
let cuts = 0;
let through: Connection;
let alone: Connection;

/** First byte of a command that is SQL, after the four of its packet. */
const QUERY = 3;

/** Whether what a client sends is a commit: a command packet with that word and nothing else. */
const isCommit = (bytes: Buffer): boolean =>
  bytes[4] === QUERY && bytes.subarray(5).toString('latin1').toLowerCase() === 'commit';

function relayTo(port: number) {
  return (near: Socket) => {
    const far = createConnection({ host: '127.0.0.1', port });
    let answerIsLost = false;
    const end = () => {
      near.destroy();
      far.destroy();
    };
    near.on('data', (bytes) => {
      if (isCommit(bytes) && cut !== null) {
        cuts += 1;
        if (cut !== 'after') {
          if (cut === 'before') cut = null;
          end();
          return;
        }
        cut = null;
        answerIsLost = true;
      }
      far.write(bytes);
    });
    far.on('data', (bytes) => {
      if (answerIsLost) end();
      else near.write(bytes);
    });
    for (const socket of [near, far]) {
      socket.on('error', end);
      socket.on('close', end);
    }
  };
}

beforeAll(async () => {
  harness = await startHarness('lost_commits');
  await harness.pool.query('CREATE TABLE counted (id INT PRIMARY KEY, times INT NOT NULL)');
  await harness.pool.query('INSERT INTO counted VALUES (1, 0)');
  const { port } = new URL(inject('databaseUrl'));
  relay = createServer(relayTo(Number(port)));
  await new Promise<void>((resolve) => relay.listen(0, '127.0.0.1', resolve));
  const near = harness.url.replace(`:${port}/`, `:${(relay.address() as AddressInfo).port}/`);
  through = connect(`${near}?cluster=1`);
  alone = connect(near);
});
afterEach(() => {
  cut = null;
  cuts = 0;
});
afterAll(async () => {
  await through.pool.end();
  await alone.pool.end();
  relay.close();
  await harness.stop();
});

const times = async (): Promise<number> => {
  const [rows] = await harness.pool.query('SELECT times FROM counted WHERE id = 1');
  return (rows as { times: number }[])[0]?.times ?? Number.NaN;
};
const COUNT = sql`UPDATE counted SET times = times + 1 WHERE id = 1`;

describe('a transaction whose connection is cut', () => {
  it.each(['before', 'after'] as const)('%s its commit is there once, and its result is told', async (when) => {
    const before = await times();
    let worked = 0;
    cut = when;
    const result = await through.db.transaction(async (tx) => {
      worked += 1;
      await tx.execute(COUNT);
      return `the ${worked}.`;
    });
    expect(cuts).toBe(1);
    expect(await times()).toBe(before + 1);
    // Done again only where it was not done.
    expect([result, worked]).toEqual(when === 'before' ? ['the 2.', 2] : ['the 1.', 1]);
  });

  it('twice is there once all the same', async () => {
    const before = await times();
    cut = 'before';
    await through.db.transaction(async (tx) => {
      await tx.execute(COUNT);
      // The second try loses its answer.
      if (cuts === 1) cut = 'after';
    });
    expect([cuts, await times()]).toEqual([2, before + 1]);
  });

  it('is not done again where it failed for a reason of its own', async () => {
    const before = await times();
    let worked = 0;
    const failing = through.db.transaction(async (tx) => {
      worked += 1;
      await tx.execute(COUNT);
      throw new Error('No such sample.');
    });
    await expect(failing).rejects.toThrow('No such sample.');
    expect([worked, await times()]).toEqual([1, before]);
  });

  it('fails where there is one host only, and nobody says whether it was done', async () => {
    cut = 'after';
    await expect(alone.db.transaction((tx) => tx.execute(COUNT))).rejects.toThrow();
  });
});

describe('a statement by itself whose connection is cut', () => {
  it.each(['before', 'after'] as const)('%s its commit counts once', async (when) => {
    const before = await times();
    cut = when;
    await through.db.execute(COUNT);
    expect([cuts, await times()]).toEqual([1, before + 1]);
  });

  it('gives back what it changed, as it would have', async () => {
    cut = 'after';
    const [result] = await through.db.insert(turns).values({ what: 'once', owner: 'a', until: new Date() });
    expect(result.affectedRows).toBe(1);
    await expect(through.db.insert(turns).values({ what: 'once', owner: 'a', until: new Date() })).rejects.toThrow();
  });

  it('takes a turn that is had by one', async () => {
    cut = 'after';
    expect(await takeTurn(through.db, 'shared', 'one')).toBe(true);
    cut = 'before';
    expect(await takeTurn(through.db, 'shared', 'two')).toBe(false);
    expect(await takeTurn(harness.db, 'shared', 'one')).toBe(true);
  });
});

describe('marks', () => {
  it('are left by what writes on a cluster, and by nothing else', async () => {
    const count = async () => (await harness.db.select().from(commits)).length;
    const before = await count();
    await through.db.execute(sql`SELECT 1`);
    await harness.db.execute(COUNT);
    await harness.db.transaction((tx) => tx.execute(COUNT));
    expect(await count()).toBe(before);
    await through.db.execute(COUNT);
    await through.db.transaction((tx) => tx.execute(COUNT));
    expect(await count()).toBe(before + 2);
  });
});
