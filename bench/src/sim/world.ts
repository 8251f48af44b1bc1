// The Fernwall chargers as the simulated bench knows them. Invented, by our own models.
import { fixedWatts, parseOffer, type SourceObject } from '@lastmark/core/pd';
import type { ChargerTruth, PortTruth } from './truth.ts';

export const offers = (...lines: readonly string[]): SourceObject[] =>
  lines.map((line, index) => {
    const parsed = parseOffer(line);
    if (!parsed.ok) throw new Error(`${line}: ${parsed.reason}`);
    const { object } = parsed;
    return index === 0 && object.kind === 'fixed' ? { ...object, flags: ['unconstrained'] } : object;
  });

const port = (label: string, lines: readonly string[], part: Partial<PortTruth> = {}): PortTruth => ({
  label,
  connector: label.startsWith('A') ? 'A' : 'C',
  watts: fixedWatts(offers(...lines)),
  offers: offers(...lines),
  signals: label.startsWith('A') ? ['dcp', 'divider', 'stepped-high'] : ['dcp'],
  refuses: [],
  ...part,
});

/** An honest small wall charger; the others say how they differ. */
export const SOUND: Omit<ChargerTruth, 'name' | 'kind' | 'nameplate' | 'ports'> = {
  allocations: [],
  gap: 0.35,
  loss: { fixed: 0.22, proportional: 0.05, resistive: 0.03, lowMains: 0.35, perVoltBelow20: 0.0012 },
  idle: { floor: 0.028, burst: 0.6, period: 20, length: 0.5 },
  correctionFrom: Number.POSITIVE_INFINITY,
  sourceOhms: 0.02,
  levelOffset: 0.004,
  ripple: { mains: 0.012, switching: 0.03, switchingHertz: 130_000, burst: 0.05, burstHertz: 900, burstBelow: 0.08 },
  heat: {
    insideCapacity: 60,
    shellCapacity: 110,
    insideToShell: 0.35,
    shellToRoom: 0.14,
    faces: { front: 1, back: 0.82, side: 0.9 },
    throttleAt: Number.POSITIVE_INFINITY,
    throttleTo: 1,
    tripAt: 410,
  },
  overload: { at: 1.14, how: 'cuts off', recovery: 2 },
  supply: { inrushOhms: 5, bulkFarads: 27e-6, bleedSeconds: 3.2, cutOut: null, restart: null, droopBelow12: 0 },
  display: null,
  peak: null,
};

