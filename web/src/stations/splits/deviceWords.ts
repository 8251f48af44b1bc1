// The device on a port of a combination, in words.
import { formatPlain } from '@lastmark/core/quantity';
import type { Device, SplitShare } from '@lastmark/core/run';

/**
 * Name, battery level and tries of a share's device; nothing where none was named.
 * @example deviceWords(share, devices) // ['C1: Loan phone at 40 %, started at the 3rd try']
 */
export function deviceWords(
  { port, device }: Pick<SplitShare, 'port' | 'device'>,
  devices: readonly Pick<Device, 'id' | 'name'>[],
): string[] {
  if (!device) return [];
  const name = devices.find(({ id }) => id === device.deviceId)?.name ?? 'a device gone from the bench';
  const level = device.charge === null ? '' : ` at ${formatPlain(device.charge, 'efficiency')}`;
  const tries =
    device.tries === null ? '' : device.tries === 1 ? ', started at once' : `, started after ${device.tries} tries`;
  return [`${port}: ${name}${level}${tries}`];
}
