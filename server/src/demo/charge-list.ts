// Which device was charged on which charger of the Fernwall shelf, and how its battery took it.

/** One charge: what the device draws by its level, and how it was logged. */
export interface Charge {
  /** Charger, by its serial. */
  readonly on: string;
  readonly device: string;
  readonly port: string;
  readonly lead: string;
  readonly volts: number;
  /** Wh, and W at most. */
  readonly battery: number;
  readonly watts: number;
  /** Level from which it takes less, and the part of its power it ends with. */
  readonly knee: number;
  readonly last: number;
  readonly start: number;
  /** W after full, and for how long it is logged, s. */
  readonly after: number;
  readonly afterSeconds: number;
  /** Levels between which power swings to and fro, by what part. */
  readonly hunts?: { readonly from: number; readonly to: number; readonly depth: number };
  /** Pulled after so long, s. */
  readonly until?: number;
  /** Only levels were written down. */
  readonly typed?: boolean;
  /** Whether the device logs its level. */
  readonly logs?: boolean;
  readonly note: string;
}

export const CHARGES: readonly Charge[] = [
  {
    on: 'PT-75-3310',
    device: 'Warden’s laptop',
    port: 'C1',
    lead: '240 W cable, 1 m',
    volts: 20,
    battery: 64,
    watts: 71,
    knee: 0.62,
    last: 0.11,
    start: 0.12,
    after: 0.9,
    afterSeconds: 1500,
    logs: true,
    note: 'Lid closed, asleep.',
  },
  {
    on: 'PT-75-3310',
    device: 'Warden’s laptop',
    port: 'C1',
    lead: 'desk cable, 2 m',
    volts: 20,
    battery: 64,
    watts: 57,
    knee: 0.68,
    last: 0.13,
    start: 0.2,
    after: 0.9,
    afterSeconds: 900,
    logs: true,
    note: 'Lid closed, asleep.',
  },
  {
    on: 'PT-75-3310',
    device: 'Loan phone',
    port: 'C2',
    lead: 'desk cable, 2 m',
    volts: 9,
    battery: 17.5,
    watts: 21,
    knee: 0.6,
    last: 0.08,
    start: 0.05,
    after: 0.12,
    afterSeconds: 1200,
    hunts: { from: 0.28, to: 0.42, depth: 0.3 },
    note: 'Screen off.',
  },
  {
    on: 'PT-75-3310',
    device: 'Hut tablet',
    port: 'C2',
    lead: 'desk cable, 2 m',
    volts: 15,
    battery: 31,
    watts: 27,
    knee: 0.8,
    last: 0.15,
    start: 0.08,
    after: 0,
    afterSeconds: 0,
    until: 2700,
    note: 'The hut’s current goes off at ten.',
  },
  {
    on: 'PT-75-3310',
    device: 'Valley radio',
    port: 'A1',
    lead: 'A lead, 1 m',
    volts: 5,
    battery: 14,
    watts: 7.6,
    knee: 0.75,
    last: 0.12,
    start: 0.3,
    after: 0,
    afterSeconds: 60,
    typed: true,
    note: 'Read off its display.',
  },
  {
    on: 'PT-75-3310',
    device: 'Warden’s laptop',
    port: 'C1',
    lead: 'desk cable, 2 m',
    volts: 20,
    battery: 65.5,
    watts: 56.2,
    knee: 0.67,
    last: 0.13,
    start: 0.15,
    after: 0.9,
    afterSeconds: 600,
    logs: true,
    note: 'Lid closed, asleep. Again, a week later.',
  },
  {
    on: 'OB-18-0092',
    device: 'Warden’s laptop',
    port: 'C1',
    lead: '240 W cable, 1 m',
    volts: 20,
    battery: 64,
    watts: 75.5,
    knee: 0.61,
    last: 0.11,
    start: 0.05,
    after: 0.9,
    afterSeconds: 600,
    logs: true,
    note: 'Lid closed, asleep.',
  },
  {
    on: 'TE-45-0117',
    device: 'Warden’s laptop',
    port: 'C1',
    lead: 'desk cable, 2 m',
    volts: 20,
    battery: 63.2,
    watts: 43.6,
    knee: 0.77,
    last: 0.14,
    start: 0.1,
    after: 0.9,
    afterSeconds: 600,
    logs: true,
    note: 'Lid closed, asleep.',
  },
];
