// What the measurement of judging runs: a sample as busy as a bench makes one in a year, and the judge itself.
import type { Capture } from '../../core/src/capture/index.ts';
import { seededRandom } from '../../core/src/random/index.ts';
import type { Mains, Point } from '../../core/src/reading/index.ts';
import type { SplitRun } from '../../core/src/run/index.ts';
import { aHold, anOver } from '../../core/src/testing/proof.ts';
import { aReading, aRig } from '../../core/src/testing/reading.ts';
import { dossierFor, EU, US } from '../../core/src/testing/verdict.ts';
import { NO_SPEC } from '../../core/src/uncertainty/index.ts';
import type { Dossier } from '../../core/src/verdict/index.ts';

export { createJudge, judgeSample } from '../../core/src/verdict/index.ts';

const PORTS = ['C1', 'C2', 'A1'];
const LEVELS = [5, 9, 15, 20];
const LOADS = [1, 0.75, 0.5, 0.25, 0.1, 0];
const random = seededRandom(13);
const near = (value: number, part = 0.002) => value * (1 + part * (2 * random() - 1));
const moment = (index: number) => new Date(Date.UTC(2026, 0, 1) + index * 60_000).toISOString();

const setups: Dossier['setups'] = PORTS.flatMap((port) =>
  LEVELS.flatMap((volts) =>
    (['efficiency', 'proof'] as const).map((purpose) => ({
      id: `${purpose} ${port} ${volts}`,
      name: `${port} ${volts} V`,
      outputs: [{ port, volts, amps: 3 }],
      evidence: 'load' as const,
      purpose,
      rigId: 'rig',
      nameplateClass: null,
    })),
  ),
);

/** One point as it is typed: input power and power factor, output volts and amps. */
export function pointOf(index: number, setup: Dossier['setups'][number], mains: Mains, load: number): Point {
  const [output] = setup.outputs;
  const { port, volts, amps } = output ?? { port: 'C1', volts: 5, amps: 3 };
  const id = `point ${index}`;
  const read = (part: Parameters<typeof aReading>[0]) =>
    aReading({ ...part, id: `${id} ${part.quantity} ${part.place}`, u: 0.003, instrumentId: 'meter' });
  return {
    id,
    setupId: setup.id,
    mains,
    load,
    attached: 'nothing',
    evidence: 'load',
    override: null,
    rigId: 'rig',
    takenAt: moment(index),
    readings: [
      read({ quantity: 'power', value: near(load === 0 ? 0.05 : (volts * amps * load) / 0.9) }),
      ...(load === 0
        ? [read({ quantity: 'duration', value: 600 })]
        : [
            read({ quantity: 'power-factor', value: near(0.6) }),
            read({ quantity: 'voltage', place: 'port', port, value: near(volts) }),
            read({ quantity: 'current', place: 'port', port, value: near(amps * load) }),
          ]),
    ],
  };
}

const split = (index: number): SplitRun => {
  const order = PORTS.slice(0, 1 + (index % 3));
  return {
    id: `split ${index}`,
    kind: 'split',
    port: order[0] ?? '',
    order,
    rigId: 'rig',
    takenAt: moment(index),
    u: 0.01,
    note: '',
    supersedes: null,
    withdrawn: false,
    mains: EU,
    shares: order.map((port) => ({ port, volts: near(20), amps: near(60 / order.length / 20), light: false })),
    mainsWatts: null,
    evidence: 'load',
    drops: [],
  };
};

const capture = (index: number): Capture => ({
  id: `capture ${index}`,
  kind: 'inrush',
  mains: EU,
  setupId: null,
  load: 0,
  port: null,
  attached: 'nothing',
  rigId: 'rig',
  takenAt: moment(index),
  source: 'scope.csv',
  note: '',
  supersedes: null,
  withdrawn: false,
  interval: 1e-6,
  samples: 100_000,
  figures: { kind: 'inrush', peak: near(30), at: 1e-4, squareSeconds: 0.29, length: 3e-4, findings: [] },
});

/** A sample with so many readings, runs and captures. */
export function busySample(readings: number, runs: number, captures: number): Dossier {
  const points: Point[] = [];
  for (let index = 0, count = 0; count < readings; index += 1) {
    const setup = setups[index % setups.length];
    if (!setup) break;
    const load =
      setup.purpose === 'proof'
        ? ([1, 0][Math.floor(index / 48) % 2] ?? 1)
        : (LOADS[Math.floor(index / 48) % LOADS.length] ?? 1);
    const point = pointOf(index, setup, Math.floor(index / 24) % 2 ? US : EU, load);
    points.push(point);
    count += point.readings.length;
  }
  const base = dossierFor({});
  const spec = { ...NO_SPEC, readingPercent: 0.1 };
  return dossierFor({
    sample: {
      ...base.sample,
      ports: PORTS.map((label) => ({ label, connector: label === 'A1' ? 'A' : 'C', twin: null })),
    },
    claims: [
      ...PORTS.flatMap((port) =>
        LEVELS.map((volts): Dossier['claims'][number] => ({
          id: `${port} ${volts}`,
          promise: { kind: 'port-line', port, volts, amps: 3 },
          duration: { kind: 'unstated' },
          printed: 'label',
        })),
      ),
      { id: 'total', promise: { kind: 'total', watts: 60 }, duration: { kind: 'continuous' }, printed: '60 W' },
      {
        id: 'both',
        promise: {
          kind: 'combination',
          shares: [
            { port: 'C1', watts: 30 },
            { port: 'C2', watts: 30 },
          ],
        },
        duration: { kind: 'unstated' },
        printed: 'C1+C2',
      },
    ],
    setups,
    points,
    captures: Array.from({ length: captures }, (_, index) => capture(index)),
    runs: Array.from({ length: runs }, (_, index) =>
      index % 4 === 0
        ? aHold({ id: `hold ${index}`, takenAt: moment(index) })
        : index % 4 === 1
          ? anOver(
              [
                [3, 3, 20],
                [3.1, 3.1, 20],
              ],
              { id: `over ${index}`, takenAt: moment(index) },
            )
          : split(index),
    ),
    rigs: [aRig()],
    instruments: [{ id: 'meter', name: 'Meter', sees: null, specs: { power: spec, voltage: spec, current: spec } }],
  });
}

/** The same with one more typed point at the end. */
export function withOneMore(dossier: Dossier): Dossier {
  const setup = dossier.setups[0];
  if (!setup) return dossier;
  return { ...dossier, points: [...dossier.points, pointOf(dossier.points.length, setup, EU, 0.5)] };
}
