// What is found of whole charges whose truth is known: stage ends, stages that are none, times to a level.
import { drawSession, sessionText } from './charge-truth.mjs';
import { withEntry } from './entry.mjs';
import { drawDevice } from './predict-truth.mjs';

const CASES = 240;
const DEVICES = 400;
/** Levels a time is predicted between. */
const RANGES = [
  [2, 50],
  [20, 80],
  [10, 98],
];
/** s within which an end is found. */
const NEAR = 60;

/** Times predicted from charges on other chargers, and whether the truth lies in their intervals. */
function measurePredictions(made) {
  let [told, inside, below, open, openInside] = [0, 0, 0, 0, 0];
  const off = [];
  for (let seed = 1; seed <= DEVICES; seed += 1) {
    const { known, gives, truth, top } = drawDevice(seed, made);
    const courses = known.flatMap((text) => made.chargeOf(made.readTrace(text).trace).course ?? []);
    const profile = made.profileOf(courses);
    if (!profile) continue;
    for (const [from, to] of RANGES) {
      const said = made.predictCharge(profile, { from: from / 100, to: to / 100, watts: gives, ceiling: top });
      if ('reason' in said) continue;
      const took = truth[to] - truth[from];
      if (said.low === null) {
        open += 1;
        if (took <= said.high) openInside += 1;
        continue;
      }
      told += 1;
      off.push(Math.abs(said.seconds / took - 1));
      if (took >= said.low && took <= said.high) inside += 1;
      else if (took < said.low) below += 1;
    }
  }
  off.sort((a, b) => a - b);
  console.log(
    `${DEVICES} synthetic devices on a charger they were never on: the true time lies in the 90 % interval in ${((100 * inside) / told).toFixed(1)} % of ${told} (goal 85 to 95), under it in ${((100 * below) / told).toFixed(1)} %; half of them within ${(100 * off[Math.floor(off.length / 2)]).toFixed(1)} %; ${open} told as open below, ${((100 * openInside) / Math.max(1, open)).toFixed(1)} % of them under their upper end (95 by intent)`,
  );
}

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
    measurePredictions(made);
    if (process.env.LASTMARK_WORST) for (const one of worst) console.log(JSON.stringify(one));
    const part = (count, of) => `${((100 * count) / Math.max(1, of)).toFixed(1)} %`;
    console.log(
      `${CASES} synthetic charges: ${part(found, ends)} of ${ends} stage ends found within ${NEAR} s (goal 95), ${part(strange, told)} of ${told} stages told are none (goal 3); times to 50 and 80 % within 1 % of the duration ${part(right, times)} of ${times}; ${((performance.now() - begun) / CASES).toFixed(0)} ms each`,
    );
  });
}
