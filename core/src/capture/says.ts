// The figures of a capture in a sentence.
import { sessionSays } from '../charge/index.ts';
import { EVENT_WORDS } from '../heat/index.ts';
import { decimalsFor, formatMeasured, formatPlain, type QuantityId, roundUp } from '../quantity/index.ts';
import { hertzWords, LINE_WORDS } from '../ripple/index.ts';
import { EMPTY_VOLTS } from './events.ts';
import type { CaptureFigures, FadingFigures, SweepFigures, Within } from './types.ts';

const seconds = (value: number): string => formatPlain(value, 'duration', value < 0.1 ? 'ms' : 's');

/** A bare number with its uncertainty, as many digits as that supports. */
function number(value: number, expanded: number | null | undefined, decimals: number): string {
  if (!expanded) return value.toFixed(decimals);
  const digits = decimalsFor(expanded);
  return `${value.toFixed(digits)} ± ${roundUp(expanded, digits).toFixed(digits)}`;
}

const known = (value: number, expanded: number | null | undefined, quantity: QuantityId): string =>
  expanded ? formatMeasured(value, expanded, quantity) : formatPlain(value, quantity);

const unstated = ({ expanded }: { readonly expanded?: object | null }): string =>
  expanded ? '' : '; accuracy of probe and scope not stated';

const milli = (volts: number): string => formatPlain(volts, 'voltage', 'mV');

const supplied = (at: number | null, within?: Within): string | null =>
  at !== null
    ? `at ${formatPlain(at, 'voltage')}`
    : within
      ? `between ${formatPlain(within.from, 'voltage')} and ${formatPlain(within.to, 'voltage')}`
      : null;

function sweepSays({ cutOut, cutOutWithin, restart, restartWithin, lowest }: SweepFigures): string {
  const gone = supplied(cutOut, cutOutWithin);
  const back = supplied(restart, restartWithin);
  return gone === null
    ? `Output stays down to ${formatPlain(lowest, 'voltage')}.`
    : `Output goes ${gone} and ${back === null ? 'does not come back' : `comes back ${back}`}.`;
}

function fadingSays({ empty, half, last }: FadingFigures): string {
  if (empty !== null)
    return `Empty ${seconds(empty)} after it begins to fall, half after ${half === null ? '–' : seconds(half)}.`;
  return last < EMPTY_VOLTS
    ? 'Empty at the end; how long it took is not known.'
    : `Still ${formatPlain(last, 'voltage')} at the end: it stays charged longer.`;
}

/** What a capture shows, the number first; and how much of it nobody read. */
export function captureSays(figures: CaptureFigures): string {
  const says = shown(figures);
  return figures.unread ? `${says.slice(0, -1)}; ${seconds(figures.unread)} of it not read.` : says;
}

function shown(figures: CaptureFigures): string {
  switch (figures.kind) {
    case 'waveform':
      return `Power factor ${number(figures.powerFactor, figures.expanded?.powerFactor, 3)}, crest ${number(figures.currentCrest, figures.expanded?.currentCrest, 2)}, current distorted by ${number(figures.currentDistortion * 100, figures.expanded && figures.expanded.currentDistortion * 100, 0)} %, ${known(figures.watts, figures.expanded?.watts, 'power')} and ${figures.voltAmps.toFixed(1)} VA${unstated(figures)}.`;
    case 'inrush':
      return `${known(figures.peak, figures.expanded?.peak, 'current')} peak, over within ${seconds(figures.length)}, ${figures.squareSeconds.toPrecision(2)} A²s${unstated(figures)}.`;
    case 'idle':
      return figures.burst === null
        ? `${formatPlain(figures.watts, 'power', 'mW')} on average, steady.`
        : `${formatPlain(figures.watts, 'power', 'mW')} on average: ${formatPlain(figures.floor, 'power', 'mW')} between ${figures.bursts} bursts of ${formatPlain(figures.burst, 'power', 'mW')}${figures.period === null ? '' : `, one every ${seconds(figures.period)}`}.`;
    case 'fading':
      return fadingSays(figures);
    case 'dip':
      return figures.lost
        ? `Output gone: it fell from ${formatPlain(figures.from, 'voltage')} to ${formatPlain(figures.lowest, 'voltage')}${figures.recovered ? ' and came back' : figures.after === undefined ? ' and did not come back' : ` and came back at ${formatPlain(figures.after, 'voltage')}`}.`
        : `Lowest ${formatPlain(figures.lowest, 'voltage')} of ${formatPlain(figures.from, 'voltage')}${figures.outside > 0 ? `, outside ±5 % for ${seconds(figures.outside)}` : ', never outside ±5 %'}.`;
    case 'sweep':
      return sweepSays(figures);
    case 'ripple': {
      const [line] = figures.lines;
      const strongest = line
        ? `; strongest ${milli(line.peakToPeak)} at ${hertzWords(line.hertz)}, ${LINE_WORDS[line.kind]}`
        : '';
      return `${milli(figures.peakToPeak)} peak to peak${figures.rms === null ? '' : `, ${milli(figures.rms)} rms`}${strongest}.`;
    }
    case 'charge':
      return sessionSays(figures);
    case 'soak': {
      const hottest = [...figures.sensors].sort((a, b) => (b.steady ?? b.atEnd) - (a.steady ?? a.atEnd))[0];
      if (!hottest) return 'No temperature.';
      const events = figures.events.map(
        ({ kind, at }) => `${EVENT_WORDS[kind]} after ${formatPlain(at, 'duration', 'min')}`,
      );
      const end = `${hottest.name} ${hottest.atEnd.toFixed(1)} °C at the end`;
      const steady =
        hottest.steady === null
          ? 'where it is going is not told'
          : hottest.settled
            ? 'settled'
            : `${hottest.steady.toFixed(1)} °C to come`;
      return `${end}, ${steady}${events.length > 0 ? `; ${events.join(', ')}` : ''}.`;
    }
  }
}
