// Records something against time by itself: with the scope, or from what the meters tell while the supply is moved.
import {
  type CaptureHead,
  type CaptureKind,
  captureFigures,
  captureSays,
  evenly,
  type Trace,
} from '@lastmark/core/capture';
import { type CaptureStep, DIP_TO, SWEEP_LOWEST } from '@lastmark/core/plan';
import { fixed } from '@lastmark/core/quantity';
import { storeCapture, writeCapture } from '../../captures/store.ts';
import { newId } from '../../db/ids.ts';
import { loadingFor } from '../../setups/store.ts';
import type { Hands } from '../hands.ts';
import type { Spot } from '../looks.ts';
import { mustGive } from '../silences.ts';
import { Silent, StepFailed } from '../turns.ts';
import { sourceOf } from './point.ts';
import { freshLooks, setSupply, setUp, wait } from './set-up.ts';
import { soak, soakSetting } from './soak.ts';

const SWITCHINGS = 5;
/** Time off before it is switched on again, so that the bulk is empty, s. */
const EMPTIES_SECONDS = 10;
/** What is recorded before anything happens, s. */
const BEFORE_SECONDS = 5;
/** Volts between two stops of a sweep, and how long each lasts, s. */
const SWEEP_STEP = 0.2;
const SWEEP_STOP_SECONDS = 0.3;
/** Looks during a dip. */
const DIP_LOOKS = 5;
const EMPTY_VOLTS = 0.5;
/** Looks behind a fading output, however fast the bench's clock runs. */
const FADING_LOOKS = 20;
/** Looks behind one that is empty: made even, the last of a record is no sample of its own. */
const EMPTY_LOOKS = 2;

const outputOf = (hands: Hands, step: CaptureStep): Spot => ({
  quantity: 'voltage',
  place: hands.rig.outputPlace,
  port: step.port ?? step.outputs[0]?.port ?? null,
});
const SUPPLY: Spot = { quantity: 'voltage', place: 'mains', port: null };

const timed = (hands: Hands, spot: Spot, from: number) => hands.looks.samples(spot, from);

/** Voltage of the output since a time, evenly. */
function outputTrace(hands: Hands, step: CaptureStep, from: number): Trace {
  const even = evenly(timed(hands, outputOf(hands, step), from));
  if (!even) throw new StepFailed('The meter at the output told nothing.');
  return { interval: even.interval, columns: { volts: even.values }, gaps: even.gaps };
}

async function waveform(hands: Hands, step: CaptureStep): Promise<Trace> {
  await setUp(hands, step, step.dwell);
  await wait(hands, step.dwell, 'Load on');
  const trace = await hands.driver.capture('waveform');
  // What was recorded counts only if the output is still there behind it.
  await freshLooks(hands, step, 'Recorded');
  return trace;
}

/** Switched on at another moment of the cycle each time; the highest surge is kept. */
async function inrush(hands: Hands, step: CaptureStep): Promise<Trace> {
  const { driver } = hands;
  await driver.off();
  await driver.occupy([]);
  const traces: Trace[] = [];
  for (let count = 0; count < SWITCHINGS; count += 1) {
    await driver.mainsOff();
    await wait(hands, EMPTIES_SECONDS, `Switched on ${count} of ${SWITCHINGS} times`);
    await setSupply(hands, step);
    traces.push(await driver.capture('inrush'));
  }
  const peak = ({ columns: { amps } }: Trace) =>
    (amps ?? new Float64Array()).reduce((most, value) => Math.max(most, Math.abs(value)), 0);
  return traces.reduce((highest, one) => (peak(one) > peak(highest) ? one : highest));
}

async function fading(hands: Hands, step: CaptureStep): Promise<Trace> {
  const { driver, looks } = hands;
  await driver.off();
  await setSupply(hands, step);
  await driver.occupy(step.port ? [step.port] : []);
  await wait(hands, BEFORE_SECONDS, 'Output up, no load');
  if (step.port) await mustGive(hands, step.port);
  const from = await freshLooks(hands, step, 'Before');
  await wait(hands, BEFORE_SECONDS, 'Before');
  await driver.mainsOff();
  const begun = looks.seconds;
  const { mark } = looks;
  const passed = () => looks.seconds - begun;
  const spot = outputOf(hands, step);
  const enough = () => looks.after(spot, mark).count >= FADING_LOOKS;
  await hands.until(
    () => enough() && (passed() >= step.dwell || (looks.newest(spot) ?? 0) < EMPTY_VOLTS),
    () => ({ doing: 'Mains off', share: Math.min(1, passed() / step.dwell), left: Math.max(0, step.dwell - passed()) }),
  );
  const { mark: emptied } = looks;
  await hands.until(
    () => looks.after(spot, emptied).count >= EMPTY_LOOKS,
    () => ({ doing: 'Mains off', share: 1, left: null }),
  );
  const trace = outputTrace(hands, step, from);
  // What comes next may rely on a supply.
  await setSupply(hands, step);
  return trace;
}

