// How often the truth lies in what is concluded: synthetic chargers, each read by meters with errors of their own.
import { mkdtempSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { build } from 'vite';
import { ROOT } from '../lib/paths.mjs';
import { measureIdle } from './coverage-idle.mjs';

const CHARGERS = 400;
const SEED = 20_261_125;
const REPEATS = 5;

/**
 * A meter with an error of its own: `parts` draws gain and offset each anywhere within its part of the stated limit;
 * `whole` draws one error anywhere within the whole limit, as the rectangular reading of a spec supposes.
 */
function meterOf(random, normal, spec, noise, errors) {
  if (errors === 'whole') {
    const part = random() * 2 - 1;
    return (truth) => truth + part * ((truth * spec.readingPercent) / 100 + spec.offset) + normal() * noise;
  }
  const gain = 1 + ((random() * 2 - 1) * spec.readingPercent) / 100;
  const offset = (random() * 2 - 1) * spec.offset;
  return (truth) => truth * gain + offset + normal() * noise;
}

export async function measureCoverage() {
  for (const errors of ['parts', 'whole']) await measureWith(errors);
}

async function measureWith(errors) {
  const folder = mkdtempSync(join(ROOT, 'node_modules', '.measure-'));
  try {
    await build({
      configFile: false,
      logLevel: 'error',
      root: ROOT,
      build: { ssr: 'scripts/measure/coverage.entry.ts', outDir: folder, target: 'node20' },
      ssr: { noExternal: true },
    });
    const core = await import(join(folder, 'coverage.entry.js'));
    const { accept, AVERAGE_LOADS, compare, efficiencySeries, intervalOf, lossWatts, NO_SPEC } = core;
    const random = core.seededRandom(SEED);
    const normal = core.seededNormal(core.seededRandom(SEED + 1));
    const specs = {
      power: { ...NO_SPEC, readingPercent: 0.1, offset: 0.03 },
      voltage: { ...NO_SPEC, readingPercent: 0.02, offset: 0.002 },
      current: { ...NO_SPEC, readingPercent: 0.08, offset: 0.001 },
    };
    const instruments = Object.entries(specs).map(([quantity, spec]) => ({
      id: quantity,
      name: quantity,
      sees: null,
      specs: { [quantity]: spec },
    }));
    const rig = {
      id: 'rig',
      name: 'rig',
      meters: { mains: 'power', outputVolts: 'voltage', outputAmps: 'current', loadEnd: null },
      outputPlace: 'port',
      leadOhms: 0,
      leadUOhms: 0,
      elements: [],
    };
    const mains = { kind: 'ac', volts: 230, hertz: 50 };
    const count = {
      points: 0,
      covered: 0,
      averages: 0,
      averagesCovered: 0,
      claims: 0,
      wrongProven: 0,
      wrongShort: 0,
      borderline: 0,
    };
    for (let charger = 0; charger < CHARGERS; charger += 1) {
      const nameplate = 15 + random() * 120;
      const volts = [5, 9, 15, 20][Math.floor(random() * 4)];
      const amps = nameplate / volts;
      const loss = {
        fixed: 0.1 + random() * 0.8,
        proportional: 0.03 + random() * 0.07,
        resistive: 0.01 + random() * 0.05,
        lowMains: 0.35,
        perVoltBelow20: random() * 0.002,
      };
      const meters = {
        power: meterOf(random, normal, specs.power, 0.004, errors),
        voltage: meterOf(random, normal, specs.voltage, 0.0005, errors),
        current: meterOf(random, normal, specs.current, 0.0005, errors),
      };
      const setup = {
        id: 's',
        name: 's',
        outputs: [{ port: 'C1', volts, amps }],
        evidence: 'load',
        rigId: 'rig',
        purpose: 'efficiency',
      };
      const truth = new Map();
      const points = [];
      for (const load of AVERAGE_LOADS) {
        const output = volts * amps * load;
        const input = output + lossWatts(loss, [{ volts, watts: output }], nameplate, 230);
        truth.set(load, output / input);
        for (let run = 0; run < REPEATS; run += 1) {
          const entries = [
            { quantity: 'power', place: 'mains', port: null, value: meters.power(input), count: 1, spread: 0, step: 0 },
            {
              quantity: 'voltage',
              place: 'port',
              port: 'C1',
              value: meters.voltage(volts),
              count: 1,
              spread: 0,
              step: 0,
            },
            {
              quantity: 'current',
              place: 'port',
              port: 'C1',
              value: meters.current(amps * load),
              count: 1,
              spread: 0,
              step: 0,
            },
          ];
          points.push({
            id: `${load} ${run}`,
            setupId: 's',
            mains,
            load,
            attached: 'nothing',
            evidence: 'load',
            rigId: 'rig',
            takenAt: '2026-03-02T09:00:00.000Z',
            override: null,
            readings: entries.map((entry, index) => ({
              ...entry,
              ...accept(entry, entries, rig, instruments),
              id: `${load} ${run} ${index}`,
              typed: '',
              takenAt: '2026-03-02T09:00:00.000Z',
              source: 'synthetic',
              supersedes: null,
            })),
          });
        }
      }
      const [result] = efficiencySeries(setup, points, [rig]).byMains;
      const inside = (found, value) => {
        const { low, high } = intervalOf(found);
        return value >= low && value <= high;
      };
      for (const { load, efficiency } of result.loads) {
        count.points += 1;
        if (inside(efficiency, truth.get(load))) count.covered += 1;
      }
      const average = [...truth.values()].reduce((sum, one) => sum + one, 0) / truth.size;
      count.averages += 1;
      if (inside(result.average, average)) count.averagesCovered += 1;
      // Promises close to the truth, where a wrong word would come easiest: within two expanded uncertainties of it.
      for (let claim = 0; claim < 5; claim += 1) {
        const promised = average + (random() * 2 - 1) * 2 * core.expandedUncertainty(result.average);
        const outcome = compare(intervalOf(result.average), { kind: 'at-least', low: promised });
        count.claims += 1;
        if (outcome === 'proven' && average < promised) count.wrongProven += 1;
        if (outcome === 'short' && average >= promised) count.wrongShort += 1;
        if (outcome === 'borderline') count.borderline += 1;
      }
    }
    const part = (value, of) => `${((value / of) * 100).toFixed(1)} %`;
    console.log(
      `coverage, ${CHARGERS} synthetic chargers, ${errors === 'parts' ? 'gain and offset each anywhere within their part' : 'one error anywhere within the whole stated limit'}`,
    );
    console.log(
      `  efficiency of a point    ${part(count.covered, count.points)} of ${count.points} intervals hold the truth, goal 93–97 %`,
    );
    console.log(
      `  four-point average       ${part(count.averagesCovered, count.averages)} of ${count.averages}, goal 93–97 %`,
    );
    console.log(
      `  promises near the truth  wrong proven ${part(count.wrongProven, count.claims)}, wrong short ${part(count.wrongShort, count.claims)}, goal ≤ 2.5 % each; borderline ${part(count.borderline, count.claims)}`,
    );
    measureIdle(core, errors, meterOf);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
