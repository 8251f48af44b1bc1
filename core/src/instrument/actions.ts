// What can be asked of each class of instrument, whatever strings its maker chose for it.

/** Classes with actions; the simulated bench has one of each. */
export const PROFILE_CLASSES = [
  'AC source',
  'power analyser',
  'DC load',
  'oscilloscope',
  'thermometer',
  'thermal imager',
  'climate chamber',
  'PD analyser',
  'PD sink',
  'bench multimeter',
  'plug-in wall meter',
  'inline USB meter',
] as const;
export type ProfileClass = (typeof PROFILE_CLASSES)[number];

/** How a reply is to be read. */
export const REPLY_FORMATS = ['none', 'number', 'numbers', 'words', 'text', 'block'] as const;
export type ReplyFormat = (typeof REPLY_FORMATS)[number];

/** An action: the values it takes, in SI, and the reply it must give. */
export interface ActionShape {
  readonly title: string;
  readonly takes: readonly string[];
  readonly reply: ReplyFormat;
}

const does = (title: string, ...takes: readonly string[]): ActionShape => ({ title, takes, reply: 'none' });
const tells = (title: string, reply: ReplyFormat, ...takes: readonly string[]): ActionShape => ({
  title,
  takes,
  reply,
});

/** Actions by class. `off` is what an emergency sends. */
export const ACTIONS: Readonly<Record<ProfileClass, Readonly<Record<string, ActionShape>>>> = {
  'AC source': {
    volts: does('set the voltage, V', 'volts'),
    hertz: does('set the frequency, Hz', 'hertz'),
    on: does('switch on'),
    off: does('switch off'),
    distortion: tells('distortion of its voltage, a fraction', 'number'),
  },
  'power analyser': {
    watts: tells('input power, W', 'number'),
    volts: tells('mains voltage, V', 'number'),
    powerFactor: tells('power factor', 'number'),
    all: tells('time s, W, V, A, power factor', 'numbers'),
    startEnergy: does('start counting energy'),
    stopEnergy: does('stop counting energy'),
    energy: tells('energy counted, Wh', 'number'),
    energyTime: tells('time counted, s', 'number'),
  },
  'DC load': {
    channel: does('choose the channel', 'channel'),
    amps: does('set the current, A', 'amps'),
    on: does('load on'),
    off: does('every load off'),
    isOn: tells('how many channels are switched on, 0 for none', 'number'),
    watchdog: does('go off by itself after seconds of silence, 0 for never', 'seconds'),
    connect: does('plug the sink in'),
    disconnect: does('unplug the sink'),
    request: does('ask for a level', 'position'),
    requestVolts: does('ask for a level at volts', 'position', 'volts'),
    volts: tells('load-end voltage, V', 'number'),
    current: tells('load current, A', 'number'),
    all: tells('time s, then V and A of every channel', 'numbers'),
  },
  oscilloscope: {
    channel: does('choose the port', 'channel'),
    rate: does('set the sample rate, 1/s', 'rate'),
    scale: tells('sample rate 1/s, volts per count', 'numbers'),
    capture: tells('samples, 16-bit', 'block', 'points'),
    mainsScale: tells('mains side: sample rate 1/s, volts and amps per count', 'numbers'),
    mainsVolts: tells('mains volts, 16-bit', 'block', 'points'),
    mainsAmps: tells('mains amps, 16-bit', 'block', 'points'),
    inrush: tells('amps as it was last switched on, 16-bit, tenfold counts', 'block', 'points'),
  },
  thermometer: { all: tells('every point, °C', 'numbers') },
  'thermal imager': {
    hottest: tells('hottest spot of a face, °C', 'number', 'face'),
    all: tells('front, back and side, °C', 'numbers'),
  },
  'climate chamber': {
    celsius: does('set the temperature, °C', 'celsius'),
    on: does('switch on'),
    off: does('switch off'),
    temperature: tells('air, °C', 'number'),
  },
  'PD analyser': {
    offers: tells('offers of a port, words', 'words', 'channel'),
    cable: tells('the cable’s reply, words', 'words'),
    info: tells('source info of a port, a word', 'words', 'channel'),
  },
  'PD sink': {
    channel: does('choose the port', 'channel'),
    connect: does('plug the sink in'),
    disconnect: does('unplug the sink'),
    request: does('ask for a level', 'position'),
    requestVolts: does('ask for a level at volts', 'position', 'volts'),
  },
  'bench multimeter': {
    volts: tells('voltage of a port, V', 'number', 'channel'),
    all: tells('time s, then V of every port', 'numbers'),
  },
  'plug-in wall meter': { watts: tells('input power, W', 'number') },
  'inline USB meter': {
    channel: does('choose the port', 'channel'),
    volts: tells('voltage, V', 'number'),
    current: tells('current, A', 'number'),
    all: tells('time s, V, A', 'numbers'),
  },
};
