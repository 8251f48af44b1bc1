// For how long: hold-time against power, and whether a timer or the heat ends it.
import { formatPlain } from '../quantity/index.ts';
import { currentRuns } from './runs.ts';
import type { HoldRun, MoveRun, OverRun, Run } from './types.ts';

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

const SAME_TIME = 0.08;
const SAME_HEAT = 3;
const OTHER_POWER = 0.03;

/**
 * What ended the holds: the same time at two powers is a timer, the same temperature at two times the heat.
 * @returns null when nothing ended early; `not told` until it was repeated at a second power
 */
function causeOf(ended: readonly HoldLine[]): HoldSummary['cause'] {
  if (ended.length === 0) return null;
  const pairs = ended.flatMap((a, index) => ended.slice(index + 1).map((b) => [a, b] as const));
  const telling = pairs.filter(([a, b]) => Math.abs(a.watts - b.watts) > OTHER_POWER * Math.max(a.watts, b.watts));
  if (telling.length === 0) return 'not told';
  const sameTime = telling.every(
    ([a, b]) => Math.abs(a.run.held - b.run.held) <= Math.max(10, SAME_TIME * Math.max(a.run.held, b.run.held)),
  );
  const heats = telling.flatMap(([a, b]) =>
    a.run.hottest !== null && b.run.hottest !== null ? [Math.abs(a.run.hottest - b.run.hottest)] : [],
  );
  const sameHeat = heats.length > 0 && heats.every((difference) => difference <= SAME_HEAT);
  if (sameTime && sameHeat) return 'either';
  if (sameTime) return 'timer';
  return sameHeat ? 'thermal' : 'not told';
}

function sentenceOf(lines: readonly HoldLine[], cause: HoldSummary['cause'], held: HoldSummary['held']): string {
  const minutes = (seconds: number) => formatPlain(seconds, 'duration', seconds < 120 ? 's' : 'min');
  const first = lines.find(({ ended }) => ended);
  const good = held ? `${formatPlain(held.watts, 'power')} held for ${minutes(held.seconds)}` : null;
  if (!first) return good ? `${good}, to the end.` : 'No hold yet.';
  const how = `${formatPlain(first.watts, 'power')} ${first.run.end} after ${minutes(first.run.held)}`;
  const hot = first.run.hottest === null ? '' : ` at ${formatPlain(first.run.hottest, 'temperature', '°C')}`;
  const why = {
    timer: 'The same time at two powers: a timer.',
    thermal: 'The same temperature at two powers: the heat.',
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
