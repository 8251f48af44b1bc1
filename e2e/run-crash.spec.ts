// Kill -9 in the middle of a run, again and again: everything recorded is there, loads are off, the run goes on.

import { createConnection } from 'node:net';
import { type APIRequestContext, expect, test } from '@playwright/test';
import { NO_TIME } from '../server/testing/no-time.ts';
import { type SimulatedStage, withSimulatedBench } from './simulated.ts';

interface Run {
  id: string;
  state: string;
  says: string;
  stepId: string | null;
  outcomes: Record<string, { state: string; madeIds: string[] }>;
}

const TURNS = 3;

class Bench {
  constructor(
    private readonly request: APIRequestContext,
    private readonly stage: SimulatedStage,
  ) {}

  async get<T>(path: string): Promise<T> {
    return (await (await this.request.get(`${this.stage.url}/api${path}`)).json()) as T;
  }

  async post<T>(path: string, data: object): Promise<T> {
    const answer = await this.request.post(`${this.stage.url}/api${path}`, { data });
    expect(answer.ok(), await answer.text()).toBe(true);
    return (await answer.json()) as T;
  }

  /** What the load itself says, over its own wire. */
  async draws(): Promise<boolean> {
    const { items } = await this.get<{ items: { name: string; address: string }[] }>('/instruments');
    const port = Number(
      items
        .find(({ name }) => name === 'Simulated DC load')
        ?.address.split(':')
        .at(-1),
    );
    // Beside the server: its console only reads along while a run holds the load.
    return new Promise((resolve, reject) => {
      const socket = createConnection({ host: '127.0.0.1', port }, () => socket.write('INP?\n'));
      socket.on('error', reject);
      socket.once('data', (reply) => {
        socket.destroy();
        resolve(reply.toString().trim() === '1');
      });
    });
  }

  run = (id: string) => this.get<Run>(`/sheet-runs/${id}`);
  ask = (id: string, ask: object) => this.post<Run>(`/sheet-runs/${id}/asks`, { ask });
  /** Everything told, oldest first. */
  samples = async (id: string): Promise<{ at: number }[]> => {
    const told: { at: number }[] = [];
    let before: string | null = '';
    while (before !== null) {
      const part: { items: { at: number }[]; before: string | null } = await this.get(
        `/sheet-runs/${id}/trace${before ? `?before=${before}` : ''}`,
      );
      told.unshift(...part.items);
      before = part.before;
    }
    return told;
  };

  /** Start the demo's run, and go on until a load draws in a step after the first point. */
  async start(): Promise<string> {
    const { items } = await this.get<{ items: { id: string }[] }>('/samples?q=TE-45-0868');
    const run = await this.post<Run>(`/samples/${items[0]?.id}/simulated-runs`, {
      methodId: 'local-mains',
      person: 'Warden',
      speed: 300,
    });
    return run.id;
  }

  /** Be at the console of a run. Where only this machine had no time for it, it is gone on with. @returns its state, and what it says of it */
  async attend(id: string): Promise<{ state: string; says: string }> {
    await this.request.post(`${this.stage.url}/api/sheet-runs/${id}/here`, { data: {} });
    const stands = async () => {
      const { state, says } = await this.run(id);
      return { state, says };
    };
    const now = await stands();
    if ((now.state === 'held' || now.state === 'interrupted') && NO_TIME.test(now.says)) {
      // Once: a second word would be about whatever comes next.
      await this.ask(id, { kind: 'go on', person: 'Warden' });
      await expect.poll(stands, { timeout: 200_000 }).not.toEqual(now);
    }
    return now;
  }

  async untilDraws(id: string): Promise<void> {
    await expect(async () => {
      expect(await this.attend(id)).toMatchObject({ state: 'running' });
      expect(await this.draws()).toBe(true);
    }).toPass({ intervals: [50], timeout: 200_000 });
  }
}

test('a run survives kill -9 of the server and of the database', async ({ request }) => {
  await withSimulatedBench(1, async (stage) => {
    const bench = new Bench(request, stage);
    const id = await bench.start();
    for (let turn = 0; turn < TURNS; turn += 1) {
      await bench.untilDraws(id);
      await expect.poll(async () => (await bench.samples(id)).length).toBeGreaterThan(0);
      const before = await bench.run(id);
      const kept = await bench.samples(id);
      if (turn === 1) {
        await stage.killDatabase();
        // Away for longer than the run can go without noticing: it writes every half second.
        await new Promise((resolve) => setTimeout(resolve, 3000));
        await stage.restartDatabase();
      } else {
        await stage.killServer();
        await stage.restartServer();
      }
      await expect
        .poll(
          async () => {
            const { state, says } = await bench.run(id);
            return `${state}: ${says}`;
          },
          { timeout: 200_000, message: `turn ${turn}` },
        )
        .toMatch(/^interrupted/);
      expect(await bench.draws()).toBe(false);
      const after = await bench.run(id);
      expect(after.says).toContain('Loads are off');
      expect(after.stepId).not.toBeNull();
      // Every step that was done stays done with what it made, and everything told before is there.
      expect(after.outcomes).toMatchObject(before.outcomes);
      const now = await bench.samples(id);
      expect(now.slice(0, kept.length)).toEqual(kept);
      await bench.ask(id, { kind: 'go on', person: 'Warden' });
      await expect.poll(async () => (await bench.run(id)).state, { timeout: 200_000 }).toMatch(/running|done/);
      // It goes on at the step it was in, not after it.
      const again = await bench.run(id);
      expect(Object.keys(again.outcomes).length).toBeGreaterThanOrEqual(Object.keys(after.outcomes).length);
    }
    // And to its end.
    await expect(async () => {
      const now = await bench.attend(id);
      // A soak asks whether someone stays with it.
      if (now.state === 'waiting') await bench.ask(id, { kind: 'go on', person: 'Warden' });
      expect(now).toMatchObject({ state: 'done' });
    }).toPass({ intervals: [500], timeout: 250_000 });
    const end = await bench.run(id);
    expect(Object.values(end.outcomes).filter(({ state }) => state !== 'done')).toEqual([]);
    // No point was stored twice by a step that was repeated.
    const made = Object.values(end.outcomes).flatMap(({ madeIds }) => madeIds);
    expect(new Set(made).size).toBe(made.length);
    const { items } = await bench.get<{ items: { id: string }[] }>('/samples?q=TE-45-0868');
    const { points } = await bench.get<{ points: { id: string; readings: { source: string }[] }[] }>(
      `/samples/${items[0]?.id}/dossier`,
    );
    const byRun = points.filter(({ readings }) => readings[0]?.source.startsWith('run "'));
    expect(byRun.map((point) => point.id).sort()).toEqual(
      made.filter((one) => byRun.some((point) => point.id === one)).sort(),
    );
  });
});