async function dip(hands: Hands, step: CaptureStep): Promise<Trace> {
  const { driver } = hands;
  await setUp(hands, step, BEFORE_SECONDS);
  await wait(hands, BEFORE_SECONDS, 'Load on');
  const from = await freshLooks(hands, step, 'Before', 2 * DIP_LOOKS);
  hands.outputs.rest();
  await driver.sourceVolts(DIP_TO);
  await freshLooks(hands, step, `Supply at ${DIP_TO} V`, DIP_LOOKS);
  await driver.sourceVolts(step.mains.volts);
  await freshLooks(hands, step, 'After', 2 * DIP_LOOKS);
  return outputTrace(hands, step, from);
}

async function sweep(hands: Hands, step: CaptureStep): Promise<Trace> {
  const { driver } = hands;
  const top = step.mains.volts;
  await setUp(hands, step, BEFORE_SECONDS);
  const from = await freshLooks(hands, step, 'Load on');
  hands.outputs.rest();
  const stops = Math.ceil((top - SWEEP_LOWEST) / SWEEP_STEP);
  for (let stop = 0; stop <= 2 * stops; stop += 1) {
    const volts = stop <= stops ? top - stop * SWEEP_STEP : top - (2 * stops - stop) * SWEEP_STEP;
    await driver.sourceVolts(Number(volts.toFixed(2)));
    await freshLooks(hands, step, `Supply at ${fixed(volts, 1)} V`, 1);
    await wait(hands, SWEEP_STOP_SECONDS, `Supply at ${fixed(volts, 1)} V`);
  }
  const supply = evenly(timed(hands, SUPPLY, from));
  const output =
    supply && evenly(timed(hands, outputOf(hands, step), from), { ...supply, count: supply.values.length });
  if (!supply || !output) throw new StepFailed('The meters did not tell supply and output.');
  return {
    interval: supply.interval,
    columns: { supply: supply.values, volts: output.values },
    gaps: [...supply.gaps, ...output.gaps],
  };
}

/** What rides on an output, as the scope has it. */
async function ripple(hands: Hands, step: CaptureStep): Promise<Trace> {
  await setUp(hands, step, step.dwell);
  await wait(hands, step.dwell, step.load > 0 ? 'Load on' : 'No load');
  const trace = await hands.driver.ripple(step.port ?? step.outputs[0]?.port ?? '');
  await freshLooks(hands, step, 'Recorded');
  return trace;
}

const WAYS: Readonly<Partial<Record<CaptureKind, (hands: Hands, step: CaptureStep) => Promise<Trace>>>> = {
  waveform,
  inrush,
  fading,
  dip,
  sweep,
  ripple,
};

/** What was drawn while it was recorded. */
const drawn = ({ outputs, load }: CaptureStep) =>
  outputs.map((one) => ({ ...one, amps: Number((one.amps * load).toFixed(4)) }));

const headOf = (hands: Hands, step: CaptureStep): CaptureHead => ({
  id: newId(),
  kind: step.capture,
  mains: step.mains,
  setupId: null,
  load: step.load,
  port: ['waveform', 'inrush', 'soak'].includes(step.capture) ? null : (outputOf(hands, step).port ?? null),
  attached: 'nothing',
  rigId: hands.rig.id,
  takenAt: new Date().toISOString(),
  source: sourceOf(hands),
  note: '',
  supersedes: null,
  withdrawn: false,
  ...(step.capture === 'ripple' || step.capture === 'soak' ? { outputs: drawn(step) } : {}),
});

async function soakStep(hands: Hands, step: CaptureStep): Promise<void> {
  const { trace, silent } = await soak(hands, step);
  if (!silent) {
    hands.outputs.rest();
    await hands.driver.off();
  }
  const head = { ...headOf(hands, step), soak: soakSetting(trace) };
  const kept = await writeCapture(hands.db, head, { ok: true, trace });
  await hands.db.transaction(async (tx) => {
    const stored = await storeCapture(tx, hands.run.sample.id, head, kept);
    const seconds = trace.interval * trace.samples;
    const says = captureSays(stored.figures);
    await hands.finish(tx, { state: 'done', says, found: silent !== null, seconds, madeIds: [stored.id] });
  });
  // What comes next may rely on an output that is gone.
  if (silent) throw new Silent(silent.ports, silent.how, silent.message, null, true);
}

export async function captureStep(hands: Hands, step: CaptureStep): Promise<void> {
  const { capture: kind } = step;
  if (kind === 'soak') return soakStep(hands, step);
  const way = WAYS[kind];
  if (!way) throw new StepFailed(`Instruments do not record this by themselves: ${kind}.`);
  const trace = await way(hands, step);
  hands.outputs.rest();
  await hands.driver.off();
  const refused = captureFigures(kind, trace);
  if ('reason' in refused) throw new StepFailed(refused.reason);
  const sampleId = hands.run.sample.id;
  const head = headOf(hands, step);
  const kept = await writeCapture(hands.db, head, trace);
  await hands.db.transaction(async (tx) => {
    const setup = kind === 'waveform' ? await loadingFor(tx, sampleId, step.outputs, hands.rig.id, 'efficiency') : null;
    const stored = await storeCapture(tx, sampleId, { ...head, setupId: setup?.id ?? null }, kept);
    await hands.finish(tx, { state: 'done', says: captureSays(stored.figures), madeIds: [stored.id] });
  });
}
