// Replies: plain numbers in the order of their action, or read by the profile's own pattern.
import { ACTIONS, type ReplyFormat } from './actions.ts';
import { numbersFrom } from './number.ts';
import { baseOf, type PatternReading, parsePattern, readPattern } from './pattern.ts';
import { ProfileError } from './problem.ts';
import type { InstrumentProfile } from './profile.ts';

/** What an action tells, in order; a name that stands for every channel has its number behind it in a pattern. */
const TOLD: Readonly<Record<string, { readonly head: readonly string[]; readonly each: readonly string[] }>> = {
  'power analyser all': { head: ['time', 'watts', 'volts', 'amps', 'powerFactor'], each: [] },
  'DC load all': { head: ['time'], each: ['volts', 'amps'] },
  'bench multimeter all': { head: ['time'], each: ['volts'] },
  'inline USB meter all': { head: ['time', 'volts', 'amps'], each: [] },
  'thermometer all': { head: [], each: ['celsius'] },
  'thermal imager all': { head: [], each: ['celsius'] },
  'oscilloscope scale': { head: ['rate', 'volts'], each: [] },
  'oscilloscope mainsScale': { head: ['rate', 'volts', 'amps'], each: [] },
};

const channelOf = (name: string): number => Number(/\d+$/.exec(name)?.[0] ?? 1);

/** Fields a pattern of an action may have; null for an action whose reply is no numbers. */
export function fieldsOfAction(
  { class: kind }: Pick<InstrumentProfile, 'class'>,
  action: string,
): readonly string[] | null {
  const format = ACTIONS[kind][action]?.reply;
  if (format === 'number') return [NAMED[action] ?? 'value', 'value'];
  const told = TOLD[`${kind} ${action}`];
  return told ? [...told.head, ...told.each] : null;
}

/** What the one number of an action is called, where it has a unit. */
const NAMED: Readonly<Record<string, string>> = {
  watts: 'watts',
  volts: 'volts',
  current: 'amps',
  powerFactor: 'powerFactor',
  energy: 'wattHours',
  energyTime: 'seconds',
  temperature: 'celsius',
  hottest: 'celsius',
  isOn: 'on',
};

/** A pattern's reading in the order of its action; what the reply does not tell is NaN. */
function inOrder(profile: InstrumentProfile, action: string, { values }: PatternReading): readonly number[] {
  const { head = [], each = [] } = TOLD[`${profile.class} ${action}`] ?? {};
  const channels = Math.max(0, ...[...values.keys()].filter((name) => each.includes(baseOf(name))).map(channelOf));
  const told = (name: string) => values.get(name) ?? Number.NaN;
  const ofChannel = (name: string, channel: number) =>
    values.get(`${name}${channel}`) ?? (channel === 1 ? told(name) : Number.NaN);
  return [
    ...head.map(told),
    ...Array.from({ length: channels }, (_, index) => each.map((name) => ofChannel(name, index + 1))).flat(),
  ];
}

/** How the reply of an action is to be read. @throws ProfileError for an action the class does not have */
export function replyOf(profile: InstrumentProfile, action: string): ReplyFormat {
  const shape = ACTIONS[profile.class][action];
  if (!shape) throw new ProfileError(`A ${profile.class} has no action "${action}".`);
  return shape.reply;
}

/**
 * A reply to an action, read by the profile's pattern where it has one.
 * @returns a number, numbers in the order of the action (NaN for what was not told), words or text
 * @throws ProfileError for one that does not fit
 */
export function readAnswer(profile: InstrumentProfile, action: string, text: string): ReturnType<typeof readReply> {
  const format = replyOf(profile, action);
  const written = profile.replies?.[action];
  if (written === undefined || (format !== 'number' && format !== 'numbers')) return readReply(format, text);
  const pattern = parsePattern(written);
  if (!pattern.ok) throw new ProfileError(pattern.reason);
  const reading = readPattern(pattern, text);
  if (reading.values.size === 0) throw new ProfileError(reading.problems.join(' '));
  if (format === 'numbers') return inOrder(profile, action, reading);
  const [value] = reading.values.values();
  if (value === undefined || Number.isNaN(value)) throw new ProfileError(`"${text.slice(0, 40)}" is no number.`);
  return value;
}

/** What a reply says, in words that an example of a profile keeps. @example sayReading(new Map([['volts', 20.02]])) // 'volts 20.02' */
export const sayReading = (values: ReadonlyMap<string, number>): string =>
  [...values]
    .map(([name, value]) => `${name} ${Number.isFinite(value) ? Number(value.toPrecision(9)) : value}`)
    .join(', ');

/** What is wrong with the patterns of a profile, and which of its examples they do not read as they should. */
export function replyProblems(profile: InstrumentProfile): readonly string[] {
  const { class: kind, replies = {}, examples = [] } = profile;
  const ofPatterns = Object.entries(replies).flatMap(([action, text]) => {
    const known = fieldsOfAction(profile, action);
    if (!known) return [`The reply to "${action}" of a ${kind} is no numbers: it has no pattern.`];
    const pattern = parsePattern(text);
    if (!pattern.ok) return [`Reply to "${action}": ${pattern.reason}`];
    const strange = pattern.fields.find(({ name }) => !known.includes(baseOf(name)));
    return strange ? [`Reply to "${action}": {${strange.name}} is not asked of it; it tells ${known.join(', ')}.`] : [];
  });
  if (ofPatterns.length > 0) return ofPatterns;
  return examples.flatMap(({ action, reply, reads }) => {
    const pattern = parsePattern(replies[action] ?? '');
    if (!pattern.ok) return [`The example of "${action}" has no pattern to be read by.`];
    const { values, problems } = readPattern(pattern, reply);
    const said = problems.length > 0 ? problems.join(' ') : sayReading(values);
    return said === reads ? [] : [`The example of "${action}" reads "${said}", not "${reads}".`];
  });
}

/** A reply as its format wants it. @throws ProfileError for one that does not fit */
export function readReply(format: ReplyFormat, text: string): number | readonly number[] | readonly string[] | string {
  const numbers = numbersFrom(text);
  switch (format) {
    case 'number': {
      const [value] = numbers;
      if (value === undefined || Number.isNaN(value) || numbers.length > 1)
        throw new ProfileError(`"${text.slice(0, 40)}" is no number.`);
      return value;
    }
    case 'numbers':
      return numbers;
    case 'words': {
      const words = text.split(',').map((word) => word.trim().toUpperCase());
      if (words.length === 1 && words[0] === '0') return [];
      if (!words.every((word) => /^[0-9A-F]{8}$/.test(word)))
        throw new ProfileError(`"${text.slice(0, 40)}" is no list of words.`);
      return words;
    }
    default:
      return text;
  }
}
