// Reading a 200 000-line meter file against the parsing library alone on the same text, in pairs.
import { mkdtempSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import Papa from 'papaparse';
import { build } from 'vite';
import { ROOT } from '../lib/paths.mjs';
import { median, spread, timed } from './figures.mjs';

const LINES = 200_000;
const PAIRS = 9;

/** A plausible ten hours of a logger at five lines a second. */
function logText(loads) {
  const rows = ['Time [s];Load [%];Vin [V];P_in (mW);PF;Vout [V];Iout [mA]'];
  for (let line = 0; line < LINES; line += 1) {
    const load = loads[Math.floor((line * loads.length) / LINES)];
    const wave = Math.sin(line);
    const values = [line / 5, load * 100, 230 + wave, 49_000 * load + 60 + wave, 0.6, 20 + wave / 1000, 2250 * load];
    rows.push(values.map((value, column) => value.toFixed([1, 0, 1, 1, 3, 4, 2][column]).replace('.', ',')).join(';'));
  }
  return `${rows.join('\r\n')}\r\n`;
}

/** Bundle the core for plain Node, measure pairs, and hand the text on for the measurement of the whole path. */
export async function measureMeterFile() {
  const folder = mkdtempSync(join(ROOT, 'node_modules', '.measure-'));
  try {
    await build({
      configFile: false,
      logLevel: 'error',
      root: ROOT,
      build: { ssr: 'scripts/measure/meter-file.entry.ts', outDir: folder, target: 'node20' },
    });
    const { LOAD_POINTS, REGULATORY_PAIR, readMeterFile, sniffFile } = await import(
      join(folder, 'meter-file.entry.js')
    );
    const text = logText(LOAD_POINTS);
    const plan = sniffFile(text, ['C1']);
    const context = {
      outputs: [{ port: 'C1', volts: 20, amps: 2.25 }],
      mains: REGULATORY_PAIR,
      wholeFileMains: null,
      loads: LOAD_POINTS,
    };
    const library = [];
    const whole = [];
    for (let pair = 0; pair < PAIRS + 1; pair += 1) {
      const a = await timed(() => Papa.parse(text, { delimiter: ';' }));
      let lines = 0;
      const b = await timed(() => {
        lines = readMeterFile(text, plan, context).goodLines;
      });
      if (lines !== LINES) throw new Error(`Only ${lines} of ${LINES} lines were read.`);
      // The first pair warms up.
      if (pair > 0) {
        library.push(a);
        whole.push(b);
      }
    }
    const ratios = whole.map((value, index) => value / library[index]);
    console.log(`meter file, ${LINES} lines, ${(text.length / 1e6).toFixed(1)} MB, ${PAIRS} pairs`);
    console.log(`  parsing library alone   median ${median(library).toFixed(0)} ms (${spread(library)})`);
    console.log(`  read, placed, averaged  median ${median(whole).toFixed(0)} ms (${spread(whole)})`);
    console.log(`  ratio                   median ${median(ratios).toFixed(2)} (${spread(ratios, 2)}), goal ≤ 2`);
    return { text, plan, libraryMedian: median(library) };
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
