// How often the truth lies in what is concluded of idle: bursts counted as energy over ten minutes from any moment on.

const CHARGERS = 400;
const SEED = 20_261_126;
const SECONDS = 600;
const CLAIMS = 5;

/** Energy of an idle law over ten minutes from a moment of its burst on, J. */
function energy({ floor, burst, period, length }, from) {
  let burning = 0;
  for (let start = -from; start < SECONDS; start += period)
    burning += Math.max(0, Math.min(SECONDS, start + length) - Math.max(0, start));
  return floor * SECONDS + (burst - floor) * burning;
}

/** @param core the bundle of coverage.entry.ts @param meterOf makes a meter with errors of its own */
export function measureIdle(core, errors, meterOf) {
  const { accept, compare, idleMean, idleResults, intervalOf, NO_SPEC } = core;
  const random = core.seededRandom(SEED);
  const normal = core.seededNormal(core.seededRandom(SEED + 1));
  const spec = { ...NO_SPEC, readingPercent: 0.15, offset: 0.0015 };
  const instruments = [{ id: 'power', name: 'power', sees: null, specs: { power: spec } }];
  const meters = { mains: 'power', outputVolts: 'power', outputAmps: 'power', loadEnd: null };
  const rig = { id: 'rig', name: 'rig', meters, outputPlace: 'port', leadOhms: 0, leadUOhms: 0, elements: [] };
  const mains = { kind: 'ac', volts: 230, hertz: 50 };
  const count = { covered: 0, claims: 0, wrongProven: 0, wrongShort: 0, borderline: 0 };
  for (let charger = 0; charger < CHARGERS; charger += 1) {
    const truth = {
      floor: 0.01 + random() * 0.12,
      burst: 0.3 + random() * 1.2,
      period: 6 + random() * 24,
      length: 0.2 + random() * 0.6,
    };
    const meter = meterOf(random, normal, spec, 0, errors);
    const watts = meter(energy(truth, random() * truth.period) / SECONDS);
    const entry = (quantity, value) => ({ quantity, place: 'mains', port: null, value, count: 1, spread: 0, step: 0 });
    const entries = [entry('energy', watts * SECONDS), entry('duration', SECONDS)];
    const point = {
      id: String(charger),
      setupId: null,
      mains,
      load: 0,
      attached: 'nothing',
      evidence: 'load',
      rigId: 'rig',
      takenAt: '2026-03-02T09:00:00.000Z',
      override: null,
      readings: entries.map((one, index) => ({
        ...one,
        ...accept(one, entries, rig, instruments),
        id: `${charger} ${index}`,
        typed: '',
        takenAt: '2026-03-02T09:00:00.000Z',
        source: 'synthetic',
        supersedes: null,
      })),
    };
    const [result] = idleResults([point], () => 0);
    const mean = idleMean(truth);
    const interval = intervalOf(result.watts);
    if (mean >= interval.low && mean <= interval.high) count.covered += 1;
    for (let claim = 0; claim < CLAIMS; claim += 1) {
      const promised = mean + (random() * 2 - 1) * 2 * core.expandedUncertainty(result.watts);
      const outcome = compare(interval, { kind: 'at-most', high: promised });
      count.claims += 1;
      if (outcome === 'proven' && mean > promised) count.wrongProven += 1;
      if (outcome === 'short' && mean <= promised) count.wrongShort += 1;
      if (outcome === 'borderline') count.borderline += 1;
    }
  }
  const part = (value, of) => `${((value / of) * 100).toFixed(1)} %`;
  console.log(`  idle by energy           ${part(count.covered, CHARGERS)} of ${CHARGERS}, goal 93–97 %`);
  console.log(
    `  idle promises near truth wrong proven ${part(count.wrongProven, count.claims)}, wrong short ${part(count.wrongShort, count.claims)}, goal ≤ 2.5 % each; borderline ${part(count.borderline, count.claims)}`,
  );
}
