// Soaks whose truth is known: a charger of three masses (parts inside, case, a far corner), its sensors, its room, and what
// it does when it gets too hot or too late. The physics is stepped here and shares nothing with what is measured.

const STEP = 1;

/** Draw one soak. @returns columns by name, the truth, and the spacing of the log */
export function drawSoak(seed, { seededRandom, seededNormal }) {
  const random = seededRandom(seed);
  const normal = seededNormal(random);
  const between = (low, high) => low + (high - low) * random();
  const length = 60 * between(50, 110);
  const spacing = [1, 2, 5, 10][Math.floor(random() * 4)];
  const watts = between(20, 140);
  const level = [9, 15, 20, 28][Math.floor(random() * 4)];
  const room = between(18, 28);
  const drift = random() < 0.3 ? between(-1.5, 1.5) : 0;
  // The case to the room, and a second, quicker mass beside it.
  const tau = 60 * between(8, 26);
  const quick = 60 * between(1, 4);
  const share = random() < 0.5 ? between(0.1, 0.4) : 0;
  const rise = between(20, 45);
  const happens = ['nothing', 'nothing', 'nothing', 'throttle', 'renegotiation', 'cutoff', 'pulsing', 'sag'][
    Math.floor(random() * 8)
  ];
  const at = length * between(0.3, 0.75);
  const noise = between(0.05, 0.3);
  const powerNoise = watts * between(0.0005, 0.004);
  const loss = happens === 'renegotiation' ? between(0.2, 0.5) : between(0.04, 0.3);
  const columns = {
    'time [s]': [],
    'front [°C]': [],
    'back [°C]': [],
    'ambient [°C]': [],
    'watts [W]': [],
    'volts [V]': [],
  };
  let slow = 0;
  let fast = 0;
  for (let t = 0; t <= length; t += STEP) {
    const ambient = room + (drift * t) / length;
    let part = 1;
    if (t >= at) {
      if (happens === 'throttle' || happens === 'renegotiation') part = 1 - loss;
      if (happens === 'cutoff') part = 0;
      if (happens === 'pulsing') part = (t - at) % 120 < 40 ? 0 : 1;
    }
    if (happens === 'sag') part = 1 - (0.012 * t) / length;
    const heat = rise * part;
    if (t % spacing === 0) {
      const truth = ambient + slow + fast;
      columns['time [s]'].push(t);
      columns['front [°C]'].push(Math.round((truth + noise * normal()) * 10) / 10);
      columns['back [°C]'].push(Math.round((ambient + 0.8 * (slow + fast) + noise * normal()) * 10) / 10);
      columns['ambient [°C]'].push(Math.round((ambient + 0.05 * normal()) * 10) / 10);
      const power = watts * part;
      columns['watts [W]'].push(Math.max(0, power + (part > 0 ? powerNoise * normal() : 0)));
      const lower = happens === 'renegotiation' && t >= at;
      columns['volts [V]'].push(part === 0 ? 0.02 : level * (lower ? 1 - loss : 1) * (1 + 0.0005 * normal()));
    }
    slow += ((heat * (1 - share) - slow) / tau) * STEP;
    fast += ((heat * share - fast) / quick) * STEP;
  }
  const event = ['nothing', 'sag'].includes(happens) ? null : { kind: happens, at: Math.ceil(at / spacing) * spacing };
  return { columns, event, spacing, happens, steady: happens === 'nothing' ? room + drift + rise : null, watts };
}

/** A soak as the text a logger would write. */
export function soakText(columns) {
  const names = Object.keys(columns);
  const rows = columns[names[0]].map((_, at) =>
    names.map((name) => Number(columns[name][at].toPrecision(7))).join(','),
  );
  return `${names.join(',')}\n${rows.join('\n')}\n`;
}
