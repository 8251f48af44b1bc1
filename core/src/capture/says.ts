// The figures of a capture in a sentence.
import { formatPlain } from '../quantity/index.ts';
import type { CaptureFigures } from './types.ts';

const seconds = (value: number): string => formatPlain(value, 'duration', value < 0.1 ? 'ms' : 's');

/** What a capture shows, the number first. */
export function captureSays(figures: CaptureFigures): string {
  switch (figures.kind) {
    case 'waveform':
      return `Power factor ${figures.powerFactor.toFixed(3)}, crest ${figures.currentCrest.toFixed(2)}, current distorted by ${(figures.currentDistortion * 100).toFixed(0)} %, ${formatPlain(figures.watts, 'power')} and ${figures.voltAmps.toFixed(1)} VA.`;
    case 'inrush':
      return `${formatPlain(figures.peak, 'current')} peak, over within ${seconds(figures.length)}, ${figures.squareSeconds.toPrecision(2)} A²s.`;
    case 'idle':
      return figures.burst === null
        ? `${formatPlain(figures.watts, 'power', 'mW')} on average, steady.`
        : `${formatPlain(figures.watts, 'power', 'mW')} on average: ${formatPlain(figures.floor, 'power', 'mW')} between ${figures.bursts} bursts of ${formatPlain(figures.burst, 'power', 'mW')}${figures.period === null ? '' : `, one every ${seconds(figures.period)}`}.`;
    case 'fading':
      return figures.empty === null
        ? `Still ${formatPlain(figures.last, 'voltage')} at the end: it stays charged longer.`
        : `Empty ${seconds(figures.empty)} after it begins to fall, half after ${figures.half === null ? '–' : seconds(figures.half)}.`;
    case 'dip':
      return figures.lost
        ? `Output gone: it fell from ${formatPlain(figures.from, 'voltage')} to ${formatPlain(figures.lowest, 'voltage')}${figures.recovered ? ' and came back' : ' and did not come back'}.`
        : `Lowest ${formatPlain(figures.lowest, 'voltage')} of ${formatPlain(figures.from, 'voltage')}${figures.outside > 0 ? `, outside ±5 % for ${seconds(figures.outside)}` : ', never outside ±5 %'}.`;
    case 'sweep':
      return figures.cutOut === null
        ? `Output stays down to ${formatPlain(figures.lowest, 'voltage')}.`
        : `Output goes at ${formatPlain(figures.cutOut, 'voltage')} and ${figures.restart === null ? 'does not come back' : `comes back at ${formatPlain(figures.restart, 'voltage')}`}.`;
  }
}
