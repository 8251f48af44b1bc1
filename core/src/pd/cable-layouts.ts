// The bits of a marker's reply to Discover Identity. USB PD R3.2, 6.4.4.3.1; version 1.0 by USB PD R2.0, 6.4.4.3.1.
import { choice, type Field, flag, hexadecimal, number, reserved, steps } from './layout.ts';

export const VDM_HEADER = [
  hexadecimal('svid', 31, 16, 'Standard or vendor id'),
  flag('structured', 15, 'Structured'),
  choice('major', 14, 13, 'Version', { 0: '1.0', 1: '2.x' }),
  number('minor', 12, 11, 'Minor version'),
  number('position', 10, 8, 'Object position'),
  choice('reply', 7, 6, 'Command type', { 0: 'request', 1: 'acknowledged', 2: 'refused', 3: 'busy' }),
  reserved(5),
  choice('command', 4, 0, 'Command', { 1: 'discover identity' }),
] as const;

const PRODUCTS = { 0: 'none', 3: 'passive cable', 4: 'active cable', 6: 'powered device on the cable' };
export const ID_HEADER = [
  flag('host', 31, 'USB host'),
  flag('device', 30, 'USB device'),
  choice('product', 29, 27, 'Product type', PRODUCTS),
  flag('modal', 26, 'Alternate modes'),
  number('downstream', 25, 23, 'Downstream product type'),
  choice('connector', 22, 21, 'Connector', { 0: 'not stated', 2: 'receptacle', 3: 'plug' }),
  reserved(20, 16),
  hexadecimal('vendor', 15, 0, 'Vendor id'),
] as const;
export const CERTIFICATE = [hexadecimal('certificate', 31, 0, 'Certification number')] as const;
export const PRODUCT = [
  hexadecimal('product', 31, 16, 'Product id'),
  hexadecimal('release', 15, 0, 'Release'),
] as const;

const VERSIONS = [
  number('hardware', 31, 28, 'Hardware version'),
  number('firmware', 27, 24, 'Firmware version'),
] as const;
const LATENCY = {
  1: 'under 10 ns, about 1 m',
  2: 'under 20 ns, about 2 m',
  3: 'under 30 ns, about 3 m',
  4: 'under 40 ns, about 4 m',
  5: 'under 50 ns, about 5 m',
  6: 'under 60 ns, about 6 m',
  7: 'under 70 ns, about 7 m',
};
const OVER = { ...LATENCY, 8: 'over 70 ns, over 7 m' };
/** Of active cables, which reach further. */
const FAR = { ...LATENCY, 8: '1000 ns, about 100 m', 9: '2000 ns, about 200 m', 10: '3000 ns, about 300 m' };
const VCONN = { 0: 'VCONN not required', 1: 'VCONN required' };
const ACTIVE_ENDS = { 2: 'one end active', 3: 'both ends active' };

const head = (latency: Readonly<Record<number, string>>, termination: Readonly<Record<number, string>>) =>
  [
    ...VERSIONS,
    number('version', 23, 21, 'Layout version'),
    reserved(20),
    choice('plug', 19, 18, 'Plug', { 2: 'Type-C', 3: 'captive' }),
    flag('epr', 17, 'EPR capable'),
    choice('latency', 16, 13, 'Latency', latency),
    choice('termination', 12, 11, 'Termination', termination),
  ] as const;
const highest = (high: number, low: number): Field<'volts'> =>
  choice('volts', high, low, 'Highest VBUS voltage', {
    0: '20 V',
    1: '30 V, deprecated: take 20 V',
    2: '40 V, deprecated: take 20 V',
    3: '50 V',
  });
const AMPS = choice('amps', 6, 5, 'VBUS current', { 0: 'USB default', 1: '3 A', 2: '5 A' });
const SPEED = choice('speed', 2, 0, 'Highest speed', {
  0: 'USB 2.0',
  1: 'Gen 1',
  2: 'Gen 2',
  3: 'Gen 3',
  4: 'Gen 4',
});
const THROUGH = [
  flag('through', 4, 'VBUS through the cable'),
  flag('farEnd', 3, 'Second controller at the far end'),
] as const;

