// Splits: eight devices on eight ports, tried exactly and simulated for twelve hours; and the rule of a six-port sweep.
import { mkdtempSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { build } from 'vite';
import { ROOT } from '../lib/paths.mjs';
import { median, spread, timed } from './figures.mjs';

const TURNS = 9;

export async function measureSplits() {
  const folder = mkdtempSync(join(ROOT, 'node_modules', '.measure-'));
  try {
    await build({
      configFile: false,
      logLevel: 'error',
      root: ROOT,
      build: { ssr: 'scripts/measure/splits.entry.ts', outDir: folder, target: 'node20' },
      ssr: { noExternal: true },
    });
    const { adviseArrangement, adviseSeveral, inferRule, simulateEvening, sweepSets, USUAL_PROFILE, measured } =
      await import(join(folder, 'splits.entry.js'));
    const ports = Array.from({ length: 8 }, (_, index) => ({ label: `P${index}`, volts: [5, 9, 20] }));
    const charger = {
      ports,
      shares: (occupied) => Object.fromEntries(occupied.map((port, index) => [port, 65 - index * 6])),
      drops: (port, cause) => port === 'P0' && cause === 'P1',
    };
    const devices = ports.map((_, index) => ({
      id: `d${index}`,
      name: `d${index}`,
      watts: 8 + index * 9,
      volts: index % 2 ? 20 : 9,
      battery: 50 * 3600,
      level: 0.1 * index,
      staysOn: index === 3,
      comes: index * 900,
      profile: USUAL_PROFILE,
    }));
    const times = [];
    for (let turn = 0; turn < TURNS + 1; turn += 1) {
      const time = await timed(() => {
        const { best } = adviseArrangement(charger, devices);
        simulateEvening(charger, devices, best.arrangement, 12 * 3600);
      });
      // The first warms up.
      if (turn > 0) times.push(time);
    }
    console.log('where to plug, 8 devices on 8 ports, tried exactly and simulated over 12 h');
    console.log(`  advice and evening      median ${median(times).toFixed(0)} ms (${spread(times)}), goal ≤ 300 ms`);
    const several = (drops) =>
      [6, 6, 4].map((count, at) => ({
        id: `s${at}`,
        charger: { ...charger, ports: ports.slice(0, count), drops: drops ? charger.drops : () => false },
      }));
    const ten = Array.from({ length: 10 }, (_, index) => ({
      ...devices[index % 8],
      id: `d${index}`,
      needs: index % 3 === 0 ? { level: 0.9, by: 7 * 3600 } : null,
    }));
    for (const drops of [false, true]) {
      const took = [];
      for (let turn = 0; turn < TURNS + 1; turn += 1) {
        const time = await timed(() => adviseSeveral(several(drops), ten));
        if (turn > 0) took.push(time);
      }
      console.log(
        `  10 devices on chargers of 6, 6 and 4 ports${drops ? ', each of which drops a port' : ''}: exact, median ${median(took).toFixed(0)} ms (${spread(took)}), goal ≤ 1000 ms`,
      );
    }
    const six = ['C1', 'C2', 'C3', 'C4', 'A1', 'A2'];
    const readings = sweepSets(six).sets.map((occupied) => ({
      occupied,
      light: [],
      watts: Object.fromEntries(occupied.map((port) => [port, measured(occupied.length > 2 ? 20 : 30, 0.1)])),
      rest: null,
      total: null,
      mainsWatts: null,
      atLeast: false,
      sourceIds: [],
    }));
    const rule = [];
    for (let turn = 0; turn < TURNS; turn += 1) rule.push(await timed(() => inferRule(six, readings)));
    console.log(`  rule of a six-port sweep  median ${median(rule).toFixed(1)} ms (${spread(rule, 1)})`);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
