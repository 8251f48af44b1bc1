// A bench day of six samples, forty steps and eight resources: how soon it is planned, how good it is proven to be, and planned anew.
import { withEntry } from './entry.mjs';
import { median } from './figures.mjs';

const DAYS = 30;

export async function measureDay() {
  await withEntry('day.entry.ts', ({ measureOne }) => {
    const found = Array.from({ length: DAYS }, (_one, at) => measureOne(at + 1, () => performance.now()));
    const of = (pick) => found.map(pick);
    const percent = (part) => `${(100 * part).toFixed(1)} %`;
    console.log(`a bench day, ${DAYS} of 6 samples × 40 steps on 8 resources with two people`);
    console.log(
      `  gap that is proven      median ${percent(median(of(({ gap }) => gap)))}, worst ${percent(Math.max(...of(({ gap }) => gap)))}, within 5 % ${of(({ gap }) => gap).filter((gap) => gap <= 0.05).length} of ${DAYS}, goal all`,
    );
    console.log(
      `  planned in              median ${median(of(({ milliseconds }) => milliseconds)).toFixed(0)} ms, at most ${Math.max(...of(({ milliseconds }) => milliseconds)).toFixed(0)} ms, goal ≤ 5000 ms`,
    );
    console.log(
      `  planned anew in         median ${median(of(({ againMilliseconds }) => againMilliseconds)).toFixed(0)} ms, at most ${Math.max(...of(({ againMilliseconds }) => againMilliseconds)).toFixed(0)} ms, goal ≤ 1000 ms`,
    );
    console.log(
      `  faults of the checker   ${of(({ faults, againFaults }) => faults + againFaults).reduce((a, b) => a + b, 0)}, steps left out ${of(({ left }) => left).reduce((a, b) => a + b, 0)}`,
    );
  });
}