export const CHARGERS: readonly ChargerTruth[] = [
  {
    ...SOUND,
    name: 'Ember 45',
    kind: 'wall',
    nameplate: 45,
    ports: [port('C1', ['5 V 3 A', '9 V 3 A', '15 V 3 A', '20 V 2.25 A', 'PPS 3.3–16 V 3 A', 'SPR AVS 3 A / 2.25 A'])],
  },
  {
    ...SOUND,
    name: 'Trio 75',
    kind: 'wall',
    nameplate: 75,
    ports: [
      port('C1', ['5 V 3 A', '9 V 3 A', '15 V 3 A', '20 V 3.75 A', 'PPS 3.3–21 V 3.75 A']),
      port('C2', ['5 V 3 A', '9 V 3 A', '15 V 2 A', '20 V 1.5 A']),
      port('A1', ['5 V 2.4 A']),
    ],
    allocations: [
      { ports: ['C1', 'C2'], watts: { C1: 45, C2: 27 } },
      { ports: ['C1', 'A1'], watts: { C1: 60, A1: 12 } },
      { ports: ['C2', 'A1'], watts: { C2: 27, A1: 12 } },
      { ports: ['C1', 'C2', 'A1'], watts: { C1: 45, C2: 15, A1: 12 } },
    ],
    loss: { ...SOUND.loss, fixed: 0.35, proportional: 0.06, resistive: 0.04 },
    idle: { floor: 0.06, burst: 0.9, period: 18, length: 0.8 },
    heat: {
      ...SOUND.heat,
      insideCapacity: 90,
      shellCapacity: 160,
      shellToRoom: 0.17,
      throttleAt: 273.15 + 88,
      throttleTo: 0.8,
    },
  },
  {
    ...SOUND,
    name: 'Quad 130',
    kind: 'desktop',
    nameplate: 130,
    ports: [
      port('C1', ['5 V 3 A', '9 V 3 A', '12 V 3 A', '15 V 3 A', '20 V 5 A', 'PPS 5–11 V 5 A', 'PPS 5–16 V 5 A'], {
        refuses: [3],
      }),
      port('C2', ['5 V 3 A', '9 V 3 A', '15 V 3 A', '20 V 3.25 A']),
      port('C3', ['5 V 3 A', '9 V 2.22 A']),
      port('A1', ['5 V 2.4 A']),
    ],
    // It promises 65 + 65 W and gives 60 + 45.
    allocations: [
      { ports: ['C1', 'C2'], watts: { C1: 60, C2: 45 } },
      { ports: ['C1', 'C3'], watts: { C1: 65, C3: 20 } },
      { ports: ['C1', 'A1'], watts: { C1: 65, A1: 12 } },
      { ports: ['C2', 'C3'], watts: { C2: 65, C3: 20 } },
      { ports: ['C2', 'A1'], watts: { C2: 65, A1: 12 } },
      { ports: ['C3', 'A1'], watts: { C3: 15, A1: 7.5 } },
      { ports: ['C1', 'C2', 'C3'], watts: { C1: 60, C2: 30, C3: 15 } },
      { ports: ['C1', 'C2', 'A1'], watts: { C1: 60, C2: 30, A1: 12 } },
      { ports: ['C1', 'C3', 'A1'], watts: { C1: 65, C3: 15, A1: 7.5 } },
      { ports: ['C2', 'C3', 'A1'], watts: { C2: 65, C3: 15, A1: 7.5 } },
      { ports: ['C1', 'C2', 'C3', 'A1'], watts: { C1: 60, C2: 30, C3: 15, A1: 7.5 } },
    ],
    gap: 1.1,
    loss: { ...SOUND.loss, fixed: 0.5, proportional: 0.055, resistive: 0.045 },
    idle: { floor: 0.15, burst: 1.1, period: 12, length: 0.5 },
    correctionFrom: 70,
    heat: { ...SOUND.heat, insideCapacity: 180, shellCapacity: 320, insideToShell: 0.5, shellToRoom: 0.32 },
  },
  {
    ...SOUND,
    name: 'Six 210',
    kind: 'desktop',
    nameplate: 210,
    ports: [
      port('C1', ['5 V 3 A', '9 V 3 A', '15 V 3 A', '20 V 5 A', 'PPS 3.3–21 V 5 A']),
      port('C2', ['5 V 3 A', '9 V 3 A', '15 V 3 A', '20 V 5 A']),
      port('C3', ['5 V 3 A', '9 V 2.77 A', '15 V 1.66 A']),
      port('C4', ['5 V 3 A', '9 V 2.77 A', '15 V 1.66 A']),
      port('A1', ['5 V 2.4 A']),
      port('A2', ['5 V 2.4 A']),
    ],
    // Three budgets: C1 and C2 share 165 W, C3 and C4 share 30 W, A1 and A2 share 15 W.
    allocations: budgets([
      { ports: ['C1', 'C2'], both: { C1: 100, C2: 65 }, alone: 100 },
      { ports: ['C3', 'C4'], both: { C3: 15, C4: 15 }, alone: 25 },
      { ports: ['A1', 'A2'], both: { A1: 7.5, A2: 7.5 }, alone: 12 },
    ]),
    loss: { ...SOUND.loss, fixed: 0.7, proportional: 0.05, resistive: 0.035 },
    idle: { floor: 0.16, burst: 1.4, period: 10, length: 0.4 },
    correctionFrom: 65,
    heat: { ...SOUND.heat, insideCapacity: 320, shellCapacity: 560, insideToShell: 0.8, shellToRoom: 0.5 },
  },
  {
    ...SOUND,
    name: 'Monolith 180',
    kind: 'desktop',
    nameplate: 180,
    ports: [
      port('C1', [
        '5 V 3 A',
        '9 V 3 A',
        '15 V 3 A',
        '20 V 5 A',
        'PPS 3.3–21 V 5 A',
        'SPR AVS 5 A / 5 A',
        '28 V 5 A',
        '36 V 5 A',
        'EPR AVS 15–36 V 180 W',
      ]),
    ],
    loss: { ...SOUND.loss, fixed: 0.9, proportional: 0.03, resistive: 0.02 },
    idle: { floor: 0.13, burst: 1.2, period: 25, length: 0.4 },
    correctionFrom: 95,
    sourceOhms: -0.012,
    ripple: { ...SOUND.ripple, burst: 0.32, burstHertz: 620, burstBelow: 0.14 },
    heat: { ...SOUND.heat, insideCapacity: 260, shellCapacity: 420, insideToShell: 0.7, shellToRoom: 0.34 },
    overload: { at: 1.1, how: 'cuts off', recovery: 2.4 },
    supply: { ...SOUND.supply, inrushOhms: 2.5, bulkFarads: 120e-6, bleedSeconds: 7 },
  },
  {
    ...SOUND,
    name: 'Pip 20',
    kind: 'wall',
    nameplate: 20,
    ports: [port('C1', ['5 V 3 A', '9 V 2.22 A', '12 V 1.67 A']), port('A1', ['5 V 2.4 A'])],
    allocations: [{ ports: ['C1', 'A1'], watts: { C1: 10, A1: 10 } }],
    loss: { fixed: 0.16, proportional: 0.085, resistive: 0.045, lowMains: 0.35, perVoltBelow20: 0.0009 },
    idle: { floor: 0.05, burst: 0.5, period: 15, length: 0.6 },
    sourceOhms: 0.06,
    heat: { ...SOUND.heat, insideCapacity: 32, shellCapacity: 55, shellToRoom: 0.085 },
    overload: { at: 1.2, how: 'folds back', recovery: null },
    peak: { above: 16, seconds: 600, downTo: 15 },
  },
  {
    ...SOUND,
    name: 'Shuttle 75',
    kind: 'car',
    nameplate: 75,
    ports: [
      port('C1', ['5 V 3 A', '9 V 3 A', '12 V 3 A', '15 V 3 A', '20 V 3 A', 'PPS 3.3–16 V 3 A'], { refuses: [6] }),
      port('A1', ['5 V 2.4 A']),
    ],
    allocations: [{ ports: ['C1', 'A1'], watts: { C1: 45, A1: 12 } }],
    loss: { fixed: 0.4, proportional: 0.06, resistive: 0.05, lowMains: 0, perVoltBelow20: 0.001 },
    // The heavy idle drain: 38 mA from a vehicle battery.
    idle: { floor: 0.5, burst: 0.62, period: 30, length: 3 },
    heat: { ...SOUND.heat, insideCapacity: 45, shellCapacity: 70, shellToRoom: 0.16 },
    overload: { at: 1.15, how: 'cuts off', recovery: null },
    supply: {
      inrushOhms: 0.22,
      bulkFarads: 470e-6,
      bleedSeconds: 0.6,
      cutOut: 9.4,
      restart: 10.6,
      droopBelow12: 0.012,
    },
  },
];

interface Budget {
  readonly ports: readonly [string, string];
  readonly both: Readonly<Record<string, number>>;
  readonly alone: number;
}

/** Every set of two ports or more under budgets that do not touch each other. */
function budgets(groups: readonly Budget[]): ChargerTruth['allocations'] {
  const ports = groups.flatMap((group) => group.ports);
  return Array.from({ length: 2 ** ports.length }, (_, mask) => ports.filter((_port, bit) => (mask >> bit) & 1))
    .filter((set) => set.length > 1)
    .map((set) => ({
      ports: set,
      watts: Object.fromEntries(
        set.map((label) => {
          const group = groups.find((one) => one.ports.includes(label));
          const shared = group?.ports.every((other) => set.includes(other)) ?? false;
          return [label, shared ? (group?.both[label] ?? 0) : (group?.alone ?? 0)];
        }),
      ),
    }));
}

/** Find by name, letter case aside. */
export const named = <T extends { readonly name: string }>(list: readonly T[], name: string): T | undefined =>
  list.find((one) => one.name.toLowerCase() === name.trim().toLowerCase());
