// For how long: hold-time against power, and whether a timer or the heat ends it.

import { formatPlain } from '../quantity/index.ts';
import { currentRuns, type HoldRun, type MoveRun, type OverRun, type Run } from '../run/index.ts';

export interface HoldLine {
  readonly run: HoldRun;
  /** All that was drawn, W. */
  readonly watts: number;
  readonly ended: boolean;
}

/** Holds of one loading at different powers. */
export interface HoldSummary {
  /** Ports loaded, with their levels: "C1 20 V", "C1 20 V + A1 5 V". */
  readonly title: string;
  /** By power, highest first. */
  readonly lines: readonly HoldLine[];
  /** Highest power held for the whole of the planned time, W, and that time, s. */
  readonly held: { readonly watts: number; readonly seconds: number } | null;
  readonly cause: 'timer' | 'thermal' | 'either' | 'not told' | null;
  readonly sentence: string;
}

/** Everything a hold drew, W. */
export const holdWatts = ({ volts, amps, others }: Pick<HoldRun, 'volts' | 'amps' | 'others'>): number =>
  others.reduce((total, one) => total + one.volts * one.amps, volts * amps);

/** Two times count as one within this part and this many seconds: how well people and watchers time. */
const SAME_TIME = 0.05;
const SAME_SECONDS = 1;
/** K within which two temperatures are one, and by which a room is another. */
const SAME_HEAT = 3;
const OTHER_ROOM = 5;
/** K over the room below which nothing has warmed up enough to trip. */
const WARM = 10;
const OTHER_POWER = 0.03;

const sameTime = (a: number, b: number): boolean => Math.abs(a - b) <= SAME_TIME * Math.max(a, b) + SAME_SECONDS;

/** Whether a hold ended warm enough for the heat to be behind it; an unknown room leaves it open. */
const warmed = ({ hottest, ambient }: HoldRun): boolean =>
  hottest !== null && (ambient === null || hottest - ambient >= WARM);

/** What two holds that ended early tell together; null where they tell nothing. */
function pairSays(a: HoldLine, b: HoldLine): 'timer' | 'thermal' | 'either' | 'neither' | null {
  const [one, other] = [a.run, b.run];
  const otherPower = Math.abs(a.watts - b.watts) > OTHER_POWER * Math.max(a.watts, b.watts);
  const otherRoom =
    one.ambient !== null && other.ambient !== null && Math.abs(one.ambient - other.ambient) >= OTHER_ROOM;
  if (!otherPower && !otherRoom) return null;
  const equal = sameTime(one.held, other.held);
  // In a warmer room the heat comes sooner, a timer does not.
  if (otherRoom && !otherPower) {
    const warmer = (one.ambient ?? 0) > (other.ambient ?? 0) ? one : other;
    const cooler = warmer === one ? other : one;
    return equal ? 'timer' : warmer.held < cooler.held ? 'thermal' : 'neither';
  }
  const heat =
    one.hottest !== null &&
    other.hottest !== null &&
    Math.abs(one.hottest - other.hottest) <= SAME_HEAT &&
    warmed(one) &&
    warmed(other);
  if (equal && heat) return otherRoom ? 'timer' : 'either';
  if (equal) return 'timer';
  return heat ? 'thermal' : 'neither';
}

/**
 * What ended the holds: the same time at two powers, or in two rooms, is a timer; the same temperature at two times, or
 * sooner in a warmer room, the heat.
 * @returns null when nothing ended early; `not told` until it was repeated at a second power
 */
function causeOf(ended: readonly HoldLine[]): HoldSummary['cause'] {
  if (ended.length === 0) return null;
  const told = ended.flatMap((a, index) => ended.slice(index + 1).flatMap((b) => pairSays(a, b) ?? []));
  if (told.length === 0 || told.includes('neither')) return 'not told';
  const timer = told.every((one) => one !== 'thermal');
  const thermal = told.every((one) => one !== 'timer');
  if (timer && thermal) return 'either';
  return timer ? 'timer' : thermal ? 'thermal' : 'not told';
}

