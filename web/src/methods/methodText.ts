// A method while it is typed: texts in, a method out, with what cannot be read said by name.
import { CAPTURE_KINDS, type CaptureKind } from '@lastmark/core/capture';
import { type MethodBody, methodProblems } from '@lastmark/core/plan';
import { formatPlain, ZERO_CELSIUS } from '@lastmark/core/quantity';
import { type Attached, type Mains, mainsLabel } from '@lastmark/core/reading';
import { type ConditionText, fromConditionText, toConditionText } from '../parts/conditionText.ts';
import { typedMinutes } from '../parts/fields.tsx';

export const KINDS = ['wall', 'desktop', 'car', 'cable'] as const;

export interface MethodText {
  readonly title: string;
  readonly says: string;
  readonly kinds: readonly string[];
  readonly by: string;
  readonly mains: string;
  readonly loads: string;
  readonly levels: string;
  readonly warmUp: string;
  readonly settles: string;
  readonly within: string;
  readonly over: string;
  readonly average: string;
  readonly idle: string;
  readonly attached: readonly string[];
  readonly idleWhen: string;
  readonly does: readonly string[];
  readonly soak: string;
  readonly hold: string;
  readonly sweep: string;
  readonly captures: readonly string[];
  readonly pluggings: string;
  readonly bends: string;
  /** °C */
  readonly hottest: string;
  readonly watch: string;
  readonly byItself: ConditionText;
  readonly note: string;
}

/** What a method does or leaves, by name. */
export const DOES = ['readOut', 'proof', 'splits', 'devices', 'charges'] as const;

const time = (seconds: number): string =>
  seconds === 0 ? '' : formatPlain(seconds, 'duration', seconds % 60 === 0 ? 'min' : 's');
const percent = (part: number): string => String(Number((part * 100).toFixed(3)));

export function toMethodText({ settle, line, ...method }: MethodBody): MethodText {
  return {
    title: method.title,
    says: method.says,
    kinds: method.kinds,
    by: method.by,
    mains: method.mains.map(mainsLabel).join(', '),
    loads: method.loads.map(percent).join(', '),
    levels: method.levels,
    warmUp: time(method.warmUp),
    settles: settle ? 'yes' : 'no',
    within: settle ? percent(settle.fraction) : '1',
    over: settle ? time(settle.over) : '5 min',
    average: settle ? time(settle.average) : '30 min',
    idle: time(method.idle),
    attached: method.idleAttached,
    idleWhen: method.idleWhen,
    does: DOES.filter((name) => method[name]),
    soak: time(method.soak),
    hold: time(method.hold),
    sweep: method.sweep.map(mainsLabel).join(', '),
    captures: method.captures,
    pluggings: line ? String(line.pluggings) : '3',
    bends: line?.bends ? 'yes' : 'no',
    hottest: method.hottest == null ? '' : String(Number((method.hottest - ZERO_CELSIUS).toFixed(2))),
    watch: method.watch ?? 'as the steps ask',
    byItself: toConditionText(method.conditions ?? []),
    note: '',
  };
}

const SUPPLY = /^(\d+(?:[.,]\d+)?)\s*V\s*(?:(DC)|(\d+(?:[.,]\d+)?)\s*Hz)$/i;
const number = (text: string): number => Number(text.replace(',', '.'));

/** `115 V 60 Hz, 13.8 V DC`; commas and semicolons stand between. */
function suppliesOf(text: string, what: string, problems: string[]): Mains[] {
  return text
    .split(/[;,](?!\d)/)
    .map((one) => one.trim())
    .filter((one) => one !== '')
    .flatMap((one): Mains[] => {
      const found = SUPPLY.exec(one);
      if (!found?.[1]) {
        problems.push(`${what}: “${one}” is no supply. Write 230 V 50 Hz, or 13.8 V DC.`);
        return [];
      }
      const volts = number(found[1]);
      return [found[2] ? { kind: 'dc', volts } : { kind: 'ac', volts, hertz: number(found[3] ?? '') }];
    });
}

