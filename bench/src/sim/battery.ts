// Real devices behind the ports: batteries that take what they want by their level, with what goes wrong about them.

/** How a device charges. */
export interface BatteryTruth {
  readonly name: string;
  /** J one whole charge takes at the port. */
  readonly joules: number;
  /** Most it takes, W, and the level it wants for that, V. */
  readonly watts: number;
  readonly volts: number;
  /** Level from which it takes less, 0…1, and the part of its power it ends with. */
  readonly knee: number;
  readonly last: number;
  /** W after full. */
  readonly trickle: number;
  /** W its screen takes on top, and W it takes awake with its screen off. */
  readonly screen: number;
  readonly idle: number;
  /** It takes less from so many K of its own, and this part of it then. */
  readonly hotAt: number;
  readonly hotPart: number;
  /** K it warms by per W, and how fast, s. */
  readonly kelvinPerWatt: number;
  readonly seconds: number;
}

/** A device on a port. */
export interface Battery {
  readonly truth: BatteryTruth;
  /** 0…1 */
  level: number;
  screenOn: boolean;
  asleep: boolean;
  /** Power flows out of it. */
  reversed: boolean;
  /** K above the room. */
  warmth: number;
  hot: boolean;
}

export const freshBattery = (truth: BatteryTruth, level: number): Battery => ({
  truth,
  level,
  screenOn: false,
  asleep: true,
  reversed: false,
  warmth: 0,
  hot: false,
});

/** Without the level it wants it takes no more than this, W. */
const AT_FIVE_VOLTS = 15;
/** W that flow out of one that gives. */
const GIVES = 4;
/** It takes all again when it has cooled by so much, K. */
const COOLED = 3;

/** What it takes for itself, whatever its battery takes, W. */
const besides = ({ truth, screenOn, asleep }: Battery): number => (screenOn ? truth.screen : asleep ? 0 : truth.idle);

/**
 * What a device asks for, W.
 * @param volts level it was given
 */
export function demandOf(battery: Battery, volts: number): number {
  const { truth, level, reversed, hot } = battery;
  if (reversed) return -GIVES;
  const { watts, knee, last, trickle } = truth;
  const most = volts >= 0.9 * truth.volts ? watts : Math.min(watts, AT_FIVE_VOLTS);
  const part = level < knee ? 1 : 1 - ((1 - last) * (level - knee)) / (1 - knee);
  const own = level >= 1 ? trickle : Math.min(most, watts * part) * (hot ? truth.hotPart : 1);
  return own + besides(battery);
}

/** A device after some seconds at a power. */
export function charged(battery: Battery, watts: number, seconds: number): void {
  const { joules, kelvinPerWatt, seconds: slow, hotAt } = battery.truth;
  const into = watts - besides(battery);
  if (battery.level < 1 || into < 0)
    battery.level = Math.min(1, Math.max(0, battery.level + (into * seconds) / joules));
  const steady = Math.max(0, watts) * kelvinPerWatt;
  battery.warmth += (steady - battery.warmth) * (1 - Math.exp(-seconds / slow));
  if (battery.warmth >= hotAt) battery.hot = true;
  else if (battery.warmth < hotAt - COOLED) battery.hot = false;
}

const WH = 3600;

/** Devices of the demo's world. */
export const BATTERIES: readonly BatteryTruth[] = [
  {
    name: "Warden's laptop",
    joules: 66 * WH,
    watts: 74,
    volts: 20,
    knee: 0.62,
    last: 0.1,
    trickle: 0.9,
    screen: 9,
    idle: 5,
    hotAt: 24,
    hotPart: 0.62,
    kelvinPerWatt: 0.28,
    seconds: 1500,
  },
  {
    name: 'Loan phone',
    joules: 18 * WH,
    watts: 21,
    volts: 9,
    knee: 0.58,
    last: 0.07,
    trickle: 0.12,
    screen: 1.6,
    idle: 0.5,
    hotAt: 19,
    hotPart: 0.55,
    kelvinPerWatt: 0.7,
    seconds: 700,
  },
  {
    name: 'Hut tablet',
    joules: 32 * WH,
    watts: 27,
    volts: 15,
    knee: 0.8,
    last: 0.13,
    trickle: 0.3,
    screen: 4,
    idle: 1.5,
    hotAt: 40,
    hotPart: 0.7,
    kelvinPerWatt: 0.4,
    seconds: 1200,
  },
  {
    name: 'Valley radio',
    joules: 14.5 * WH,
    watts: 7.6,
    volts: 5,
    knee: 0.75,
    last: 0.12,
    trickle: 0.05,
    screen: 0.4,
    idle: 0.2,
    hotAt: 60,
    hotPart: 1,
    kelvinPerWatt: 0.9,
    seconds: 900,
  },
];
