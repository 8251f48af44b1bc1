// Warm-up and hold: rated load for a long time, watched for a cut-off, a dropped level, or power folding back.

import type { LongStep } from '@lastmark/core/plan';
import type { HoldRun } from '@lastmark/core/proof';
import { fixed, formatPlain } from '@lastmark/core/quantity';
import { newId } from '../../db/ids.ts';
import { storeRun } from '../../runs/store.ts';
import type { Hands } from '../hands.ts';
import type { Mean } from '../looks.ts';
import { Silent, StepFailed } from '../turns.ts';
import { sourceOf } from './point.ts';
import { setUp } from './set-up.ts';

/** Output counts as settled for the comparison after this long, s. */
const BEGIN_SECONDS = 20;
/** A fold-back is a drop of this part of the power … */
const FOLD_BACK = 0.03;
/** … that lasts so long, s. */
const LASTING_SECONDS = 60;
/** … and over so many looks. */
const LASTING_LOOKS = 10;

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

interface Course {
  readonly end: End;
  /** Time it held, s. */
  readonly held: number;
  /** Power at the end, W. */
  readonly after: number;
  /** Why it ended early: an output that is gone. */
  readonly silent: Silent | null;
  readonly given: readonly string[];
}

/** Load on until its time is over, someone records, or it gives way. */
async function watchHold(hands: Hands, step: LongStep): Promise<Course> {
  const { looks } = hands;
  const begun = looks.begin();
  const place = hands.rig.outputPlace;
  const output = () =>
    step.outputs.reduce((sum, { port }) => {
      const volts = looks.newest({ quantity: 'voltage', place, port }) ?? 0;
      return sum + volts * (looks.newest({ quantity: 'current', place, port }) ?? 0);
    }, 0);
  let low: { readonly seconds: number; readonly mark: number } | null = null;
  let full: number | null = null;
  let level = begun;
  let folded = false;
  let silent: Silent | null = null;
  const passed = () => looks.seconds - begun;
  const settled = Math.min(BEGIN_SECONDS, step.dwell / 2);
  const isLow = (since: typeof low): boolean =>
    since !== null &&
    looks.seconds - since.seconds >= LASTING_SECONDS &&
    // Where the bench's clock runs fast a minute may be one look.
    looks.after({ quantity: 'voltage', place, port: step.outputs[0]?.port ?? null }, since.mark).count >= LASTING_LOOKS;
  try {
    await hands.until(
      () => {
        if (full === null && passed() >= settled) {
          level = looks.begin();
          full = output();
        }
        if (full === null || output() > full * (1 - FOLD_BACK)) low = null;
        else low ??= { seconds: looks.seconds, mark: looks.mark };
        folded = isLow(low);
        return folded || passed() >= step.dwell || hands.recordNow();
      },
      () => ({
        doing: step.kind === 'warm-up' ? 'Warming up' : 'Holding',
        share: Math.min(1, passed() / step.dwell),
        left: Math.max(0, step.dwell - passed()),
      }),
    );
  } catch (error) {
    if (!(error instanceof Silent)) throw error;
    silent = error;
  }
  const since = low as { readonly seconds: number } | null;
  return {
    end: silent?.how ?? (folded ? 'folded back' : 'held to the end'),
    held: folded && since ? since.seconds - begun : passed(),
    after: output(),
    silent,
    given: given(hands, step, begun, level),
  };
}

export async function holdStep(hands: Hands, step: LongStep): Promise<void> {
  await setUp(hands, step, step.dwell);
  const { end, held, after, silent, given: gave } = await watchHold(hands, step);
  // A warm-up that broke off is not done: the run holds or the step fails, and what happened is kept as found.
  if (silent && step.kind === 'warm-up') throw silent;
  const { room, hottest } = hands.looks.heat();
  const says = [
    `${end} after ${fixed(held / 60, 1)} min`,
    ...gave,
    ...(hottest === null ? [] : [`hottest ${formatPlain(hottest, 'temperature')}`]),
  ].join(', ');
  const [first, ...others] = step.outputs;
  if (!first) throw new StepFailed('The step names no ports.');
  const whole = end === 'held to the end';
  const madeIds = [newId()];
  await hands.db.transaction(async (tx) => {
    await storeRun(tx, hands.run.sample.id, {
      id: madeIds[0] ?? '',
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
      // Recorded by hand before its time: it held as long as it was asked to.
      planned: whole ? Math.min(held, step.dwell) : Math.max(step.dwell, held + 1),
      held: whole ? Math.min(held, step.dwell) : held,
      end,
      hottest,
      ambient: room,
      after: end === 'folded back' ? after : null,
    });
    const state = whole || step.kind === 'hold' ? 'done' : 'failed';
    await hands.finish(tx, { state, says, found: !whole, seconds: held, madeIds });
  });
  // What comes next may rely on an output that is gone.
  if (silent?.how === 'cut off') throw new Silent(silent.ports, silent.how, silent.message, null, true);
}
