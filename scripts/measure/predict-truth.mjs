// Devices whose truth is known, charged again and again: each charge a little other than the last, on chargers that give less
// or more than the device would take. It shares nothing with what is measured.

/**
 * One device with its charges.
 * @returns logs of the charges that are known, what the other charger gives, and how long that charge really took
 */
export function drawDevice(seed, { seededRandom, seededNormal }) {
  const random = seededRandom(seed);
  const normal = seededNormal(random);
  const between = (low, high) => low + (high - low) * random();
  const capacity = between(8, 90);
  const top = capacity * between(0.4, 1.1);
  const knee = between(0.45, 0.8);
  const low = between(0.05, 0.2);
  const bend = between(0.8, 1.6);
  const differs = between(0.01, 0.06);
  const noise = between(0.001, 0.01);
  const spacing = [1, 2, 5, 10][Math.floor(random() * 4)];
  const charge = (gives) => {
    // A warm room, a screen that was on: what it takes and what a level costs move a little from day to day.
    const takes = top * Math.exp(differs * normal());
    const costs = capacity * Math.exp(0.5 * differs * normal());
    const really = gives * Math.exp(0.015 * normal());
    let level = 0;
    let t = 0;
    const reached = {};
    const lines = ['time [s];power [W];level [%]'];
    while (level < 1 && t < 14 * 3600) {
      const wants = level < knee ? takes : takes * (1 - (1 - low) * ((level - knee) / (1 - knee)) ** bend);
      const watts = Math.min(wants, really);
      const shown = Math.floor(level * 100);
      reached[shown] ??= t;
      if (t % spacing === 0) lines.push(`${t};${Math.max(0, watts + noise * top * normal()).toFixed(4)};${shown}`);
      level += watts / 3600 / costs;
      t += 1;
    }
    for (let more = 0; more < 900; more += 1, t += 1)
      if (t % spacing === 0) lines.push(`${t};${(top * 0.01).toFixed(4)};100`);
    reached[100] ??= t - 900;
    return { text: `${lines.join('\n')}\n`, reached };
  };
  const known = Array.from({ length: 1 + Math.floor(random() * 3) }, () => charge(top * between(0.4, 1.5)).text);
  const gives = top * between(0.25, 1.5);
  return { known, gives, truth: charge(gives).reached, top };
}
