// Records something against time by itself: with the scope, or from what the meters tell while the supply is moved.
import { type CaptureKind, captureFigures, captureSays, evenly, type Trace } from '@lastmark/core/capture';
import { DIP_TO, type SheetStep, SWEEP_LOWEST } from '@lastmark/core/plan';
import { fixed } from '@lastmark/core/quantity';
import { storeCapture } from '../../captures/store.ts';
import { newId } from '../../db/ids.ts';
import { loadingFor } from '../../setups/store.ts';
import type { Bench } from '../hands.ts';
import type { Spot } from '../looks.ts';
import { StepFailed } from '../turns.ts';
import { sourceOf } from './point.ts';
import { freshLooks, setSupply, setUp, wait } from './set-up.ts';

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

const outputOf = (bench: Bench, step: SheetStep): Spot => ({
  quantity: 'voltage',
  place: bench.rig.outputPlace,
  port: step.port ?? step.outputs[0]?.port ?? null,
});
const SUPPLY: Spot = { quantity: 'voltage', place: 'mains', port: null };

const timed = (bench: Bench, spot: Spot, from: number) => bench.looks.samples(spot, from);

/** Voltage of the output since a time, evenly. */
function outputTrace(bench: Bench, step: SheetStep, from: number): Trace {
  const even = evenly(timed(bench, outputOf(bench, step), from));
  if (!even) throw new StepFailed('The meter at the output told nothing.');
  return { interval: even.interval, columns: { volts: even.values }, gaps: even.gaps };
}

async function waveform(bench: Bench, step: SheetStep): Promise<Trace> {
  await setUp(bench, step);
  await wait(bench, step.dwell, 'Load on');
  return bench.driver.capture('waveform');
}

/** Switched on at another moment of the cycle each time; the highest surge is kept. */
async function inrush(bench: Bench, step: SheetStep): Promise<Trace> {
  const { driver } = bench;
  await driver.off();
  await driver.occupy([]);
  const traces: Trace[] = [];
  for (let count = 0; count < SWITCHINGS; count += 1) {
    await driver.mainsOff();
    await wait(bench, EMPTIES_SECONDS, `Switched on ${count} of ${SWITCHINGS} times`);
    await setSupply(bench, step);
    traces.push(await driver.capture('inrush'));
  }
  const peak = ({ columns: { amps } }: Trace) =>
    (amps ?? new Float64Array()).reduce((most, value) => Math.max(most, Math.abs(value)), 0);
  return traces.reduce((highest, one) => (peak(one) > peak(highest) ? one : highest));
}

async function fading(bench: Bench, step: SheetStep): Promise<Trace> {
  const { driver, looks } = bench;
  await driver.off();
  await setSupply(bench, step);
  await driver.occupy(step.port ? [step.port] : []);
  await wait(bench, BEFORE_SECONDS, 'Output up, no load');
  const from = await freshLooks(bench, step, 'Before');
  await wait(bench, BEFORE_SECONDS, 'Before');
  await driver.mainsOff();
  const begun = looks.seconds;
  const { mark } = looks;
  const passed = () => looks.seconds - begun;
  const spot = outputOf(bench, step);
  const enough = () => looks.after(spot, mark).count >= FADING_LOOKS;
  await bench.until(
    () => enough() && (passed() >= step.dwell || (looks.newest(spot) ?? 0) < EMPTY_VOLTS),
    () => ({ doing: 'Mains off', share: Math.min(1, passed() / step.dwell), left: Math.max(0, step.dwell - passed()) }),
  );
  const trace = outputTrace(bench, step, from);
  // What comes next may rely on a supply.
  await setSupply(bench, step);
  return trace;
}

async function dip(bench: Bench, step: SheetStep): Promise<Trace> {
  const { driver } = bench;
  await setUp(bench, step);
  await wait(bench, BEFORE_SECONDS, 'Load on');
  const from = await freshLooks(bench, step, 'Before', 2 * DIP_LOOKS);
  await driver.sourceVolts(DIP_TO);
  await freshLooks(bench, step, `Supply at ${DIP_TO} V`, DIP_LOOKS);
  await driver.sourceVolts(step.mains?.volts ?? DIP_TO);
  await freshLooks(bench, step, 'After', 2 * DIP_LOOKS);
  return outputTrace(bench, step, from);
}

async function sweep(bench: Bench, step: SheetStep): Promise<Trace> {
  const { driver } = bench;
  const top = step.mains?.volts ?? SWEEP_LOWEST;
  await setUp(bench, step);
  const from = await freshLooks(bench, step, 'Load on');
  const stops = Math.ceil((top - SWEEP_LOWEST) / SWEEP_STEP);
  for (let stop = 0; stop <= 2 * stops; stop += 1) {
    const volts = stop <= stops ? top - stop * SWEEP_STEP : top - (2 * stops - stop) * SWEEP_STEP;
    await driver.sourceVolts(Number(volts.toFixed(2)));
    await freshLooks(bench, step, `Supply at ${fixed(volts, 1)} V`, 1);
    await wait(bench, SWEEP_STOP_SECONDS, `Supply at ${fixed(volts, 1)} V`);
  }
  const supply = evenly(timed(bench, SUPPLY, from));
  const output =
    supply && evenly(timed(bench, outputOf(bench, step), from), { ...supply, count: supply.values.length });
  if (!supply || !output) throw new StepFailed('The meters did not tell supply and output.');
  return {
    interval: supply.interval,
    columns: { supply: supply.values, volts: output.values },
    gaps: [...supply.gaps, ...output.gaps],
  };
}

const WAYS: Readonly<Partial<Record<CaptureKind, (bench: Bench, step: SheetStep) => Promise<Trace>>>> = {
  waveform,
  inrush,
  fading,
  dip,
  sweep,
};

export async function captureStep(bench: Bench, step: SheetStep): Promise<void> {
  const kind = step.capture ?? 'waveform';
  const { mains } = step;
  const way = WAYS[kind];
  if (!way || !mains) throw new StepFailed('The step does not say what to record, or at which supply.');
  const trace = await way(bench, step);
  await bench.driver.off();
  const refused = captureFigures(kind, trace);
  if ('reason' in refused) throw new StepFailed(refused.reason);
  const sampleId = bench.run.sample.id;
  await bench.db.transaction(async (tx) => {
    const setup = kind === 'waveform' ? await loadingFor(tx, sampleId, step.outputs, bench.rig.id, 'efficiency') : null;
    const stored = await storeCapture(
      tx,
      sampleId,
      {
        id: newId(),
        kind,
        mains,
        setupId: setup?.id ?? null,
        load: step.load,
        port: kind === 'waveform' || kind === 'inrush' ? null : (outputOf(bench, step).port ?? null),
        attached: 'nothing',
        rigId: bench.rig.id,
        takenAt: new Date().toISOString(),
        source: sourceOf(bench),
        note: '',
        supersedes: null,
        withdrawn: false,
      },
      trace,
    );
    await bench.finish(tx, { state: 'done', says: captureSays(stored.figures), madeIds: [stored.id] });
  });
}