const PASSIVE = [...head(OVER, VCONN), highest(10, 9), reserved(8, 7), AMPS, reserved(4, 3), SPEED] as const;
const ACTIVE = [
  ...head(FAR, ACTIVE_ENDS),
  highest(10, 9),
  flag('sideband', 8, 'No sideband'),
  flag('sidebandActive', 7, 'Active sideband'),
  AMPS,
  ...THROUGH,
  SPEED,
] as const;
/** Layout of markers that speak version 1.0: no voltage, no EPR, and bits 10:7 tell how the pairs run. */
const OLD = [
  ...VERSIONS,
  reserved(23, 20),
  choice('plug', 19, 18, 'Other end', { 0: 'Type-A', 1: 'Type-B', 2: 'Type-C', 3: 'captive' }),
  flag('receptacle', 17, 'Receptacle'),
  choice('latency', 16, 13, 'Latency', OVER),
  choice('termination', 12, 11, 'Termination', { ...VCONN, ...ACTIVE_ENDS }),
  flag('sstx1', 10, 'First transmit pair configurable'),
  flag('sstx2', 9, 'Second transmit pair configurable'),
  flag('ssrx1', 8, 'First receive pair configurable'),
  flag('ssrx2', 7, 'Second receive pair configurable'),
  AMPS,
  ...THROUGH,
  choice('speed', 2, 0, 'Highest speed', { 0: 'USB 2.0', 1: 'Gen 1', 2: 'Gen 2' }),
] as const;
/** The cable's own word, by the kind of cable. */
export const CABLES = { passive: PASSIVE, active: ACTIVE, old: OLD } as const;

/** A field that counts steps of a unit, and states nothing as nought. */
const stated = <Id extends string>(
  id: Id,
  high: number,
  low: number,
  title: string,
  step: number,
  unit: string,
): Field<Id> => {
  const field = steps(id, high, low, title, step, unit);
  return { ...field, says: (raw) => (raw === 0 ? 'not stated' : field.says(raw)) };
};
const not = <Id extends string>(id: Id, bit: number, title: string): Field<Id> =>
  choice(id, bit, bit, title, { 0: 'yes', 1: 'no' });

/** The second word of an active cable: what it bears and what goes through it. */
export const ACTIVE_MORE = [
  stated('works', 31, 24, 'Highest operating temperature inside', 1, '°C'),
  stated('stops', 23, 16, 'Shuts down at', 1, '°C'),
  reserved(15),
  choice('sleep', 14, 12, 'Draw asleep', {
    0: 'over 10 mW',
    1: '5 to 10 mW',
    2: '1 to 5 mW',
    3: '0.5 to 1 mW',
    4: '0.2 to 0.5 mW',
    5: '50 to 200 µW',
    6: 'under 50 µW',
  }),
  choice('waking', 11, 11, 'Wakes', { 0: 'directly', 1: 'through a state between' }),
  choice('medium', 10, 10, 'Medium', { 0: 'copper', 1: 'optical' }),
  choice('element', 9, 9, 'Active element', { 0: 'redriver', 1: 'retimer' }),
  not('usb4', 8, 'USB4'),
  number('hops', 7, 6, 'USB 2.0 hub hops used'),
  not('usb2', 5, 'USB 2.0'),
  not('usb3', 4, 'USB 3.2'),
  choice('lanes', 3, 3, 'Lanes', { 0: 'one', 1: 'two' }),
  flag('isolated', 2, 'Optically isolated'),
  flag('asymmetric', 1, 'USB4 asymmetric mode'),
  choice('generation', 0, 0, 'Generation', { 0: 'Gen 1', 1: 'Gen 2 or higher' }),
] as const;

/** The word of a powered device that sits on the cable, which is none of a cable's. */
export const POWERED_DEVICE = [
  ...VERSIONS,
  number('version', 23, 21, 'Layout version'),
  reserved(20, 17),
  highest(16, 15),
  choice('charge', 14, 14, 'Charge-through current', { 0: '3 A', 1: '5 A' }),
  reserved(13),
  stated('line', 12, 7, 'VBUS resistance', 2, 'mΩ'),
  stated('ground', 6, 1, 'Ground resistance', 1, 'mΩ'),
  flag('chargeThrough', 0, 'Charges through'),
] as const;
