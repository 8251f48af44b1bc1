// Combinations of the Fernwall chargers, swept on the physics of the simulated bench.
import { CABLES, CHARGERS, HandClock, named, SimulatedBench } from '@lastmark/bench/sim';
import type { RunInput } from '@lastmark/contract';
import { usableAmps, voltsOf } from '@lastmark/core/pd';
import { type Drop, dropIn, plugOrder, sweepSets } from '@lastmark/core/split';
import { newId } from '../db/ids.ts';
import { addRun } from '../runs/store.ts';
import type { DemoWork } from './shelf.ts';
import { meter } from './simulate.ts';

/** Serial, model on the simulated bench, and how much of the sweep was done. */
const SWEPT: readonly {
  readonly serial: string;
  readonly charger: string;
  readonly part: number;
  /** Swept warm: from a power on it holds only a part of it. */
  readonly warm?: { readonly from: number; readonly holds: number };
}[] = [
  { serial: 'PT-75-3310', charger: 'Trio 75', part: 1, warm: { from: 74, holds: 0.945 } },
  { serial: 'GQ-20931', charger: 'Quad 130', part: 1 },
  { serial: 'M6-1177', charger: 'Six 210', part: 0.5 },
];

/** s between two looks at a running port. */
const LOOK = 0.05;

interface Swept {
  readonly order: readonly string[];
  readonly shares: readonly { readonly port: string; readonly volts: number; readonly amps: number }[];
  readonly watts: number;
  readonly drops: readonly Drop[];
}

function bestLevel(bench: SimulatedBench, port: string) {
  return bench
    .offers(port)
    .map((object, index) => ({ object, position: index + 1, volts: voltsOf(object)?.high ?? 0 }))
    .filter(({ object }) => object.kind === 'fixed')
    .sort((a, b) => b.volts * usableAmps(b.object, b.volts) - a.volts * usableAmps(a.object, a.volts))
    .find(({ position }) => bench.request(port, position, null));
}

/** One combination: plugged in one after the other, watched, then loaded with all it offers. */
function sweepOne(charger: string, order: readonly string[]): Swept | null {
  const truth = named(CHARGERS, charger);
  const [cable] = CABLES;
  if (!truth || !cable) return null;
  const clock = new HandClock();
  const bench = new SimulatedBench(truth, cable, clock);
  bench.setSupply({ on: true });
  const drops: Drop[] = [];
  const running = new Map<string, number>();
  for (const port of order) {
    const seen = new Map([...running.keys()].map((one) => [one, [] as { seconds: number; volts: number }[]]));
    const look = () => {
      for (const [one, samples] of seen) samples.push({ seconds: clock.now(), volts: bench.port(one).volts });
      clock.advance(LOOK);
    };
    // Looked at before something happens, too.
    look();
    bench.plug(port, true);
    for (let at = 0; at < 4; at += LOOK) look();
    for (const [one, samples] of seen)
      drops.push({ port: one, cause: port, how: 'plugged', ...dropIn(samples, running.get(one) ?? 5) });
    running.set(port, bestLevel(bench, port)?.volts ?? 5);
    clock.advance(1);
  }
  for (const port of order) {
    const best = bestLevel(bench, port);
    if (best) bench.setLoad(port, { amps: usableAmps(best.object, best.volts), on: true });
  }
  clock.advance(5);
  return {
    order,
    shares: order.map((port) => ({ port, volts: bench.port(port).volts, amps: bench.port(port).amps })),
    watts: bench.input().watts,
    drops,
  };
}

/** Sweep what was swept of one charger and keep it as runs. */
const seed: DemoWork['seed'] = async ({ db, rigs, moment }, sampleId, serial, random) => {
  const plan = SWEPT.find((one) => one.serial === serial);
  if (!plan) return;
  const { charger, part, warm } = plan;
  const rigId = rigs.proof;
  const ports = named(CHARGERS, charger)?.ports.map(({ label }) => label) ?? [];
  const { sets } = sweepSets(ports);
  const volts = meter(random, 0.03, 0.0008, 3);
  const amps = meter(random, 0.1, 0.0008, 3);
  const watts = meter(random, 0.2, 0.02, 2);
  for (const set of sets.slice(0, Math.ceil(sets.length * part))) {
    const order = plugOrder(set);
    const swept = sweepOne(charger, order);
    const [first] = order;
    if (!swept || !first) continue;
    const given = swept.shares.reduce((sum, share) => sum + share.volts * share.amps, 0);
    const held = warm && given >= warm.from ? warm.holds : 1;
    const run: RunInput = {
      id: newId(),
      kind: 'split',
      port: first,
      rigId,
      takenAt: moment(),
      note: '',
      supersedes: null,
      withdrawn: false,
      order: [...swept.order],
      mains: { kind: 'ac', volts: 230, hertz: 50 },
      shares: swept.shares.map((share) => ({
        port: share.port,
        volts: Number(volts(share.volts)),
        amps: Number(amps(share.amps * held)),
        light: false,
      })),
      mainsWatts: Number(watts(swept.watts * held)),
      evidence: 'load',
      drops: swept.drops.map((drop) => ({
        ...drop,
        seconds: drop.seconds === null ? null : Number(drop.seconds.toFixed(2)),
        lowest: drop.lowest === null ? null : Number(drop.lowest.toFixed(2)),
      })),
    };
    await addRun(db, sampleId, run);
  }
};

export const SPLITS: DemoWork = { serials: SWEPT.map(({ serial }) => serial), seed };
