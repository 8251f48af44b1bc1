// What to measure next: the same promises decided in the order of the list, and in the order of the stations.
import { withEntry } from './entry.mjs';
import { median, timed } from './figures.mjs';

const SAMPLES = 200;

export async function measureNext() {
  await withEntry('next.entry.ts', async ({ compareOrders }) => {
    let found = [];
    const took = await timed(() => {
      found = compareOrders(SAMPLES);
    });
    const sum = (of) => found.reduce((all, one) => all + of(one), 0);
    const ratios = found.map(({ stations, next }) => next / stations);
    console.log(`what to measure next, ${SAMPLES} simulated samples, the same promises decided`);
    console.log(
      `  time of all together    ${((100 * sum(({ next }) => next)) / sum(({ stations }) => stations)).toFixed(0)} % of the order of stations, goal ≤ 60 %`,
    );
    console.log(
      `  sample by sample        median ${(100 * median(ratios)).toFixed(0)} %, worst ${(100 * Math.max(...ratios)).toFixed(0)} %`,
    );
    console.log(`  worked out in           ${(took / SAMPLES).toFixed(1)} ms a sample`);
  });
}
