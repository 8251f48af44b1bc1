// Cables as the simulated bench knows them: wire, contacts, what they answer, how they wear. Invented.

import type { CableTruth } from './truth.ts';

const marker = (cable: string): readonly string[] => ['FF00A041', '18002E5B', '00000000', '12340100', cable];

/** Cables of the bench itself, by what they are. */
const OF_THE_BENCH: readonly CableTruth[] = [
  {
    name: '240 W, 1 m',
    copperOhms: 0.078,
    contactOhms: 0.036,
    marker: marker('000A2640'),
    marks: '5 A EPR',
    contactSpread: 0.05,
  },
  { name: '60 W, 1 m', copperOhms: 0.118, contactOhms: 0.038, marker: marker('00082020'), marks: '3 A' },
  { name: '"240 W" without a marker, 1 m', copperOhms: 0.126, contactOhms: 0.044, marker: [], marks: 'none' },
  {
    name: 'thin, 3 m',
    copperOhms: 0.41,
    contactOhms: 0.05,
    marker: marker('00083020'),
    marks: '3 A',
    kelvinPerWatt: 3,
  },
  {
    name: 'worn by bending, 1 m',
    copperOhms: 0.131,
    contactOhms: 0.112,
    marker: marker('00082020'),
    marks: '3 A',
    contactSpread: 0.12,
    wear: { from: 2000, perThousand: 0.008, opensFrom: 9000 },
  },
  {
    name: '60 W with a 5 A marker, 1 m',
    copperOhms: 0.118,
    contactOhms: 0.04,
    marker: marker('00082040'),
    marks: '5 A',
    kelvinPerWatt: 6,
  },
];

/** A cable of the huts, by its model: warmed like most, and never the same twice at its contacts. */
const hut = (name: string, copperOhms: number, contactOhms: number, part: Partial<CableTruth> = {}): CableTruth => ({
  name,
  copperOhms,
  contactOhms,
  marker: [],
  marks: 'none',
  contactSpread: 0.06,
  kelvinPerWatt: 3,
  ...part,
});

/** Cables, an extension and a data blocker of the huts. */
const OF_THE_HUTS: readonly CableTruth[] = [
  hut('Tether 60', 0.118, 0.036, { marker: marker('00082020'), marks: '3 A' }),
  hut('Tether 60, 2 m', 0.233, 0.036, { marker: marker('00084020'), marks: '3 A' }),
  hut('Tether 240', 0.084, 0.03, { marker: marker('000A2640'), marks: '5 A EPR', kelvinPerWatt: 4 }),
  hut('Hawser 240', 0.126, 0.044),
  hut('Long Line', 0.41, 0.05, { marker: marker('00086020'), marks: '3 A' }),
  hut('Bunk Cord', 0.139, 0.042, {
    marker: marker('00082020'),
    marks: '3 A',
    wear: { from: 1500, perThousand: 0.0062, opensFrom: 7000 },
  }),
  hut('Reach 1', 0.122, 0.06),
  hut('Plain Pass', 0.012, 0.058, { contactSpread: 0.15 }),
];

export const CABLES: readonly CableTruth[] = [...OF_THE_BENCH, ...OF_THE_HUTS];
