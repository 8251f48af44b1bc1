// A load point: set, wait, settle, read, store.
import { type PointStep, type SheetStep, settleUnder, settling, stepSeconds, warmUpBefore } from '@lastmark/core/plan';
import { fixed, type QuantityId } from '@lastmark/core/quantity';
import type { Place, Taken } from '@lastmark/core/reading';
import { newId } from '../../db/ids.ts';
import { storePoints, type TakenReading } from '../../readings/store.ts';
import { loadingFor } from '../../setups/store.ts';
import type { Hands } from '../hands.ts';
import type { Mean } from '../looks.ts';
import { StepFailed } from '../turns.ts';
import { freshLooks, type LoadedStep, setUp, wait } from './set-up.ts';

/** Where readings of a run say they come from. */
export const sourceOf = ({ run }: Hands): string => `run "${run.title}"`.slice(0, 250);

const UNITS: Readonly<Partial<Record<QuantityId, string>>> = {
  voltage: ' V',
  current: ' A',
  power: ' W',
  energy: ' J',
  duration: ' s',
  'power-factor': '',
};

/** A mean as a reading, written out in full. */
export function takenReading(
  quantity: QuantityId,
  place: Place,
  port: string | null,
  mean: Pick<Mean, 'value' | 'count' | 'spread'>,
): TakenReading {
  return {
    id: newId(),
    quantity,
    place,
    port,
    typed: `${mean.value.toFixed(6)}${UNITS[quantity] ?? ''}`,
    count: mean.count,
    spread: mean.spread,
  };
}

/** How often it is judged whether the input has settled, ms. */
const JUDGE_MILLISECONDS = 200;

interface Rested {
  /** From when on the looks count, s. */
  readonly from: number;
  readonly how: string;
  readonly rest: Taken['rest'];
}

/** Wait until the input has settled, or until it has been averaged long enough. */
async function settle(hands: Hands, step: PointStep): Promise<Rested> {
  const rule = settleUnder(step.settle, hands.run.conditions);
  if (!rule) return { from: await freshLooks(hands, step, 'Reading'), how: '', rest: null };
  const begun = hands.looks.begin();
  let now = settling([], rule);
  let early = false;
  let judged = Number.NEGATIVE_INFINITY;
  await hands.until(
    () => {
      early ||= hands.recordNow();
      // Thousands of looks are gone through: a few times a second is plenty.
      if (performance.now() - judged >= JUDGE_MILLISECONDS) {
        judged = performance.now();
        now = settling(hands.looks.input(begun), rule);
      }
      return now.done || (early && now.drift !== null);
    },
    () => ({
      doing: now.drift === null ? 'Settling' : `Settling: drift ${fixed(now.drift * 100, 2)} %`,
      share: now.share,
      left: Math.max(0, rule.over - (hands.looks.seconds - begun)),
    }),
  );
  const drift = fixed((now.drift ?? 0) * 100, 2);
  if (!now.done) {
    const from = Math.max(begun, now.from);
    return {
      from,
      how: `recorded by hand before it settled, drift ${drift} %`,
      rest: { drift: now.drift, over: hands.looks.seconds - from, averaged: false },
    };
  }
  return now.averaged
    ? {
        from: now.from,
        how: `averaged over ${fixed(rule.average / 60, 0)} min, drift ${drift} %`,
        rest: { drift: now.drift, over: rule.average, averaged: true },
      }
    : {
        from: now.from,
        how: `settled, drift ${drift} %`,
        rest: { drift: now.drift, over: rule.over, averaged: false },
      };
}

/** How a point is taken, for the record: warm-up, rest, and the supply as the meters saw it. */
export async function takenOf(hands: Hands, step: SheetStep, from: number, rest: Taken['rest']): Promise<Taken> {
  const { run, looks, driver } = hands;
  const volts = looks.mean({ quantity: 'voltage', place: 'mains', port: null }, from)?.value ?? null;
  const { hertz, distortion } = await driver.supply();
  return {
    warmUp: warmUpBefore(run.steps, hands.outcomes(), step),
    rest,
    source: { volts, hertz, distortion, crest: null },
  };
}

/** Everything the rig reads of a step since a time. */
export function readingsSince(hands: Hands, step: LoadedStep, from: number): TakenReading[] {
  const { looks, rig } = hands;
  const place = rig.outputPlace;
  const spots: [QuantityId, Place, string | null, Mean | null][] = [];
  // Without load the input is idle draw, and that is another station's reading.
  if (step.load > 0) {
    for (const quantity of ['power', 'power-factor'] as const)
      spots.push([quantity, 'mains', null, looks.mean({ quantity, place: 'mains', port: null }, from)]);
  }
  for (const { port } of step.outputs) {
    spots.push(['voltage', place, port, looks.mean({ quantity: 'voltage', place, port }, from)]);
    if (step.load > 0) {
      spots.push(['current', place, port, looks.mean({ quantity: 'current', place, port }, from)]);
      spots.push(['power', place, port, looks.watts(port, from)]);
    }
    if (place === 'port' && rig.meters.loadEnd && step.load > 0)
      spots.push(['voltage', 'load-end', port, looks.mean({ quantity: 'voltage', place: 'load-end', port }, from)]);
  }
  return spots.flatMap(([quantity, where, port, mean]) => (mean ? [takenReading(quantity, where, port, mean)] : []));
}

/** Outcome in a sentence: the outputs, then the input. */
export function saysOf(readings: readonly TakenReading[], how: string): string {
  const value = (quantity: QuantityId, place: Place, port: string | null) => {
    const found = readings.find((one) => one.quantity === quantity && one.place === place && one.port === port);
    return found ? Number.parseFloat(found.typed) : null;
  };
  const ports = [...new Set(readings.flatMap(({ port }) => (port === null ? [] : [port])))];
  const outputs = ports.map((port) => {
    const volts = value('voltage', 'port', port) ?? value('voltage', 'load-end', port);
    const amps = value('current', 'port', port) ?? value('current', 'load-end', port);
    return `${port} ${volts === null ? '' : `${fixed(volts, 3)} V`}${amps === null ? '' : ` ${fixed(amps, 3)} A`}`;
  });
  const input = value('power', 'mains', null);
  return [...outputs, ...(input === null ? [] : [`input ${fixed(input, 3)} W`]), ...(how ? [how] : [])].join(' · ');
}

export async function pointStep(hands: Hands, step: PointStep): Promise<void> {
  await setUp(hands, step, stepSeconds(step));
  await wait(hands, step.dwell, step.load > 0 ? 'Load on' : 'No load');
  const { from, how, rest } = await settle(hands, step);
  const readings = readingsSince(hands, step, from);
  if (readings.length === 0) throw new StepFailed('The meters of the rig told nothing about this point.');
  const taken = await takenOf(hands, step, from, rest);
  const sampleId = hands.run.sample.id;
  await hands.db.transaction(async (tx) => {
    const setup = await loadingFor(tx, sampleId, step.outputs, hands.rig.id, step.station);
    const id = newId();
    await storePoints(
      tx,
      sampleId,
      [
        {
          id,
          setupId: setup.id,
          mains: step.mains,
          load: step.load,
          attached: 'nothing',
          rigId: hands.rig.id,
          takenAt: new Date().toISOString(),
          taken,
          readings,
        },
      ],
      sourceOf(hands),
    );
    await hands.finish(tx, { state: 'done', says: saysOf(readings, how), madeIds: [id] });
  });
}
