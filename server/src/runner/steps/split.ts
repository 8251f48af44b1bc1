// A combination: plugged in one after the other while the running ports are watched, loaded to what each offers, pairs once
// more with one loaded a little, and the last pulled again.
import type { RunInput } from '@lastmark/contract';
import { bestOffer, type SplitStep } from '@lastmark/core/plan';
import { fixed } from '@lastmark/core/quantity';
import type { Output } from '@lastmark/core/reading';
import { type Drop, dropIn } from '@lastmark/core/split';
import { newId } from '../../db/ids.ts';
import { storeReadOut } from '../../read-outs/store.ts';
import { storeRun } from '../../runs/store.ts';
import type { Hands } from '../hands.ts';
import { offersNothing } from '../silences.ts';
import { Silent, StepFailed } from '../turns.ts';
import { sourceOf } from './point.ts';
import { type Answered, readOutOf } from './read-out.ts';
import { freshLooks, levelShown, setSupply, wait } from './set-up.ts';

/** Running ports draw this while another is plugged in: enough to be running, too little to hide behind an overload. */
const WATCH_AMPS = 0.3;
/** Running ports are watched so long, s. */
const WATCH_SECONDS = 5;
/** Measurements farther apart than this would miss a drop, s: then only one that was seen is told. */
const FINE_SECONDS = 0.4;
const ALL_LOADED_SECONDS = 5;
const SILENT_VOLTS = 1;

/** What an event did to the ports that were running. */
async function watchEvent(
  hands: Hands,
  running: ReadonlyMap<string, number>,
  cause: string,
  how: Drop['how'],
): Promise<Drop[]> {
  const { looks, rig, driver } = hands;
  const { mark } = looks;
  if (how === 'plugged') await driver.join(cause);
  else await driver.leave(cause);
  await wait(hands, WATCH_SECONDS, `${cause} ${how === 'plugged' ? 'plugged in' : 'unplugged'}`);
  return [...running].flatMap(([port, level]) => {
    const samples = looks
      .measurements({ quantity: 'voltage', place: rig.outputPlace, port }, mark)
      .map(({ seconds, value }) => ({ seconds, volts: value }));
    const span = (samples.at(-1)?.seconds ?? 0) - (samples[0]?.seconds ?? 0);
    const seen = dropIn(samples, level);
    // What a slow meter saw is there; what it did not see may have been.
    if (!seen.dropped && (samples.length < 5 || span / (samples.length - 1) > FINE_SECONDS)) return [];
    return [{ port, cause, how, ...seen }];
  });
}

/** Plug the ports in one after the other, each running at its best level when the next comes. */
async function plugIn(hands: Hands, order: readonly string[]): Promise<Drop[]> {
  const { driver } = hands;
  const running = new Map<string, number>();
  const drops: Drop[] = [];
  for (const port of order) {
    if (running.size === 0) {
      await driver.join(port);
      await wait(hands, 2, `${port} plugged in`);
    } else drops.push(...(await watchEvent(hands, running, port, 'plugged')));
    const best = bestOffer(await driver.analyser.words(port), port);
    if (!best)
      return offersNothing(hands, port, ` with ${[...running.keys()].join(' + ') || 'nothing else'} plugged in`);
    driver.forgetLevels();
    await driver.level(best, []);
    running.set(port, best.volts);
    await levelShown(hands, { outputs: [best] });
    for (const one of running.keys()) await driver.draw(one, WATCH_AMPS);
  }
  await driver.off();
  driver.forgetLevels();
  return drops;
}

interface Offered {
  readonly outputs: readonly Output[];
  /** What each port answered, as it stands with all plugged in. */
  readonly answers: ReadonlyMap<string, Answered>;
}

/** Load every port with all it offers in this state; some only lightly. */
async function loadAll(hands: Hands, { id, order, mains }: SplitStep, light: readonly string[]): Promise<Offered> {
  const { driver, outputs: watch } = hands;
  const outputs: Output[] = [];
  const answers = new Map<string, Answered>();
  for (const port of order) {
    const words = await driver.analyser.words(port);
    answers.set(port, { words, info: await driver.analyser.info(port) });
    const best = bestOffer(words, port);
    if (!best) return offersNothing(hands, port, ' with all plugged in');
    await driver.level(best, []);
    outputs.push(best);
  }
  await levelShown(hands, { outputs });
  for (const { port, amps } of outputs) await driver.draw(port, light.includes(port) ? WATCH_AMPS : amps);
  const asked = outputs.map((one) => ({ ...one, amps: light.includes(one.port) ? WATCH_AMPS : one.amps }));
  // A port that fell silent in this very set and was proved alone since: that is how the set is, and is read as such.
  if (!watch.silentIn(id)) watch.expect({ outputs: asked, load: 1, mains }, ALL_LOADED_SECONDS);
  await wait(hands, ALL_LOADED_SECONDS, light.length > 0 ? `${light.join(', ')} loaded a little` : 'All loaded');
  return { outputs, answers };
}

