// What is found of whole charges whose truth is known: stage ends, stages that are none, times to a level.
import { drawSession, sessionText } from './charge-truth.mjs';
import { withEntry } from './entry.mjs';

const CASES = 240;
/** s within which an end is found. */
const NEAR = 60;

export async function measureCharges() {
  await withEntry('charge.entry.ts', (made) => {
    const begun = performance.now();
    let [ends, found, told, strange, times, right] = [0, 0, 0, 0, 0, 0];
    const worst = [];
    for (let seed = 1; seed <= CASES; seed += 1) {
      const drawn = drawSession(seed, made);
      const { trace } = made.readTrace(sessionText(drawn));
      const session = made.chargeOf(trace);
      const inner = session.stages.slice(1).map(({ from }) => from);
      const hits = drawn.ends.filter((at) => inner.some((one) => Math.abs(one - at) <= NEAR)).length;
      const none = inner.filter((one) => !drawn.ends.some((at) => Math.abs(one - at) <= NEAR)).length;
      ends += drawn.ends.length;
      found += hits;
      told += session.stages.length;
      strange += none;
      if (hits < drawn.ends.length || none > 0)
        worst.push({
          seed,
          shape: drawn.shape,
          ends: drawn.ends,
          found: session.stages.map(({ from, kind }) => [Math.round(from), kind]),
        });
      for (const [level, at] of Object.entries(drawn.reached)) {
        if (at === 0) continue;
        times += 1;
        const said = session.times[Number(level) * 100];
        if (said !== null && Math.abs(said - at) <= 0.01 * drawn.end) right += 1;
      }
    }
    if (process.env.LASTMARK_WORST) for (const one of worst) console.log(JSON.stringify(one));
    const part = (count, of) => `${((100 * count) / Math.max(1, of)).toFixed(1)} %`;
    console.log(
      `${CASES} synthetic charges: ${part(found, ends)} of ${ends} stage ends found within ${NEAR} s (goal 95), ${part(strange, told)} of ${told} stages told are none (goal 3); times to 50 and 80 % within 1 % of the duration ${part(right, times)} of ${times}; ${((performance.now() - begun) / CASES).toFixed(0)} ms each`,
    );
  });
}
