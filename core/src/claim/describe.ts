// Claims in words.
import { formatPlain } from '../quantity/index.ts';
import { mainsLabel, SUPPLY_WORDS } from '../reading/index.ts';
import type { ClaimDuration, Promised } from './types.ts';

const atMains = (promise: { mains: Parameters<typeof mainsLabel>[0] | null }): string =>
  promise.mains ? ` at ${mainsLabel(promise.mains)}` : '';

/** A promise as one ledger line: `C1: 20 V 3.25 A`, `C1 + A1: 45 + 18 W`. */
export function describePromise(promise: Promised): string {
  switch (promise.kind) {
    case 'port-line':
      return `${promise.port}: ${formatPlain(promise.volts, 'voltage')} ${formatPlain(promise.amps, 'current')}`;
    case 'range':
      return `${promise.port}: ${SUPPLY_WORDS[promise.supply]} ${formatPlain(promise.low, 'voltage').replace(' V', '')}–${formatPlain(promise.high, 'voltage')} ${formatPlain(promise.amps, 'current')}`;
    case 'signal':
      return `${promise.port}: ${promise.title}`;
    case 'total':
      return `Total ${formatPlain(promise.watts, 'power')}`;
    case 'combination':
      return `${promise.shares.map((share) => share.port).join(' + ')}: ${promise.shares
        .map((share) => formatPlain(share.watts, 'power', 'W').replace(' W', ''))
        .join(' + ')} W`;
    case 'average-efficiency':
      return `Average efficiency ${formatPlain(promise.ratio, 'efficiency')}${atMains(promise)}`;
    case 'idle':
      return `Idle below ${formatPlain(promise.watts, 'power')}${atMains(promise)}`;
    case 'wording':
      return `“${promise.text}”`;
  }
}

/** For how long a power is promised, in words. */
export function describeDuration(duration: ClaimDuration): string {
  if (duration.kind === 'peak') return `for ${formatPlain(duration.seconds, 'duration', 's')}`;
  return duration.kind === 'continuous' ? 'continuous' : 'for how long not stated';
}
