// A whole charge: a person plugs the device in, an inline meter logs it to its end and a while after it.
import type { CaptureHead } from '@lastmark/core/capture';
import { EndWatch, sessionSays } from '@lastmark/core/charge';
import type { ChargeStep } from '@lastmark/core/plan';
import { fixed, formatPlain } from '@lastmark/core/quantity';
import type { Trace } from '@lastmark/core/trace';
import { storeCapture, writeCapture } from '../../captures/store.ts';
import { newId } from '../../db/ids.ts';
import { listDevices } from '../../devices/store.ts';
import type { Hands } from '../hands.ts';
import { StepFailed } from '../turns.ts';
import { onOneScale } from './on-one-scale.ts';
import { sourceOf } from './point.ts';
import { setSupply } from './set-up.ts';

/** More samples say nothing new of a charge. */
const MOST_SAMPLES = 40_000;
/** Power that has not begun by then: the device waits for something, s. */
const NOTHING_SECONDS = 120;
/** The very same digits for so long while power flows: a meter that hangs, s. */
const SAME_SECONDS = 300;
const FLOWS = 1;
/** And told so often: one that was not asked meanwhile does not hang. */
const SAME_TIMES = 20;

/** What the meters of a port show now, W; null before they told anything. */
function wattsNow({ looks, rig }: Hands, port: string): { readonly volts: number; readonly amps: number } | null {
  const at = { place: rig.outputPlace, port };
  const volts = looks.newest({ ...at, quantity: 'voltage' });
  const amps = looks.newest({ ...at, quantity: 'current' });
  return volts === null || amps === null ? null : { volts, amps };
}

/** Everything since a time on one even scale: into the device, out of the wall, and how warm. */
function traceOf(hands: Hands, port: string, from: number): Trace {
  const interval = Math.max(1, (hands.looks.seconds - from) / MOST_SAMPLES);
  const { count, seen, wattsOf, input, warm } = onOneScale(hands, from, interval);
  const [volts, watts, wall] = [seen('voltage', port), wattsOf(port), input()];
  if (!volts || !watts) throw new StepFailed('The meters at the port told nothing.');
  return {
    samples: count,
    interval,
    times: null,
    began: null,
    channels: [
      { name: 'power', quantity: 'power', unit: 'W', values: watts },
      { name: 'volts', quantity: 'voltage', unit: 'V', values: volts },
      ...(wall ? [{ name: 'wall', quantity: 'power' as const, unit: 'W', values: wall }] : []),
      ...warm,
    ],
    facts: { bandwidth: null, envelope: false, coupling: null },
    remarks: [],
  };
}

/** Watch a charge to its end. @returns instrument time it was begun at, and why it ended */
async function watchCharge(hands: Hands, step: ChargeStep): Promise<{ readonly from: number; readonly full: boolean }> {
  const { looks } = hands;
  let from = looks.begin();
  const passed = () => looks.seconds - from;
  let watch = new EndWatch();
  let same = { since: from, times: 0, at: from, volts: Number.NaN, amps: Number.NaN };
  let wrong: string | null = null;
  const look = () => {
    const now = wattsNow(hands, step.port);
    if (!now) return;
    const watts = now.volts * now.amps;
    watch.take(looks.seconds, watts);
    if (now.volts !== same.volts || now.amps !== same.amps || Math.abs(watts) < FLOWS)
      same = { since: looks.seconds, times: 0, at: looks.seconds, ...now };
    else if (looks.seconds !== same.at) same = { ...same, times: same.times + 1, at: looks.seconds };
    wrong =
      watts < -FLOWS
        ? 'Power flows the other way, out of the device.'
        : looks.seconds - same.since > SAME_SECONDS && same.times >= SAME_TIMES
          ? 'Not a digit of the meter has changed for minutes: it may have hung.'
          : watch.began === null && passed() > NOTHING_SECONDS
            ? 'Nothing flows.'
            : null;
  };
  const full = () => watch.ended !== null && looks.seconds - watch.ended >= step.after;
  let asked = 0;
  for (;;) {
    await hands.until(
      () => {
        look();
        return full() || passed() >= step.dwell || hands.recordNow() || (wrong !== null && asked < 3);
      },
      () => {
        const now = wattsNow(hands, step.port);
        const doing = watch.ended === null ? 'Charging' : 'After the end';
        return {
          doing: now ? `${doing}, ${fixed(now.volts * now.amps, 1)} W` : doing,
          share: Math.min(1, passed() / step.dwell),
          left: Math.max(0, step.dwell - passed()),
        };
      },
    );
    if (wrong === null || asked >= 3) return { from, full: watch.ended !== null };
    asked += 1;
    await hands.person(`${wrong} Unplug, wait a moment, plug it in again, then go on.`);
    // What was logged before says nothing of the charge.
    from = looks.begin();
    watch = new EndWatch();
    same = { since: looks.seconds, times: 0, at: from, volts: Number.NaN, amps: Number.NaN };
    wrong = null;
  }
}

export async function chargeStep(hands: Hands, step: ChargeStep): Promise<void> {
  const { port, deviceId, lead, startLevel, mains } = step;
  const device = (await listDevices(hands.db)).find(({ id }) => id === deviceId);
  if (!device || !hands.ports.includes(port))
    throw new StepFailed('The device or the port of this step is not there any more.');
  await setSupply(hands, step);
  await hands.driver.off();
  hands.outputs.rest();
  await hands.driver.lookAt(port);
  if (step.attended) await hands.attend();
  const at = startLevel === null ? 'note its level,' : `at ${formatPlain(startLevel, 'efficiency')},`;
  await hands.person(`Plug ${device.name} into ${port}${lead ? ` with ${lead}` : ''}, ${at} then go on.`);
  const { from, full } = await watchCharge(hands, step);
  const trace = traceOf(hands, port, from);
  const head: CaptureHead = {
    id: newId(),
    kind: 'charge',
    mains,
    setupId: null,
    load: 1,
    port,
    attached: 'nothing',
    rigId: hands.rig.id,
    takenAt: new Date().toISOString(),
    source: sourceOf(hands),
    note: '',
    supersedes: null,
    withdrawn: false,
    charge: { deviceId, lead, workload: null, startLevel, end: null },
  };
  const kept = await writeCapture(hands.db, head, { ok: true, trace });
  await hands.db.transaction(async (tx) => {
    const stored = await storeCapture(tx, hands.run.sample.id, head, kept);
    const said = stored.figures.kind === 'charge' ? sessionSays(stored.figures) : '';
    await hands.finish(tx, {
      state: 'done',
      says: `${said} Unplug ${device.name}.`.trim(),
      found: !full,
      seconds: trace.interval * trace.samples,
      madeIds: [stored.id],
    });
  });
}