/** Whether all that ended early did so at one power: then the room told, not the power. */
const onePower = (lines: readonly HoldLine[]): boolean =>
  lines
    .filter(({ ended }) => ended)
    .every(({ watts }, _, [first]) => Math.abs(watts - (first?.watts ?? 0)) <= OTHER_POWER * watts);

function sentenceOf(lines: readonly HoldLine[], cause: HoldSummary['cause'], held: HoldSummary['held']): string {
  const minutes = (seconds: number) => formatPlain(seconds, 'duration', seconds < 120 ? 's' : 'min');
  const first = lines.find(({ ended }) => ended);
  const good = held ? `${formatPlain(held.watts, 'power')} held for ${minutes(held.seconds)}` : null;
  if (!first) return good ? `${good}, to the end.` : 'No hold yet.';
  const how = `${formatPlain(first.watts, 'power')} ${first.run.end} after ${minutes(first.run.held)}`;
  const hot = first.run.hottest === null ? '' : ` at ${formatPlain(first.run.hottest, 'temperature', '°C')}`;
  const why = {
    timer: onePower(lines) ? 'The same time in two rooms: a timer.' : 'The same time at two powers: a timer.',
    thermal: onePower(lines) ? 'Sooner in the warmer room: the heat.' : 'The same temperature at two powers: the heat.',
    either: 'Time and temperature agree at both powers: it can be either. Start once from warm to tell.',
    'not told':
      lines.filter(({ ended }) => ended).length > 1
        ? 'Neither time nor temperature agrees: repeat, with the hottest spot noted.'
        : 'Repeat at a second power to tell a timer from the heat.',
  };
  return `${how}${hot}. ${cause ? why[cause] : ''}${good ? ` ${good}, to the end.` : ' No power was held to the end yet.'}`;
}

const loadingOf = ({ port, volts, others }: HoldRun): string =>
  [{ port, volts }, ...others].map((one) => `${one.port} ${formatPlain(one.volts, 'voltage')}`).join(' + ');

/** Holds of a sample, grouped by what was loaded. */
export function holdSummaries(runs: readonly Run[]): readonly HoldSummary[] {
  const holds = currentRuns(runs).filter((run): run is HoldRun => run.kind === 'hold');
  return [...new Set(holds.map(loadingOf))].map((title) => {
    const lines = holds
      .filter((run) => loadingOf(run) === title)
      .map((run) => ({ run, watts: holdWatts(run), ended: run.end !== 'held to the end' }))
      .sort((a, b) => b.watts - a.watts);
    const best = lines.find(({ ended }) => !ended);
    const held = best ? { watts: best.watts, seconds: best.run.held } : null;
    const cause = causeOf(lines.filter(({ ended }) => ended));
    return { title, lines, held, cause, sentence: sentenceOf(lines, cause, held) };
  });
}

/** What two loadings tell together that neither tells alone, with the runs behind it. */
export interface HoldCause {
  readonly runIds: readonly [string, string];
  readonly sentence: string;
}

/** The first end of a loading at its highest power, where nothing was told yet. */
const untold = ({ lines, cause }: HoldSummary): readonly HoldLine[] =>
  cause === 'not told' ? lines.filter(({ ended }) => ended).slice(0, 1) : [];

/** Loadings at different levels that ended at one time, or at one temperature. */
export function acrossLoadings(holds: readonly HoldSummary[]): readonly HoldCause[] {
  const ends = holds.flatMap((summary) => untold(summary).map((line) => ({ ...line, title: summary.title })));
  return ends.flatMap((a, index) =>
    ends.slice(index + 1).flatMap((b): HoldCause[] => {
      const told = pairSays(a, b);
      if (told !== 'timer' && told !== 'thermal') return [];
      const said = ({ watts, title }: (typeof ends)[number]) => `${title} at ${formatPlain(watts, 'power')}`;
      const minutes = formatPlain(a.run.held, 'duration', a.run.held < 120 ? 's' : 'min');
      const why =
        told === 'timer'
          ? `after the same ${minutes}: a timer`
          : `at the same ${formatPlain(a.run.hottest ?? 0, 'temperature', '°C')}: the heat`;
      return [{ runIds: [a.run.id, b.run.id], sentence: `${said(a)} and ${said(b)} ${a.run.end} ${why}.` }];
    }),
  );
}

