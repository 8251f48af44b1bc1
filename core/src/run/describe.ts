// A run in a few words, for lists of what was done.
import { formatPlain } from '../quantity/index.ts';
import type { Run } from './types.ts';

const watts = (volts: number, amps: number): string => formatPlain(volts * amps, 'power');

/**
 * What a run was, with the number it is known by.
 * @example describeRun(hold) // 'C1: 65 W held 20 min'
 */
export function describeRun(run: Run): string {
  switch (run.kind) {
    case 'device':
      return `${run.port}: ${formatPlain(run.watts, 'power')}, ${run.outcome}`;
    case 'hold':
      return `${run.port}: ${watts(run.volts, run.amps)} held ${formatPlain(run.held, 'duration')}`;
    case 'move':
      return `${run.port}: ${formatPlain(run.fromVolts, 'voltage')} to ${formatPlain(run.toVolts, 'voltage')}`;
    case 'over':
      return `${run.port}: over ${formatPlain(run.rated, 'current')} at ${formatPlain(run.volts, 'voltage')}`;
    case 'split':
      return run.shares
        .map(
          ({ port, volts, amps }) => `${port} ${volts === null || amps === null ? 'not metered' : watts(volts, amps)}`,
        )
        .join(', ');
  }
}
