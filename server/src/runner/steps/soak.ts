// A soak: at full load for an hour and more, every temperature and the output recorded; whatever happens meanwhile is kept.
import { SENSOR_PLACES, type SoakSetting } from '@lastmark/core/capture';
import type { CaptureStep } from '@lastmark/core/plan';
import type { Trace } from '@lastmark/core/trace';
import type { Hands } from '../hands.ts';
import { Fault, Silent, StepFailed } from '../turns.ts';
import { onOneScale } from './on-one-scale.ts';
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

/** A thermometer that is on tells something within this, ms. */
const TELLS_MILLISECONDS = 5000;

/** No hour at full load for nothing: the thermometer tells before it begins. @throws Fault where it does not */
async function hearTemperatures({ looks, rig, own, until }: Hands): Promise<void> {
  const name = own.find(({ id }) => id === rig.drives?.thermometer)?.name;
  if (name === undefined) throw new StepFailed('The rig has no thermometer that runs by itself. Choose one at Bench.');
  const begun = Date.now();
  await until(
    () => {
      const { room, hottest } = looks.heat();
      if (room !== null || hottest !== null) return true;
      if (Date.now() - begun > TELLS_MILLISECONDS)
        throw new Fault(
          `"${name}" tells nothing, and a soak is about temperatures. Is it on, and is its address right?`,
        );
      return false;
    },
    () => ({ doing: 'Listening to the thermometer', share: 0, left: null }),
  );
}

/** Everything the rig told since a time, on one even time scale. */
function traceOf(hands: Hands, { outputs }: CaptureStep, from: number): Trace {
  const length = hands.looks.seconds - from;
  const interval = Math.max(LOGGED_EVERY, length / 20_000);
  const { count, seen, wattsOf, warm } = onOneScale(hands, from, interval);
  const [first] = outputs;
  const volts = first ? seen('voltage', first.port) : null;
  const watts = outputs.map(({ port }) => wattsOf(port));
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
  await hearTemperatures(hands);
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
