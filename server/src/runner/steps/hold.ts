// Warm-up and hold: rated load for a long time, watched for a cut-off, a dropped level, or power folding back.

import type { LongStep } from '@lastmark/core/plan';
import type { HoldRun } from '@lastmark/core/proof';
import { fixed, formatPlain } from '@lastmark/core/quantity';
import { newId } from '../../db/ids.ts';
import { storeRun } from '../../runs/store.ts';
import type { Hands } from '../hands.ts';
import type { Mean } from '../looks.ts';
import { sourceOf } from './point.ts';
import { outputGone, setUp, wait } from './set-up.ts';

/** Output counts as settled for the comparison after this long, s. */
const BEGIN_SECONDS = 20;
/** A fold-back is a drop of this part of the power … */
const FOLD_BACK = 0.03;
/** … that lasts so long, s. */
const LASTING_SECONDS = 60;

type End = HoldRun['end'];

/** What the ports gave over the whole hold: extremes of their power and the energy together. */
function given({ looks }: Hands, { outputs }: LongStep, begun: number, level: number): string[] {
  const sum = (from: number, of: (mean: Mean) => number) => {
    const watts = outputs.map(({ port }) => looks.watts(port, from));
    return watts.reduce<number | null>((total, one) => (total === null || !one ? null : total + of(one)), 0);
  };
  const [least, most] = [sum(level, (one) => one.least), sum(level, (one) => one.most)];
  const joules = sum(begun, ({ area }) => area);
  if (least === null || most === null || joules === null) return [];
  return [`${fixed(least, 1)} to ${fixed(most, 1)} W`, `${fixed(joules / 3600, 2)} Wh given`];
}

export async function holdStep(hands: Hands, step: LongStep): Promise<void> {
  const { looks } = hands;
  await setUp(hands, step);
  const begun = looks.begin();
  await wait(hands, Math.min(BEGIN_SECONDS, step.dwell / 2), 'Load on');
  const level = looks.begin();
  const place = hands.rig.outputPlace;
  const output = () =>
    step.outputs.reduce((sum, { port }) => {
      const volts = looks.newest({ quantity: 'voltage', place, port }) ?? 0;
      return sum + volts * (looks.newest({ quantity: 'current', place, port }) ?? 0);
    }, 0);
  const full = output();
  let end = 'held to the end' as End;
  let lowSince: number | null = null;
  const passed = () => looks.seconds - begun;
  await hands.until(
    () => {
      end = outputGone(hands, step) ?? 'held to the end';
      if (end !== 'held to the end') return true;
      if (output() > full * (1 - FOLD_BACK)) lowSince = null;
      else lowSince ??= looks.seconds;
      if (lowSince !== null && looks.seconds - lowSince >= LASTING_SECONDS) {
        end = 'folded back';
        return true;
      }
      return passed() >= step.dwell || hands.recordNow();
    },
    () => ({
      doing: step.kind === 'warm-up' ? 'Warming up' : 'Holding',
      share: Math.min(1, passed() / step.dwell),
      left: Math.max(0, step.dwell - passed()),
    }),
  );
  const held = lowSince !== null && end === 'folded back' ? lowSince - begun : passed();
  const { room, hottest } = looks.heat();
  const after = output();
  const says = [
    `${end} after ${fixed(held / 60, 1)} min`,
    ...given(hands, step, begun, level),
    ...(hottest === null ? [] : [`hottest ${formatPlain(hottest, 'temperature')}`]),
  ].join(', ');
  // A warm-up that went as planned is no finding; anything else is.
  if (step.kind === 'warm-up' && end === 'held to the end') {
    await hands.finish(hands.db, { state: 'done', says, seconds: held, madeIds: [] });
    return;
  }
  const [first, ...others] = step.outputs;
  if (!first) return;
  await hands.db.transaction(async (tx) => {
    const id = newId();
    await storeRun(tx, hands.run.sample.id, {
      id,
      kind: 'hold',
      port: first.port,
      rigId: hands.rig.id,
      takenAt: new Date().toISOString(),
      note: sourceOf(hands),
      supersedes: null,
      withdrawn: false,
      volts: first.volts,
      amps: Number((first.amps * step.load).toFixed(4)),
      others: others.map((one) => ({ ...one, amps: Number((one.amps * step.load).toFixed(4)) })),
      planned: step.dwell,
      held: end === 'held to the end' ? Math.max(held, step.dwell) : Math.min(held, step.dwell - 1),
      end,
      hottest,
      ambient: room,
      after: end === 'folded back' ? after : null,
    });
    await hands.finish(tx, { state: 'done', says, seconds: held, madeIds: [id] });
  });
}
