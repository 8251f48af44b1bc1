// What is found of cables and trials whose truth is known: resistance inside its interval, worn or not, differences or none.
import { drawCable, drawPairs, drawWear } from './cable-truth.mjs';
import { withEntry } from './entry.mjs';

const CABLES = 1200;
const WORN = 1200;
const TRIALS = 2000;
const MATRICES = 200;

const share = (part, of) => `${((100 * part) / of).toFixed(1)} %`;

function measureResistance(made) {
  let [inside, insideBare] = [0, 0];
  for (let seed = 1; seed <= CABLES; seed += 1) {
    const { text, specs, truth } = drawCable(seed, made);
    const table = made.readDrops(text);
    const spec = ({ percent, offset, digit }) => ({
      ...made.NO_SPEC,
      readingPercent: percent,
      offset,
      resolution: digit,
    });
    const volts = spec(specs.volts);
    const two = table.readings.some(({ near }) => near !== null);
    const found = made.resistanceOf(table.readings, {
      amps: spec(specs.amps),
      ...(two ? { near: volts } : {}),
      far: volts,
    });
    const half = made.expandedUncertainty(found.ohms);
    if (Math.abs(found.ohms.value - truth) <= half) inside += 1;
    const bare = made.resistanceOf(table.readings, {
      amps: made.NO_SPEC,
      ...(two ? { near: made.NO_SPEC } : {}),
      far: made.NO_SPEC,
    });
    if (Math.abs(bare.ohms.value - truth) <= made.expandedUncertainty(bare.ohms)) insideBare += 1;
  }
  console.log(
    `resistance of ${CABLES} synthetic cables: inside its 95 % interval ${share(inside, CABLES)}; by scatter alone, gains of the meters left out ${share(insideBare, CABLES)}`,
  );
}

function measureWear(made) {
  const exact = { amps: made.NO_SPEC, far: made.NO_SPEC };
  let [wrong, unworn, wrongUnder, under, found, worn] = [0, 0, 0, 0, 0, 0];
  for (let seed = 1; seed <= WORN; seed += 1) {
    const { before, after, gained } = drawWear(seed, made);
    const [was, is] = [before, after].map((readings) => made.resistanceOf(readings, exact).at20);
    const delta = made.difference(was, is);
    const called = delta.value > 0.1 * was.value && delta.value > made.expandedUncertainty(delta);
    if (gained === 0) {
      unworn += 1;
      if (called) wrong += 1;
    } else if (gained < 0.08) {
      under += 1;
      if (called) wrongUnder += 1;
    } else if (gained > 0.15) {
      worn += 1;
      if (called) found += 1;
    }
  }
  console.log(
    `worn or not, ${WORN} cables: called worn of those bends did nothing to ${share(wrong, unworn)}, of those under 8 % ${share(wrongUnder, under)}; found of those over 15 % ${share(found, worn)}`,
  );
}

function measureTrials(made) {
  let [falseOnes, told] = [0, 0];
  const power = { hit: 0, of: 0 };
  for (let seed = 1; seed <= TRIALS; seed += 1) {
    const part = 0.6 + 0.9 * made.seededRandom(seed)();
    const spread = 60;
    const blocks = made.repeatsNeeded(part * spread, spread, 'pairs');
    const trial = {
      kind: 'blocks',
      question: '',
      factor: 'cable',
      arms: [
        { name: 'a', sampleId: null },
        { name: 'b', sampleId: null },
      ],
      measure: { name: 'time', quantity: 'duration', better: null },
      held: [],
      blocks,
      seed,
      matters: null,
      expected: null,
      blind: false,
    };
    const order = made.trialOrder(trial);
    const called = (difference) =>
      made.analyseBlocks(trial, drawPairs(seed, made, trial, order, difference, spread), ['a', 'b']).comparisons[0]
        .called;
    if (called(0)) falseOnes += 1;
    told += 1;
    power.of += 1;
    if (called(part * spread)) power.hit += 1;
  }
  console.log(
    `${TRIALS} trials of pairs, as many as planned for: differences where there are none ${share(falseOnes, told)}; found at the planned difference ${share(power.hit, power.of)}`,
  );
}

function measureMatrices(made) {
  let [falseOnes, covered, first] = [0, 0, 0];
  for (let seed = 1; seed <= MATRICES; seed += 1) {
    const random = made.seededRandom(seed + 77);
    const normal = made.seededNormal(random);
    const levels = (count) => Array.from({ length: count }, (_, at) => ({ name: String(at), sampleId: null }));
    const trial = {
      kind: 'matrix',
      question: '',
      factors: [
        { name: 'cable', levels: levels(4) },
        { name: 'port', levels: levels(3) },
      ],
      measure: { name: 'power', quantity: 'power', better: null },
      held: [],
      blocks: 2,
      seed,
    };
    const effects = [0, 4 + 8 * random(), -3 - 6 * random()];
    const chance = 0.5 + 2 * random();
    const mean = effects.reduce((sum, one) => sum + one, 0) / 3;
    const explained = effects.reduce((sum, one) => sum + (one - mean) ** 2, 0) / 3;
    const truth = explained / (explained + chance ** 2);
    const found = made.analyseMatrix(
      trial,
      made.trialOrder(trial).map((slot, at) => ({
        id: `r${at}`,
        ...slot,
        value: 30 + effects[slot.cell[1]] + chance * normal(),
        held: [],
        note: '',
        takenAt: new Date(at * 60_000).toISOString(),
        supersedes: null,
        withdrawn: false,
      })),
    );
    const [cable, port] = found.factors;
    if (cable.called) falseOnes += 1;
    if (port.share > cable.share && port.called) first += 1;
    if (truth >= port.interval[0] - 1e-9 && truth <= port.interval[1] + 1e-9) covered += 1;
  }
  console.log(
    `${MATRICES} tables of cable and port: the port found to matter most ${share(first, MATRICES)}, its part inside its interval ${share(covered, MATRICES)}; cables called that make none ${share(falseOnes, MATRICES)}`,
  );
}

export const measureCables = () =>
  withEntry('cable.entry.ts', (made) => {
    measureResistance(made);
    measureWear(made);
    measureTrials(made);
    measureMatrices(made);
  });
