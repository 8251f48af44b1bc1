// A method in words, what is wrong with one, how two differ, and one as a file.
import { CAPTURE_KINDS, KIND_WORDS } from '../capture/index.ts';
import { formatPlain } from '../quantity/index.ts';
import { mainsLabel } from '../reading/index.ts';
import { conditionProblems, conditionWords } from './conditions.ts';
import type { Method } from './types.ts';

/** A method that is not yet kept. */
export type MethodBody = Omit<Method, 'id'>;

/** One choice of a method. */
export interface MethodLine {
  readonly what: string;
  readonly says: string;
}

const minutes = (seconds: number): string =>
  seconds === 0 ? 'none' : formatPlain(seconds, 'duration', seconds < 120 ? 's' : 'min');
const percent = (part: number): string => `${Number((part * 100).toFixed(1))} %`;
const orNone = (list: readonly string[]): string => (list.length === 0 ? 'none' : list.join(', '));

/**
 * Every choice of a method in words, in the order of the work.
 * @example methodLines(method).find(({ what }) => what === 'Warm-up')?.says // '30 min at full load'
 */
export function methodLines(method: MethodBody): readonly MethodLine[] {
  const { settle, line } = method;
  const own: readonly MethodLine[] = line
    ? [
        { what: 'Pluggings', says: String(line.pluggings) },
        { what: 'Bends', says: line.bends ? 'as Rules say, read at every look' : 'none' },
      ]
    : [
        {
          what: 'Idle',
          says:
            method.idle === 0
              ? 'not read'
              : `${minutes(method.idle)} with ${method.idleAttached.join(', then ')} attached, ${method.idleWhen}`,
        },
        { what: 'Read-out', says: method.readOut ? 'every port alone' : 'none' },
        { what: 'Proof', says: method.proof ? 'every level, without load and at its rated current' : 'none' },
        { what: 'Combinations', says: method.splits ? 'every set of ports' : 'none' },
        { what: 'Warm-up', says: method.warmUp === 0 ? 'none' : `${minutes(method.warmUp)} at full load` },
        { what: 'Load points', says: orNone(method.loads.map(percent)) },
        { what: 'Levels', says: method.loads.length === 0 ? 'none' : method.levels },
        {
          what: 'Read once',
          says: settle
            ? `it stays within ${percent(settle.fraction)} for ${minutes(settle.over)}, else averaged over ${minutes(settle.average)}`
            : 'it was set for 10 s',
        },
        { what: 'Held', says: minutes(method.hold) },
        { what: 'Soak', says: minutes(method.soak) },
        { what: 'Other supplies', says: orNone(method.sweep.map(mainsLabel)) },
        {
          what: 'Recorded',
          says: orNone(CAPTURE_KINDS.filter((kind) => method.captures.includes(kind)).map((kind) => KIND_WORDS[kind])),
        },
        { what: 'Devices', says: method.devices ? 'each at each port' : 'none' },
        { what: 'Whole charges', says: method.charges ? 'each device from empty' : 'none' },
        { what: 'By itself', says: (method.conditions ?? []).map(conditionWords).join(' ') || 'nothing' },
      ];
  return [
    { what: 'For', says: method.kinds.join(', ') },
    { what: 'Read by', says: method.by },
    { what: 'Mains', says: method.mains.map(mainsLabel).join(', then ') },
    {
      what: 'Loads go off',
      says:
        method.hottest == null
          ? 'at the limits of bench and sample'
          : `at ${formatPlain(method.hottest, 'temperature', '°C')}, or at a lower limit of bench or sample`,
    },
    { what: 'Watched', says: method.watch ?? 'as the steps ask' },
    ...own,
  ];
}

/** What two methods do differently; empty where they do the same. */
export function methodDifferences(
  a: MethodBody,
  b: MethodBody,
): readonly { readonly what: string; readonly a: string; readonly b: string }[] {
  const [ours, theirs] = [methodLines(a), methodLines(b)];
  const names = [...new Set([...ours, ...theirs].map(({ what }) => what))];
  const of = (lines: readonly MethodLine[], name: string) => lines.find(({ what }) => what === name)?.says ?? '–';
  return names.flatMap((what) => {
    const [one, other] = [of(ours, what), of(theirs, what)];
    return one === other ? [] : [{ what, a: one, b: other }];
  });
}

/** What keeps a method from making a sheet, each with what to do; empty for a good one. */
export function methodProblems(method: MethodBody): readonly string[] {
  const { kinds, mains, loads, warmUp, idle, idleAttached, hold, soak, line } = method;
  const cable = kinds.includes('cable');
  return [
    ...(method.title.trim() === '' ? ['Give it a title.'] : []),
    ...(kinds.length === 0 ? ['Say what kinds of samples it is for.'] : []),
    ...(mains.length === 0 ? ['Say at which mains.'] : []),
    ...(cable && kinds.length > 1 ? ['A cable is measured otherwise than a charger: make a method of its own.'] : []),
    ...(cable && !line ? ['Say how often a cable is plugged.'] : []),
    ...(!cable && line ? ['Pluggings and bends are for cables.'] : []),
    ...(loads.some((load) => !(load > 0 && load <= 1)) ? ['Load points lie above 0 % and up to 100 %.'] : []),
    ...(new Set(loads).size < loads.length ? ['A load point stands twice.'] : []),
    ...(loads.length > 0 && warmUp === 0 && method.by === 'instruments'
      ? ['Load points without a warm-up are read of a cold charger: give a warm-up.']
      : []),
    ...(idle > 0 && idleAttached.length === 0 ? ['Say what is attached while idle is read.'] : []),
    ...(method.hottest != null && !(method.hottest >= 273.15 && method.hottest <= 423.15)
      ? ['Loads go off between 0 and 150 °C.']
      : []),
    ...conditionProblems(method.conditions ?? []),
    ...([warmUp, idle, hold, soak].some((seconds) => !(seconds >= 0 && seconds <= 86_400))
      ? ['A time is between nothing and a day.']
      : []),
  ];
}

export const METHOD_FORM = 'lastmark-method/1';

/** A method as a file: JSON that says what it is. */
export const methodFile = (method: MethodBody): string => `${JSON.stringify({ form: METHOD_FORM, method }, null, 1)}\n`;

/** A method of a file, not yet looked at in its parts; or why it is none. */
export function readMethodFile(text: string): { readonly method: unknown } | { readonly reason: string } {
  let read: unknown;
  try {
    read = JSON.parse(text);
  } catch {
    return { reason: 'It is no JSON.' };
  }
  if (typeof read !== 'object' || read === null || !('form' in read) || !('method' in read))
    return { reason: 'It is no method of Lastmark.' };
  if (read.form !== METHOD_FORM)
    return { reason: `It is of the form ${String(read.form)}; this one reads ${METHOD_FORM}.` };
  return { method: read.method };
}
