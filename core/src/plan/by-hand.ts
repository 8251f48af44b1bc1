// What a rig cannot do by itself on a sheet, said before it starts.
import { mainsLabel } from '../reading/index.ts';
import { mainsOf, outputsOf, portsOf } from './steps.ts';
import type { SheetStep } from './types.ts';

/** What instruments of a rig do by themselves. */
export interface RigDoes {
  readonly setsMains: boolean;
  /** Plugs sinks in and out. */
  readonly plugs: boolean;
  /** Asks ports for levels. */
  readonly asksLevels: boolean;
  /** Reads offers out. */
  readonly readsOut: boolean;
  /** Loads several ports at once. */
  readonly manyChannels: boolean;
}

const times = (count: number): string => (count === 1 ? 'once' : `${count} times`);
const changes = (keys: readonly string[]): number => keys.filter((key, at) => key !== keys[at - 1]).length;

/**
 * Sentences about what a person has to do during a sheet, and what cannot be done at all; empty for a rig that does all.
 * @example handWork(steps, { setsMains: false, plugs: true, asksLevels: true, readsOut: true, manyChannels: true })
 * // ['The supply is set by hand, 2 times.']
 */
export function handWork(steps: readonly SheetStep[], rig: RigDoes): readonly string[] {
  const done = steps.filter(({ skip, by }) => skip === null && by === 'instruments');
  const supplies = done.flatMap((step) => mainsOf(step) ?? []).map(mainsLabel);
  const loaded = done.filter((step) => portsOf(step).length > 0);
  const plugs = changes(loaded.map((step) => [...portsOf(step)].sort().join(' ')));
  const levels = changes(
    done.flatMap((step) => outputsOf(step).map(({ port, volts, supply }) => `${port} ${volts} ${supply ?? ''}`)),
  );
  const unread = done.filter(({ kind }) => kind === 'read-out' || kind === 'split').length;
  const many = loaded.filter((step) => portsOf(step).length > 1).length;
  return [
    ...(!rig.setsMains && supplies.length > 0 ? [`The supply is set by hand, ${times(changes(supplies))}.`] : []),
    ...(!rig.plugs && plugs > 0 ? [`Plugs are moved by hand, ${times(plugs)}.`] : []),
    ...(!rig.asksLevels && levels > 0 ? [`Levels are set at the trigger by hand, ${times(levels)}.`] : []),
    ...(!rig.readsOut && unread > 0
      ? [
          `Without a PD analyser ${unread === 1 ? 'one step' : `${unread} steps`} cannot be done: read-outs and combinations.`,
        ]
      : []),
    ...(!rig.manyChannels && many > 0
      ? [`The load has one channel: ${many === 1 ? 'one step' : `${many} steps`} with several ports cannot be done.`]
      : []),
  ];
}