/** All silent is no set that shares in its own way: the charger is off. */
function notAllSilent({ shares }: Taken): void {
  const told = shares.flatMap(({ port, volts }) => (volts === null ? [] : [{ port, volts }]));
  if (told.length > 0 && told.every(({ volts }) => volts < SILENT_VOLTS))
    throw new Silent(
      told.map(({ port }) => port),
      'cut off',
      `${told.map(({ port }) => port).join(' + ')} cut off, all loaded.`,
    );
}

type Taken = Pick<RunInput & { kind: 'split' }, 'shares' | 'mainsWatts'>;

/** Read every port and the socket. */
async function readAll(hands: Hands, outputs: readonly Output[], light: readonly string[]): Promise<Taken> {
  const { looks, rig } = hands;
  const from = await freshLooks(hands, { outputs }, 'Reading');
  const positive = (value: number | undefined) => (value === undefined ? null : Math.max(0, Number(value.toFixed(5))));
  const mean = (quantity: 'voltage' | 'current', port: string) =>
    positive(looks.mean({ quantity, place: rig.outputPlace, port }, from)?.value);
  return {
    shares: outputs.map(({ port }) => ({
      port,
      volts: mean('voltage', port),
      amps: mean('current', port),
      light: light.includes(port),
    })),
    mainsWatts: positive(looks.mean({ quantity: 'power', place: 'mains', port: null }, from)?.value),
  };
}

export async function splitStep(hands: Hands, step: SplitStep): Promise<void> {
  const { driver, rig } = hands;
  const { order, mains } = step;
  const [first] = order;
  const last = order.at(-1);
  if (!first || !last) throw new StepFailed('The step names no ports.');
  await driver.off();
  await setSupply(hands, step);
  await driver.occupy([]);
  await wait(hands, 2, 'Everything unplugged');
  const drops = await plugIn(hands, order);
  const { outputs, answers } = await loadAll(hands, step, []);
  const taken = [{ ...(await readAll(hands, outputs, [])), drops }];
  for (const one of taken) notAllSilent(one);
  if (order.length === 2) {
    // Whether the other then gets more tells whether shares follow what is drawn.
    hands.outputs.rest();
    await driver.off();
    const soft = await loadAll(hands, step, [last]);
    taken.push({ ...(await readAll(hands, soft.outputs, [last])), drops: [] });
  }
  hands.outputs.rest();
  if (order.length > 1) {
    for (const { port } of outputs) await driver.draw(port, WATCH_AMPS);
    const left = new Map(outputs.filter(({ port }) => port !== last).map(({ port, volts }) => [port, volts]));
    drops.push(...(await watchEvent(hands, left, last, 'unplugged')));
  }
  await driver.off();
  const cable = await driver.analyser.cableWords();
  await hands.db.transaction(async (tx) => {
    const madeIds: string[] = [];
    // What each port offers in this state is a read-out of its own; alone it has one already.
    for (const [port, answered] of order.length > 1 ? answers : []) {
      const others = order.filter((one) => one !== port);
      const readOut = readOutOf(hands, port, answered, cable, others);
      await storeReadOut(tx, hands.run.sample.id, readOut);
      madeIds.push(readOut.id);
    }
    for (const part of taken) {
      const id = newId();
      madeIds.push(id);
      await storeRun(tx, hands.run.sample.id, {
        ...part,
        id,
        kind: 'split',
        port: first,
        rigId: rig.id,
        takenAt: new Date().toISOString(),
        note: sourceOf(hands),
        supersedes: null,
        withdrawn: false,
        order: [...order],
        mains,
        evidence: 'load',
      });
    }
    const says = (taken[0]?.shares ?? [])
      .map(({ port, volts, amps }) => `${port} ${fixed((volts ?? 0) * (amps ?? 0), 1)} W`)
      .join(' · ');
    const broke = drops
      .filter(({ dropped }) => dropped)
      .map(({ port, cause, how }) => `${port} dropped when ${cause} ${how === 'plugged' ? 'came' : 'went'}`);
    const silent = (taken[0]?.shares ?? [])
      .filter(({ volts }) => volts !== null && volts < SILENT_VOLTS)
      .map(({ port }) => `${port} gives nothing in this set; alone it does.`);
    const found = silent.length > 0;
    const gone = (taken[0]?.shares ?? []).filter(({ volts }) => volts !== null && volts < SILENT_VOLTS);
    hands.saw({ dropped: [...new Set([...drops.filter((one) => one.dropped), ...gone].map(({ port }) => port))] });
    await hands.finish(tx, { state: 'done', says: [says, ...broke, ...silent].join(' · '), found, madeIds });
  });
}