/** An adjustable level moved under load, in a sentence. */
export function moveSentence({ fromVolts, toVolts, amps, breaks, longest, lowest }: MoveRun): string {
  const path = `${formatPlain(fromVolts, 'voltage')} to ${formatPlain(toVolts, 'voltage')} at ${formatPlain(amps, 'current')}`;
  if (breaks === 0) return `${path}: no break.`;
  const long = longest === null ? 'not timed' : `longest ${formatPlain(longest, 'duration', longest < 1 ? 'ms' : 's')}`;
  const low = lowest === null ? '' : `, down to ${formatPlain(lowest, 'voltage')}`;
  return `${path}: ${breaks} ${breaks === 1 ? 'break' : 'breaks'}, ${long}${low}.`;
}

export type OverEnd = 'reached the end' | 'folded back' | 'cut off';

export interface OverSummary {
  readonly run: OverRun;
  readonly end: OverEnd;
  /** Highest current delivered in full, A; null when none was. */
  readonly highest: number | null;
  /** First current that was not, A: the trip lies between the two; null when it never tripped. */
  readonly trip: number | null;
  readonly sentence: string;
}

/** What one step over the rating says. A cut-off is the output gone, a fold-back less current than asked or a sunk level. */
export function overStepEnd(
  step: { readonly asked: number; readonly amps: number; readonly volts: number },
  level: number,
): OverEnd | null {
  if (step.volts < Math.min(1, level / 4) || step.amps < 0.05 * step.asked) return 'cut off';
  return step.amps < 0.97 * step.asked || step.volts < 0.9 * level ? 'folded back' : null;
}

/** A search over the rating, concluded. */
export function overSummary(run: OverRun): OverSummary {
  const at = run.steps.findIndex((step) => overStepEnd(step, run.volts) !== null);
  const tripped = run.steps[at];
  const good = at < 0 ? run.steps : run.steps.slice(0, at);
  const highest = good.at(-1)?.asked ?? null;
  const amps = (value: number) => formatPlain(value, 'current');
  const percent = (value: number) => `${Math.round((value / run.rated) * 100)} %`;
  const level = `${run.port} ${formatPlain(run.volts, 'voltage')}`;
  if (!tripped)
    return {
      run,
      end: 'reached the end',
      highest,
      trip: null,
      sentence: `${level}: gave ${amps(highest ?? 0)}, ${percent(highest ?? 0)} of its rating, without folding back. Not searched further.`,
    };
  const end = overStepEnd(tripped, run.volts) ?? 'cut off';
  const between =
    highest === null ? `at ${amps(tripped.asked)} or below` : `between ${amps(highest)} and ${amps(tripped.asked)}`;
  const after =
    end === 'folded back'
      ? `, to ${amps(tripped.amps)}`
      : run.latched === true
        ? '; stays off until unplugged'
        : run.recovery !== null
          ? `; back after ${formatPlain(run.recovery, 'duration', 's')}`
          : '';
  return {
    run,
    end,
    highest,
    trip: tripped.asked,
    sentence: `${level}: ${end} ${between} (${percent(tripped.asked)} of its rating)${after}.`,
  };
}

/** A hold as it is drawn and saved. */
export interface HoldRow extends Pick<HoldRun, 'held' | 'planned' | 'end'> {
  readonly title: string;
  readonly watts: number;
  readonly ended: boolean;
}

/** Every hold, loading by loading, the highest power first. */
export const holdRows = (holds: readonly HoldSummary[]): readonly HoldRow[] =>
  holds.flatMap(({ title, lines }) =>
    lines.map(({ run: { held, planned, end }, watts, ended }) => ({ title, watts, held, planned, end, ended })),
  );
