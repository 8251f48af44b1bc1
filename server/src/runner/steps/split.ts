// A combination: plugged in one after the other while the running ports are watched, then loaded to what each offers.
import { bestOffer, type SheetStep } from '@lastmark/core/plan';
import { fixed } from '@lastmark/core/quantity';
import { type Drop, dropIn } from '@lastmark/core/split';
import { newId } from '../../db/ids.ts';
import { storeReadOut } from '../../read-outs/store.ts';
import { storeRun } from '../../runs/store.ts';
import type { Bench } from '../task.ts';
import { StepFailed } from '../turns.ts';
import { sourceOf } from './point.ts';
import { readOutOf } from './read-out.ts';
import { freshLooks, setSupply, wait } from './set-up.ts';

/** Running ports draw this while another is plugged in: enough to be running, too little to hide behind an overload. */
const WATCH_AMPS = 0.3;
/** Running ports are watched so long, s. */
const WATCH_SECONDS = 5;
/** Looks farther apart than this would miss a drop, s: then nothing is said about it. */
const FINE_SECONDS = 0.4;

/** What a plug-in did to the ports that were running. */
async function watchJoin(bench: Bench, running: ReadonlyMap<string, number>, cause: string): Promise<Drop[]> {
  const { looks, rig, driver } = bench;
  const from = looks.seconds;
  await driver.join(cause);
  await wait(bench, WATCH_SECONDS, `${cause} plugged in`);
  return [...running].flatMap(([port, level]) => {
    const samples = looks.samples({ quantity: 'voltage', place: rig.outputPlace, port }, from);
    const span = (samples.at(-1)?.seconds ?? 0) - (samples[0]?.seconds ?? 0);
    if (samples.length < 5 || span / (samples.length - 1) > FINE_SECONDS) return [];
    return [{ port, cause, how: 'plugged' as const, ...dropIn(samples, level) }];
  });
}

export async function splitStep(bench: Bench, step: SheetStep): Promise<void> {
  const { driver, looks, rig } = bench;
  const { order, mains } = step;
  const [first] = order;
  if (!first || !mains) throw new StepFailed('The step names no ports or no supply.');
  await driver.off();
  await setSupply(bench, step);
  await driver.occupy([]);
  await wait(bench, 2, 'Everything unplugged');
  const running = new Map<string, number>();
  const drops: Drop[] = [];
  for (const port of order) {
    if (running.size === 0) {
      await driver.join(port);
      await wait(bench, 2, `${port} plugged in`);
    } else drops.push(...(await watchJoin(bench, running, port)));
    const best = bestOffer(await driver.words(port), port);
    if (!best)
      throw new StepFailed(
        `${port} offers nothing with ${[...running.keys()].join(' + ') || 'nothing else'} plugged in.`,
      );
    driver.forgetLevels();
    await driver.level(best, []);
    running.set(port, best.volts);
    await freshLooks(bench, { outputs: [best] }, `${port} at ${best.volts} V`, 1);
    for (const one of running.keys()) await driver.draw(one, WATCH_AMPS);
  }
  await driver.off();
  driver.forgetLevels();
  const outputs = [];
  const offered = new Map<string, readonly string[]>();
  for (const port of order) {
    const words = await driver.words(port);
    offered.set(port, words);
    const best = bestOffer(words, port);
    if (!best) throw new StepFailed(`${port} offers nothing with all plugged in.`);
    await driver.level(best, []);
    outputs.push(best);
  }
  await freshLooks(bench, { outputs }, 'Levels asked for', 1);
  for (const { port, amps } of outputs) await driver.draw(port, amps);
  await wait(bench, 5, 'All loaded');
  const from = await freshLooks(bench, { outputs }, 'Reading');
  const mean = (quantity: 'voltage' | 'current', port: string) =>
    looks.mean({ quantity, place: rig.outputPlace, port }, from)?.value ?? null;
  const shares = order.map((port) => ({
    port,
    volts: mean('voltage', port),
    amps: mean('current', port),
    light: false,
  }));
  const mainsWatts = looks.mean({ quantity: 'power', place: 'mains', port: null }, from)?.value ?? null;
  await driver.off();
  const positive = (value: number | null) => (value === null ? null : Math.max(0, Number(value.toFixed(5))));
  const cable = await driver.cableWords();
  await bench.db.transaction(async (tx) => {
    const id = newId();
    const madeIds = [id];
    // What each port offers in this state is a read-out of its own; alone it has one already.
    for (const [port, words] of order.length > 1 ? offered : []) {
      const readOut = readOutOf(
        bench,
        port,
        words,
        cable,
        order.filter((one) => one !== port),
      );
      await storeReadOut(tx, bench.run.sample.id, readOut);
      madeIds.push(readOut.id);
    }
    await storeRun(tx, bench.run.sample.id, {
      id,
      kind: 'split',
      port: first,
      rigId: rig.id,
      takenAt: new Date().toISOString(),
      note: sourceOf(bench),
      supersedes: null,
      withdrawn: false,
      order: [...order],
      mains,
      shares: shares.map((share) => ({ ...share, volts: positive(share.volts), amps: positive(share.amps) })),
      mainsWatts: positive(mainsWatts),
      evidence: 'load',
      drops,
    });
    const says = shares.map(({ port, volts, amps }) => `${port} ${fixed((volts ?? 0) * (amps ?? 0), 1)} W`).join(' · ');
    const broke = drops.filter(({ dropped }) => dropped).map(({ port, cause }) => `${port} dropped when ${cause} came`);
    await bench.finish(tx, { state: 'done', says: [says, ...broke].join(' · '), madeIds });
  });
}
