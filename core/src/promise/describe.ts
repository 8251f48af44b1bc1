// Claims in words.

import { formatPlain } from '../quantity/index.ts';
import { mainsLabel, SUPPLY_WORDS } from '../reading/index.ts';
import { type ClaimDuration, type Promised, type PromisedShare, sharePorts } from './types.ts';

const atMains = (promise: { mains: Parameters<typeof mainsLabel>[0] | null }): string =>
  promise.mains ? ` at ${mainsLabel(promise.mains)}` : '';

/** `C1 + C2: 45 + 20 W`, `C2 + C3 share 20 W`, `C1 alone: 100 W`. */
function describeShares(shares: readonly PromisedShare[]): string {
  const [only] = shares;
  if (only && shares.length === 1) {
    const ports = sharePorts(only);
    return ports.length > 1
      ? `${ports.join(' + ')} share ${formatPlain(only.watts, 'power', 'W')}`
      : `${only.port} alone: ${formatPlain(only.watts, 'power', 'W')}`;
  }
  const names = shares.map((share) => (share.with ? `(${sharePorts(share).join(' + ')})` : share.port));
  const watts = shares.map((share) => formatPlain(share.watts, 'power', 'W').replace(' W', ''));
  return `${names.join(' + ')}: ${watts.join(' + ')} W`;
}

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
      return describeShares(promise.shares);
    case 'average-efficiency':
      return `Average efficiency ${formatPlain(promise.ratio, 'efficiency')}${atMains(promise)}`;
    case 'idle':
      return `Idle below ${formatPlain(promise.watts, 'power')}${atMains(promise)}`;
    case 'ripple':
      return `Ripple below ${formatPlain(promise.volts, 'voltage', 'mV')}${atMains(promise)}`;
    case 'surface':
      return `Surface below ${promise.celsius} °C`;
    case 'charge-time':
      return `${promise.device || 'Any device'}: ${formatPlain(promise.from, 'efficiency').replace(' %', '')} to ${formatPlain(promise.to, 'efficiency')} in ${formatPlain(promise.seconds, 'duration', 'min')}`;
    case 'cable-rating':
      return `Carries ${formatPlain(promise.amps * promise.volts, 'power')}: ${formatPlain(promise.amps, 'current')} at ${formatPlain(promise.volts, 'voltage')}`;
    case 'data-rate':
      return `Data at ${promise.bits >= 1e9 ? `${promise.bits / 1e9} Gbit/s` : `${promise.bits / 1e6} Mbit/s`}`;
    case 'bends':
      return `${promise.count} bends`;
    case 'wording':
      return `“${promise.text}”`;
  }
}

/** For how long a power is promised, in words. */
export function describeDuration(duration: ClaimDuration): string {
  if (duration.kind === 'peak') return `for ${formatPlain(duration.seconds, 'duration', 's')}`;
  return duration.kind === 'continuous' ? 'continuous' : 'for how long not stated';
}
