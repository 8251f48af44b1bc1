// An evening simulated: who gets what as devices come and fill, what each plug-in interrupts, when each is full.
import { type Arrangement, granted, type PlugCharger } from './assign.ts';
import { demandAt, levelAfter, type PlugDevice } from './devices.ts';

export interface EveningDevice {
  readonly id: string;
  readonly port: string | null;
  /** Level at each moment, 0…1. */
  readonly levels: readonly number[];
  /** W at each moment. */
  readonly watts: readonly number[];
  /** s until full; null when it is not by the end, or has no battery. */
  readonly fullAt: number | null;
  /** Energy taken, J. */
  readonly energy: number;
}

export interface EveningBreak {
  /** s */
  readonly at: number;
  /** Device that lost power for a moment. */
  readonly id: string;
  /** Device whose plug-in did it. */
  readonly by: string;
}

export interface Evening {
  /** s */
  readonly moments: readonly number[];
  readonly devices: readonly EveningDevice[];
  readonly breaks: readonly EveningBreak[];
  /** Energy out of the charger, J. */
  readonly energy: number;
}

const STEP_SECONDS = 60;

/** Unmet demand of one port is not given to others: shares follow what is plugged in. @param seconds how long */
export function simulateEvening(
  charger: PlugCharger,
  devices: readonly PlugDevice[],
  arrangement: Arrangement,
  seconds: number,
): Evening {
  if (!(seconds > 0) || !Number.isFinite(seconds)) throw new RangeError('An evening lasts for some time.');
  const labels = charger.ports.map(({ label }) => label);
  const states = devices.map((device) => ({
    device,
    port: arrangement[device.id] ?? null,
    level: device.level,
    levels: [] as number[],
    watts: [] as number[],
    fullAt: null as number | null,
    energy: 0,
  }));
  const moments: number[] = [];
  const breaks: EveningBreak[] = [];
  let occupied: readonly string[] = [];
  let shares: Readonly<Record<string, number | null>> = {};
  // The level at the end is told too, but no step begins there.
  for (let at = 0; at <= seconds; at += STEP_SECONDS) {
    const step = Math.min(STEP_SECONDS, seconds - at);
    moments.push(at);
    const here = states.filter(({ port, device }) => port !== null && device.comes <= at);
    const now = labels.filter((label) => here.some(({ port }) => port === label));
    if (now.length !== occupied.length) {
      const fresh = here.filter(({ port }) => port !== null && !occupied.includes(port));
      for (const comes of fresh)
        for (const running of here)
          if (
            running !== comes &&
            running.port &&
            occupied.includes(running.port) &&
            charger.drops(running.port, comes.port ?? '')
          )
            breaks.push({ at, id: running.device.id, by: comes.device.id });
      occupied = now;
      shares = charger.shares(now);
    }
    for (const state of states) {
      const plugged = here.includes(state);
      const port = plugged ? charger.ports.find(({ label }) => label === state.port) : undefined;
      const most = port ? (granted(state.device, port, shares[port.label] ?? null) ?? 0) : 0;
      const watts = Math.min(most, demandAt(state.device, state.level));
      state.levels.push(state.level);
      state.watts.push(watts);
      state.energy += watts * step;
      state.level = levelAfter(state.device.battery, state.level, watts, step);
      if (state.device.battery !== null && state.level >= 0.999) state.fullAt ??= at + step;
    }
  }
  return {
    moments,
    breaks,
    energy: states.reduce((sum, { energy }) => sum + energy, 0),
    devices: states.map(({ device, port, levels, watts, fullAt, energy }) => ({
      id: device.id,
      port,
      levels,
      watts,
      fullAt,
      energy,
    })),
  };
}

/**
 * When a device first has the level it needs, s from the start.
 * @returns null where it needs none, or never has it by the end
 */
export function readyAt(
  { moments }: Pick<Evening, 'moments'>,
  device: PlugDevice,
  levels: readonly number[],
): number | null {
  const { needs, comes } = device;
  if (!needs) return null;
  return moments.find((moment, at) => moment >= comes && (levels[at] ?? 0) >= needs.level - 1e-9) ?? null;
}
