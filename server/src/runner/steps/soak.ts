// A soak: at full load for an hour and more, every temperature and the output recorded; whatever happens meanwhile is kept.
import { evenly, SENSOR_PLACES, type SoakSetting } from '@lastmark/core/capture';
import type { CaptureStep } from '@lastmark/core/plan';
import { pointNames } from '@lastmark/core/reading';
import type { Channel, Trace } from '@lastmark/core/trace';
import type { Hands } from '../hands.ts';
import { Silent, StepFailed } from '../turns.ts';
import { setUp } from './set-up.ts';

/** A reading more often than this says nothing new of a soak, s. */
const LOGGED_EVERY = 5;

export const soakSetting = (trace: Trace): SoakSetting => ({
  place: 'open room',
  ambient: null,
  surface: '',
  adapter: '',
  touched: 'plastic',
  sensors: trace.channels.flatMap(({ name }) => {
    const place = SENSOR_PLACES.find((one) => one === name.split(' ')[0]);
    return place ? [{ name, place, how: 'contact' as const }] : [];
  }),
});

/** Everything the rig told since a time, on one even time scale. */
function traceOf({ looks, rig }: Hands, { outputs }: CaptureStep, from: number): Trace {
  const length = looks.seconds - from;
  const interval = Math.max(LOGGED_EVERY, length / 20_000);
  const count = Math.floor(length / interval) + 1;
  const onScale = (samples: Parameters<typeof evenly>[0]) => evenly(samples, { from, interval, count })?.values ?? null;
  const warmth = looks.warmth(from);
  const names = pointNames(warmth.length, rig.spots);
  const warm = warmth.flatMap((samples, index): Channel[] => {
    const values = samples.length > 1 ? onScale(samples) : null;
    return values ? [{ name: names[index] ?? '', quantity: 'temperature', unit: '°C', values }] : [];
  });
  const seen = (quantity: 'voltage' | 'current', port: string) =>
    onScale(looks.samples({ quantity, place: rig.outputPlace, port }, from));
  const [first] = outputs;
  const volts = first ? seen('voltage', first.port) : null;
  const watts = outputs.map(({ port }) => {
    const told = onScale(looks.wattSamples(port, from));
    if (told) return told;
    // Two meters: volts and amps of the same moment.
    const [v, i] = [seen('voltage', port), seen('current', port)];
    return v && i ? v.map((value, at) => value * (i[at] ?? Number.NaN)) : null;
  });
  const total = watts.every((one) => one !== null)
    ? Float64Array.from({ length: count }, (_, at) => watts.reduce((sum, one) => sum + (one?.[at] ?? Number.NaN), 0))
    : null;
  if (warm.length === 0) throw new StepFailed('The thermometer told nothing.');
  return {
    samples: count,
    interval,
    times: null,
    began: null,
    channels: [
      ...warm,
      ...(total ? [{ name: 'output', quantity: 'power' as const, unit: 'W', values: total }] : []),
      ...(volts && first
        ? [{ name: `${first.port} volts`, quantity: 'voltage' as const, unit: 'V', values: volts }]
        : []),
    ],
    facts: { bandwidth: null, envelope: false, coupling: null },
    remarks: [],
  };
}

/** Carry a soak out. @returns what was recorded, and the silence that ended it */
export async function soak(
  hands: Hands,
  step: CaptureStep,
): Promise<{ readonly trace: Trace; readonly silent: Silent | null }> {
  const { looks } = hands;
  await setUp(hands, step, step.dwell);
  const from = looks.begin();
  const passed = () => looks.seconds - from;
  let silent: Silent | null = null;
  try {
    await hands.until(
      () => passed() >= step.dwell || hands.recordNow(),
      () => ({ doing: 'Soaking', share: Math.min(1, passed() / step.dwell), left: Math.max(0, step.dwell - passed()) }),
    );
  } catch (error) {
    // A cut-out in the middle of a soak is what the soak is for: what was recorded is kept.
    if (!(error instanceof Silent)) throw error;
    silent = error;
  }
  return { trace: traceOf(hands, step, from), silent };
}