function secondsOf(text: string, what: string, problems: string[]): number {
  if (text.trim() === '') return 0;
  const seconds = typedMinutes(text);
  if (seconds !== null && Number.isFinite(seconds) && seconds >= 0) return seconds;
  problems.push(`${what}: “${text}” is no time. Write 30 min, or leave it empty for none.`);
  return 0;
}

function partsOf(text: string, problems: string[]): number[] {
  return text
    .replaceAll('%', ' ')
    .split(/[;\s]+|,(?!\d)|,(?=\s)/)
    .flatMap((one) => (one.includes(',') && !/^\d+,\d{1,2}$/.test(one) ? one.split(',') : [one]))
    .filter((one) => one.trim() !== '')
    .map((one) => {
      const part = number(one) / 100;
      if (!(part > 0 && part <= 1)) problems.push(`Load points: “${one}” is no load between 0 and 100 %.`);
      return part;
    });
}

function hottestOf(text: string, problems: string[]): number | null {
  if (text.trim() === '') return null;
  const celsius = number(text.replace(/°?\s*C$/i, '').trim());
  if (celsius >= 0 && celsius <= 150) return celsius + ZERO_CELSIUS;
  problems.push('Loads go off at: write degrees Celsius up to 150, or leave it empty.');
  return null;
}

export type ReadMethod =
  | { readonly ok: true; readonly method: MethodBody }
  | { readonly ok: false; readonly problems: readonly string[] };

/** The method that was typed, or everything that keeps it from being one. */
export function fromMethodText(text: MethodText): ReadMethod {
  const problems: string[] = [];
  const cable = text.kinds.includes('cable');
  const within = number(text.within) / 100;
  if (text.settles === 'yes' && !(within > 0 && within <= 0.5))
    problems.push('Settled within: write per cent, such as 1.');
  const pluggings = Number(text.pluggings);
  if (cable && !(Number.isInteger(pluggings) && pluggings >= 1 && pluggings <= 50))
    problems.push('Pluggings: write a number from 1 to 50.');
  const does = (name: (typeof DOES)[number]) => !cable && text.does.includes(name);
  const time = (value: string, what: string) => (cable ? 0 : secondsOf(value, what, problems));
  const method: MethodBody = {
    title: text.title.trim(),
    says: text.says.trim(),
    kinds: KINDS.filter((kind) => text.kinds.includes(kind)),
    by: text.by === 'keypad' ? 'keypad' : 'instruments',
    mains: suppliesOf(text.mains, 'Mains', problems),
    loads: cable ? [] : partsOf(text.loads, problems),
    levels: text.levels === 'every fixed level' ? 'every fixed level' : 'lowest and highest',
    warmUp: time(text.warmUp, 'Warm-up'),
    settle:
      cable || text.settles !== 'yes'
        ? null
        : { fraction: within, over: time(text.over, 'Settled for'), average: time(text.average, 'Averaged over') },
    idle: time(text.idle, 'Idle'),
    idleAttached: cable ? [] : (text.attached as readonly Attached[]),
    idleWhen: text.idleWhen === 'after the points' ? 'after the points' : 'from cold',
    readOut: cable || does('readOut'),
    proof: does('proof'),
    splits: does('splits'),
    devices: does('devices'),
    charges: does('charges'),
    soak: time(text.soak, 'Soak'),
    hold: time(text.hold, 'Held'),
    sweep: cable ? [] : suppliesOf(text.sweep, 'Other supplies', problems),
    captures: cable ? [] : CAPTURE_KINDS.filter((kind: CaptureKind) => text.captures.includes(kind)),
    hottest: hottestOf(text.hottest, problems),
    watch: text.watch === 'all the time' ? 'all the time' : 'as the steps ask',
    conditions: cable ? [] : fromConditionText(text.byItself, problems),
    line: cable ? { pluggings, bends: text.bends === 'yes' } : null,
  };
  const all = problems.length > 0 ? problems : methodProblems(method);
  return all.length > 0 ? { ok: false, problems: all } : { ok: true, method };
}
