// Where a line of a meter file belongs: at which load and mains; or what in it cannot be true.
import { formatPlain } from '../quantity/index.ts';
import { type Mains, mainsLabel } from '../reading/index.ts';
import type { FileContext, Line } from './points.ts';

/** How far a line's mains may be from the wanted one to be taken for it, as a fraction. */
const MAINS_REACH = 0.05;
/** A line's load or current may be this far from the load point, in fractions of nameplate. */
export const LOAD_REACH = 0.02;
/** Current an output without load may show, A: meters show a few mA of their own. */
const NO_LOAD_AMPS = 0.02;
/** Relative excess of output over input no pair of meters explains. */
const IMPOSSIBLE_GAIN = 1.05;
/** Output below this says nothing about its ratio to the input, W. */
const LEAST_WATTS = 0.5;
/** No charger at a load point takes so many times what it gives. */
const IMPOSSIBLE_LOSS = 20;

const REACH = LOAD_REACH + 1e-9;
const wattsWords = (watts: number): string => `${Number(watts.toPrecision(4))} W`;
const percent = (load: number): string => `${Number((load * 100).toPrecision(3))} %`;

/** The load point within reach; -1 for none. */
const nearestLoad = (loads: readonly number[], load: number): number =>
  loads.findIndex((one) => Math.abs(one - load) <= REACH);

/** The supply of a line: the nearest in volts of those within reach, at its frequency where the file says one. -1 for none. */
function nearestMains({ mainsVolts, mainsHertz }: Line, mains: readonly Mains[]): number {
  let best = -1;
  let least = MAINS_REACH;
  mains.forEach((one, index) => {
    const away = Math.abs(mainsVolts - one.volts) / one.volts;
    const other = one.kind === 'ac' && !Number.isNaN(mainsHertz) && Math.abs(mainsHertz / one.hertz - 1) > MAINS_REACH;
    if (other || !(away <= least) || (best >= 0 && away === least)) return;
    best = index;
    least = away;
  });
  return best;
}

const mainsWords = ({ mainsVolts, mainsHertz }: Line): string =>
  [
    ...(Number.isNaN(mainsVolts) ? [] : [formatPlain(mainsVolts, 'voltage')]),
    ...(Number.isNaN(mainsHertz) ? [] : [formatPlain(mainsHertz, 'frequency')]),
  ].join(' ');

/** Find the supply of a line; returns what is wrong with it, or null. */
function placeMains(line: Line, { mains, wholeFileMains }: FileContext, wholeFile: number): string | null {
  const told = Number.isNaN(line.mainsVolts) ? -1 : nearestMains(line, mains);
  if (wholeFile < 0) {
    line.mains = told;
    return told < 0 ? `Mains ${mainsWords(line)} is none of ${mains.map(mainsLabel).join(', ')}.` : null;
  }
  line.mains = wholeFile;
  // What was chosen for all of it does not turn another supply into this one.
  const chosen = wholeFileMains as Mains;
  const volts = Number.isNaN(line.mainsVolts) ? chosen.volts : line.mainsVolts;
  return nearestMains({ ...line, mainsVolts: volts }, [chosen]) < 0
    ? `Mains ${mainsWords(line)}, and ${mainsLabel(chosen)} was chosen for the whole file.`
    : null;
}

/** Find the load point of a line, by its column or else by the first output's current; returns what is wrong, or null. */
function placeLoad(line: Line, { outputs, loads }: FileContext): string | null {
  const [first] = outputs;
  const drawn = (line.amps[0] ?? 0) / (first?.amps ?? Number.NaN);
  line.point = nearestLoad(loads, Number.isNaN(line.load) ? drawn : line.load);
  if (line.point < 0) return 'Not at a load point: further than 2 points of nameplate from every one.';
  const point = loads[line.point] as number;
  const flows = outputs.findIndex(
    ({ amps }, index) => (line.amps[index] ?? 0) > Math.max(NO_LOAD_AMPS, LOAD_REACH * amps),
  );
  // Words are made only of a line that is wrong: a long file has hundreds of thousands.
  const carried = () => `${outputs[flows]?.port} carried ${formatPlain(line.amps[flows] ?? 0, 'current')}`;
  if (point === 0 && flows >= 0)
    return `Load ${percent(line.load)}, yet ${carried()}: is the load in another unit, or another column?`;
  const own = loads[nearestLoad(loads, drawn)];
  // Several ports together may share what they have; one alone carries what the load point says.
  if (outputs.length === 1 && own !== undefined && own !== 0 && own !== point)
    return `Load ${percent(line.load)}, yet ${carried()}, which is ${percent(own)}: is the load in another unit, or another column?`;
  return null;
}

/** Find where a line belongs. @returns what is wrong with it, or null */
export function placeLine(line: Line, context: FileContext, wholeFile: number): string | null {
  if (line.powerFactor > 1) return `A power factor of ${line.powerFactor} is above 1.`;
  let output = 0;
  for (let index = 0; index < line.volts.length; index += 1)
    output += (line.volts[index] ?? 0) * (line.amps[index] ?? 0);
  if (output > line.inputWatts * IMPOSSIBLE_GAIN && output > LEAST_WATTS)
    return `Output ${wattsWords(output)} is above input ${wattsWords(line.inputWatts)}: columns swapped, or a wrong unit?`;
  const wrong = placeMains(line, context, wholeFile) ?? placeLoad(line, context);
  if (wrong !== null || context.loads[line.point] === 0) return wrong;
  if (output <= 0)
    return `Nothing came out at ${percent(context.loads[line.point] as number)} load: had the output gone?`;
  if (line.inputWatts > output * IMPOSSIBLE_LOSS)
    return `Input ${wattsWords(line.inputWatts)} is more than ${IMPOSSIBLE_LOSS} times the output of ${wattsWords(output)}: a wrong unit?`;
  return null;
}
