// Records of ripple whose lines are known: sines of mains, bursts, switching and multiples at drawn sizes, in white noise.
// Sizes are drawn against the noise in one bin of a spectrum of an eighth of the record.

/** @returns samples, their rate, and each line with its size and what it is */
export function drawRipple(seed, { seededRandom, seededNormal }) {
  const random = seededRandom(seed);
  const normal = seededNormal(random);
  const between = (low, high) => low + (high - low) * random();
  const mains = random() < 0.5 ? 50 : 60;
  const rate = [1e6, 2e6, 5e6][Math.floor(random() * 3)];
  const count = Math.round(rate * between(0.1, 0.2));
  const noise = 0.0005 * between(0.2, 2.2);
  const segment = 2 ** Math.floor(Math.log2(count / 8));
  const inBin = (4 * noise * noise) / segment;
  const amplitude = (decibels) => Math.sqrt(2 * inBin * 10 ** (decibels / 10));
  const truth = [];
  const add = (hertz, size, kind) => truth.push({ hertz, peakToPeak: 2 * size, kind, phase: between(0, 2 * Math.PI) });
  if (random() < 0.8) add(2 * mains * between(0.998, 1.002), amplitude(between(25, 50)), 'mains');
  if (random() < 0.6) add(between(300, 6300), amplitude(between(18, 43)), 'burst');
  if (random() < 0.9) {
    const hertz = between(40e3, 200e3);
    const decibels = between(17, 42);
    add(hertz, amplitude(decibels), 'switching');
    if (random() < 0.5) add(2 * hertz, amplitude(decibels - 6), 'harmonic');
  }
  const values = new Float64Array(count);
  let low = Number.POSITIVE_INFINITY;
  let high = Number.NEGATIVE_INFINITY;
  for (let at = 0; at < count; at += 1) {
    let value = noise * normal();
    for (const { hertz, peakToPeak, phase } of truth)
      value += (peakToPeak / 2) * Math.sin((2 * Math.PI * hertz * at) / rate + phase);
    values[at] = value;
    low = Math.min(low, value);
    high = Math.max(high, value);
  }
  const seconds = count / rate;
  return {
    values,
    rate,
    mains,
    truth,
    resolution: Math.max(1.5 / seconds, (2 * rate) / segment),
    peakToPeak: high - low,
  };
}
