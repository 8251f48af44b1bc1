// A check in words, for lists and records.
import { formatPlain, fromSi, quantityOf } from '../quantity/index.ts';
import { mainsLabel } from '../reading/index.ts';
import { bondResult } from './bond.ts';
import { CHECK_WORDS, type SafetyCheck } from './checks.ts';

const celsius = (kelvin: number): string => {
  const [unit] = quantityOf('temperature').units;
  return `${unit ? Math.round(fromSi(kelvin, unit)) : '?'} °C`;
};

/**
 * @example describeCheck(touch) // 'Touch current 65 µA rms from the shell of C1, 230 V 50 Hz'
 */
export function describeCheck(check: SafetyCheck): string {
  const name = CHECK_WORDS[check.kind].replace(/^./, (first) => first.toUpperCase());
  switch (check.kind) {
    case 'touch':
      return `${name} ${formatPlain(check.amps, 'current', check.amps < 0.000_999_5 ? 'µA' : 'mA')} ${check.form} from ${check.from}, ${mainsLabel(check.mains)}`;
    case 'earth':
      return `${name} ${formatPlain(check.ohms, 'resistance')} to ${check.to} at ${formatPlain(check.testAmps, 'current')}`;
    case 'bond':
      return `${name} ${bondResult(check).words}`;
    case 'fit':
      return `Sits ${check.hold}${check.reach === null ? '' : `, centre of gravity ${formatPlain(check.reach, 'length')} out`}`;
    case 'mark':
      return `${check.mark}, on the ${check.printed}${check.ambient === null ? '' : `: to ${celsius(check.ambient)}`}`;
  }
}

export const celsiusWords = celsius;
