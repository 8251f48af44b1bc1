// Steps that record something against time: mains waveform, inrush, fading output, and a car's supply sweep and dip.
import type { CaptureKind } from '../capture/types.ts';
import { stepTitle } from '../proof/index.ts';
import { type Mains, mainsLabel, type Output } from '../reading/index.ts';
import { BATTERY_CAUTION, LOADED, stepBase } from './steps.ts';
import type { NewStep } from './types.ts';

/** Ripple of an output by the scope, without load or with it. */
export const rippleStep = (mains: Mains, output: Output, load: 0 | 1): NewStep<'capture'> => ({
  ...base('ripple', `Ripple, ${stepTitle({ outputs: [output], load })}`, mains),
  outputs: [output],
  port: output.port,
  load,
  dwell: 5,
  needs: [...LOADED, 'oscilloscope'],
  caution: mains.kind === 'dc' ? BATTERY_CAUTION : CLIP_CAUTION,
});

/** An hour and more at full load, every temperature recorded. */
export const soakStep = (mains: Mains, outputs: readonly Output[], seconds: number): NewStep<'capture'> => ({
  ...base('soak', `Soak ${Math.round(seconds / 60)} min, ${stepTitle({ outputs, load: 1 })}`, mains),
  outputs,
  load: 1,
  dwell: seconds,
  needs: [...LOADED, 'thermometer'],
  caution: SOAK_CAUTION,
  attended: true,
});

const CLIP_CAUTION = 'The earth clip of a scope on mains earth can short an output.';
const SOAK_CAUTION = 'Never alone without a fire-safe surface, a smoke alarm and a cut-off. Hot surfaces burn.';

/** How low a car's supply is taken, V: under every cut-out there is. */
export const SWEEP_LOWEST = 8;
/** How low it dips, V: what starting an engine leaves. */
export const DIP_TO = 9.8;

const base = (capture: CaptureKind, title: string, mains: Mains): NewStep<'capture'> => ({
  ...stepBase('capture', 'instruments', `${title} at ${mainsLabel(mains)}`),
  capture,
  mains,
  outputs: [],
  load: 0,
  port: null,
  caution: mains.kind === 'dc' ? BATTERY_CAUTION : null,
});

const percent = (load: number): string => `${Math.round(load * 100)} %`;

/** Mains voltage and current by the scope, at a load. */
export const waveformStep = (mains: Mains, outputs: readonly Output[], load: number): NewStep<'capture'> => ({
  ...base('waveform', `Mains current, ${stepTitle({ outputs, load: 1 })}, ${percent(load)}`, mains),
  outputs,
  load,
  dwell: 5,
  needs: [...LOADED, 'oscilloscope'],
});

/** Switched on several times from empty; the highest inrush counts. */
export const inrushStep = (mains: Mains): NewStep<'capture'> => ({
  ...base('inrush', 'Inrush, switched on five times', mains),
  dwell: 60,
  needs: ['AC source', 'oscilloscope'],
});

/** How long an output stays charged after the mains went off. */
export const fadingStep = (mains: Mains, port: string): NewStep<'capture'> => ({
  ...base('fading', `${port} after the mains go off`, mains),
  port,
  dwell: 120,
  needs: LOADED,
});

/** The supply lowered until output goes, and raised until it comes back. */
export const sweepStep = (mains: Mains, output: Output): NewStep<'capture'> => ({
  ...base(
    'sweep',
    `Supply lowered to ${SWEEP_LOWEST} V and raised again, ${stepTitle({ outputs: [output], load: 1 })}, 50 %`,
    mains,
  ),
  outputs: [output],
  port: output.port,
  load: 0.5,
  dwell: 60,
  needs: LOADED,
});

/** The supply dips, as it does when an engine starts. */
export const dipStep = (mains: Mains, output: Output): NewStep<'capture'> => ({
  ...base('dip', `Supply dips to ${DIP_TO} V, ${stepTitle({ outputs: [output], load: 1 })}`, mains),
  outputs: [output],
  port: output.port,
  load: 1,
  dwell: 2,
  needs: LOADED,
});

/** How long a sweep point is loaded before it is read, s: the sample is warm, and only the supply changed. */
const SWEEP_DWELL = 30;

/** A load point of the strongest loading at another supply, read once it has calmed. */
export const supplyPoint = (mains: Mains, outputs: readonly Output[], load: number): NewStep<'point'> => ({
  ...stepBase('point', 'instruments', `${stepTitle({ outputs, load: 1 })}, ${percent(load)} at ${mainsLabel(mains)}`),
  mains,
  outputs,
  load,
  station: 'efficiency',
  settle: null,
  dwell: SWEEP_DWELL,
  needs: LOADED,
  caution: BATTERY_CAUTION,
});
