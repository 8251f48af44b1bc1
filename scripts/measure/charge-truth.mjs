// Charge sessions whose truth is known: a battery that fills, a device that draws by its level, its steps, its swings, its
// screen; and what the log makes of it. It shares nothing with what is measured.

/** Draw one session. @returns columns by name, the truth, and how it was shaped */
export function drawSession(seed, { seededRandom, seededNormal }) {
  const random = seededRandom(seed);
  const normal = seededNormal(random);
  const between = (low, high) => low + (high - low) * random();
  const pick = (list) => list[Math.floor(random() * list.length)];
  const capacity = between(8, 90);
  const top = capacity * between(0.35, 1.1);
  const start = pick([0, 0.02, 0.05, 0.1, between(0, 0.15)]);
  const shape = pick(['plain', 'plain', 'two', 'two', 'volts', 'steps', 'hunting']);
  const knee = between(0.5, 0.8);
  const low = between(0.05, 0.2);
  const noise = between(0.001, 0.012);
  const spacing = pick([1, 1, 2, 5, 10]);
  const after = pick([0, 600, 1200, 2400]);
  const trickle = top * between(0.003, 0.02);
  const hot = between(0.25, 0.4);
  const stepsFrom = between(0.3, 0.45);
  const stepCount = pick([4, 5, 6]);
  const levels = pick([
    [9, 9],
    [20, 20],
    [15, 15],
  ]);
  const upper = pick([9, 15, 20]);
  const swing = { from: between(0.2, 0.3), to: between(0.4, 0.5), period: between(40, 160), depth: between(0.2, 0.5) };
  const second = between(0.55, 0.8);
  const columns = { 'time [s]': [], 'volts [V]': [], 'power [W]': [], 'level [%]': [] };
  const ends = [];
  const reached = {};
  let level = start;
  let stage = null;
  let flow = top;
  let t = 0;
  const stepsTo = knee;
  let entered = null;
  let lastLow = 0;
  const drawn = () => {
    if (level >= knee) {
      // Falls evenly with the level: in time that is a decay.
      const base = shape === 'two' ? top * second : shape === 'steps' ? top * 0.82 ** stepCount : top;
      return [base - (base - base * low) * ((level - knee) / (1 - knee)), 'tail'];
    }
    if (shape === 'two' && level >= hot) return [top * second, 'second'];
    if (shape === 'steps' && level >= stepsFrom) {
      const at = Math.min(stepCount, 1 + Math.floor((stepCount * (level - stepsFrom)) / (stepsTo - stepsFrom)));
      return [top * 0.82 ** at, 'steps'];
    }
    if (shape === 'volts' && level >= hot) return [top, 'other volts'];
    if (shape === 'hunting' && level >= swing.from && level < swing.to) {
      entered ??= t;
      const low = (t - entered) % swing.period < swing.period / 2;
      if (low) lastLow = t;
      return [top * (low ? 1 - swing.depth : 1), 'hunting'];
    }
    return [top, shape === 'hunting' && level >= swing.to ? 'after hunting' : 'first'];
  };
  const log = (watts, volts) => {
    if (Math.abs(t / spacing - Math.round(t / spacing)) > 1e-9) return;
    columns['time [s]'].push(t);
    columns['volts [V]'].push(Number((volts + 0.01 * normal()).toFixed(3)));
    columns['power [W]'].push(Number(Math.max(0, watts + noise * top * normal()).toFixed(4)));
    columns['level [%]'].push(Math.floor(Math.min(1, level) * 100));
  };
  while (level < 1 && t < 12 * 3600) {
    const [watts, name] = drawn();
    // Swings are over when the last of them is.
    if (stage !== null && name !== stage) ends.push(stage === 'hunting' ? lastLow + 1 : t);
    stage = name;
    flow = watts;
    for (const told of [0.5, 0.8]) if (reached[told] === undefined && level >= told) reached[told] = t;
    log(
      flow,
      name === 'other volts' || (shape === 'volts' && name === 'tail') ? upper : shape === 'volts' ? 5 : levels[0],
    );
    level += flow / 3600 / capacity;
    t += 1;
  }
  level = 1;
  const end = t;
  const steps = [];
  for (; t < end + after; t += 1) log(trickle, shape === 'volts' ? upper : levels[0]);
  return { columns, ends, steps, end, after, start, capacity, trickle, shape, reached, kinds: stage };
}

export function sessionText({ columns }) {
  const names = Object.keys(columns);
  const rows = columns[names[0]].map((_, at) => names.map((name) => columns[name][at]).join(','));
  return [names.join(','), ...rows].join('\n');
}
