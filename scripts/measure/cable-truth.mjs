// Cables and trials whose truth is known. It shares nothing with what is measured.

/** A meter with a gain and an offset anywhere within its stated limits, and a last digit. */
const meterOf = (between, { percent, offset, digit }) => {
  const gain = 1 + between(-1, 1) * (percent / 100);
  const shift = between(-1, 1) * offset;
  return (value) => Math.round((value * gain + shift) / digit) * digit;
};

const CURRENTS = [
  [0, 1, 3, 5],
  [1, 3, 5],
  [0, 0.5, 1, 1.5, 2, 2.5, 3],
  [0, 1, 2, 3],
  [0.5, 1, 2, 3, 4, 5],
];

/** One cable read in some pluggings. @returns a table as a person keeps it, its meters' specs, and what is true */
export function drawCable(seed, { seededRandom, seededNormal }) {
  const random = seededRandom(seed);
  const normal = seededNormal(random);
  const between = (low, high) => low + (high - low) * random();
  const pick = (list) => list[Math.floor(random() * list.length)];
  const wire = between(0.03, 0.45);
  const contact = between(0.008, 0.08);
  const scatter = contact * pick([0, 0, 0.03, 0.1]);
  const warms = pick([0, 0, between(0, 6)]);
  const celsius = between(15, 35);
  const two = random() < 0.5;
  const specs = {
    volts: { percent: pick([0.02, 0.05, 0.1]), offset: pick([0.0005, 0.002, 0.004]), digit: two ? 0.001 : 0.0001 },
    amps: { percent: pick([0.1, 0.2]), offset: pick([0.001, 0.003]), digit: 0.001 },
  };
  const near = meterOf(between, specs.volts);
  const far = meterOf(between, specs.volts);
  const amps = meterOf(between, specs.amps);
  const noise = pick([0.0001, 0.0003, 0.0008]);
  const source = between(0.02, 0.2);
  const currents = pick(CURRENTS);
  const times = pick([2, 3, 4]);
  const pluggings = pick([1, 1, 3, 4, 6]);
  const held = [];
  const rows = [];
  for (let plugging = 1; plugging <= pluggings; plugging += 1) {
    const own = contact + scatter * normal();
    held.push(own);
    for (const current of currents)
      for (let again = 0; again < times; again += 1) {
        // Copper follows its own warmth; contacts do not.
        const cold = wire * (1 + 0.00393 * (celsius - 20));
        const warm = (cold + own) / (1 - wire * 0.00393 * warms * current ** 2);
        const true1 = 20 - source * current + noise * normal();
        const true2 = true1 - warm * current + noise * normal();
        const set = Math.max(0, amps(current));
        rows.push(
          two
            ? [set.toFixed(3), near(true1).toFixed(3), far(true2).toFixed(3), plugging]
            : [set.toFixed(3), far(true1 - true2).toFixed(4), plugging],
        );
      }
  }
  const head = two ? 'current_A,near_V,far_V,plugging' : 'current_A,drop_V,plugging';
  const mean = held.reduce((sum, one) => sum + one, 0) / held.length;
  return {
    text: [head, ...rows.map((row) => row.join(','))].join('\n'),
    specs,
    // Of one plugging nobody can say what the next would be: what is asked is what was plugged in.
    truth: wire * (1 + 0.00393 * (celsius - 20)) + (pluggings === 1 ? mean : contact),
  };
}

/** A cable before and after bends: what its contacts gained, as a part of the whole. */
export function drawWear(seed, made) {
  const random = made.seededRandom(seed + 500_000);
  const normal = made.seededNormal(random);
  const between = (low, high) => low + (high - low) * random();
  const ohms = between(0.1, 0.4);
  const gained = random() < 0.6 ? 0 : between(0.02, 0.4);
  const noise = between(0.0002, 0.003);
  const kelvin = [between(18, 28), between(18, 28)];
  const scatter = between(0.002, 0.03);
  const offset = between(-0.002, 0.002);
  const series = (factor, celsius) =>
    [1, 2, 3].flatMap((plugging) => {
      const own = ohms * factor * (1 + scatter * normal());
      return [0, 1, 2, 3].flatMap((amps) =>
        [0, 1].map(() => ({
          amps,
          drop: own * (1 + 0.00393 * (celsius - 20)) * amps + offset + noise * normal(),
          celsius,
          plugging: String(plugging),
        })),
      );
    });
  return { before: series(1, kelvin[0]), after: series(1 + gained, kelvin[1]), gained };
}

/** Values of a trial of pairs: a drift that hits both, chance, and a difference or none. */
export function drawPairs(seed, { seededRandom, seededNormal }, trial, order, difference, spread) {
  const normal = seededNormal(seededRandom(seed + 900_000));
  const pace = normal() * 0.2 * spread;
  return order.map((slot, at) => ({
    id: `r${at}`,
    ...slot,
    value: 3000 + pace * Math.floor(at / 2) + (spread / Math.SQRT2) * normal() + (slot.cell[0] === 1 ? difference : 0),
    held: trial.held,
    note: '',
    takenAt: new Date(at * 60_000).toISOString(),
    supersedes: null,
    withdrawn: false,
  }));
}
