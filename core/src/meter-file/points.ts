// The points of a meter file: all good lines of one load at one mains, with mean, spread and course.
import type { Mains, Output } from '../reading/index.ts';
import { Running } from './running.ts';

/** Mean and spread of one quantity over the lines of a load point, SI. */
export interface FileValue {
  readonly role: 'input-watts' | 'power-factor' | 'output-volts' | 'output-amps' | 'output-watts';
  readonly port: string | null;
  readonly mean: number;
  readonly spread: number;
  readonly count: number;
}

/** All good lines of one load at one mains. */
export interface FilePoint {
  readonly mains: Mains;
  readonly load: number;
  readonly firstLine: number;
  readonly lastLine: number;
  readonly lines: number;
  readonly values: readonly FileValue[];
  /** How far the input moved over its lines, as a fraction of its mean; null where too few lines show it. */
  readonly drift: number | null;
  /** When its first and last line were taken, s from the base of {@link FileReading.clock}; null where no line says. */
  readonly taken: { readonly from: number; readonly to: number } | null;
}

/** Where the lines can belong. */
export interface FileContext {
  readonly outputs: readonly Output[];
  readonly mains: readonly Mains[];
  /** Supply of the whole file, when no column says it. */
  readonly wholeFileMains: Mains | null;
  readonly loads: readonly number[];
}

/** Input that moves further than this over the lines of a point had not settled. 10 CFR 430 subpart B, appendix Z, 4 */
const SETTLED = 0.01;

/** Whether the lines of a point were taken while the input still moved. */
export const isDrifting = ({ drift }: Pick<FilePoint, 'drift'>): boolean => drift !== null && Math.abs(drift) > SETTLED;

/** One line's numbers, reused from line to line. */
export interface Line {
  load: number;
  mainsVolts: number;
  /** NaN where no column says it. */
  mainsHertz: number;
  inputWatts: number;
  powerFactor: number;
  efficiency: number;
  volts: number[];
  amps: number[];
  /** Where it belongs: indexes into the context's mains and loads. */
  mains: number;
  point: number;
}

export class PointSums {
  firstLine = 0;
  lastLine = 0;
  from = Number.NaN;
  to = Number.NaN;
  readonly input = new Running();
  readonly factor = new Running();
  readonly volts: Running[];
  readonly amps: Running[];
  readonly watts: Running[];

  constructor(outputs: number) {
    const fresh = () => Array.from({ length: outputs }, () => new Running());
    this.volts = fresh();
    this.amps = fresh();
    this.watts = fresh();
  }

  add(line: Line, number: number, at: number): void {
    if (this.firstLine === 0) this.firstLine = number;
    this.lastLine = number;
    if (Number.isNaN(this.from)) this.from = at;
    if (!Number.isNaN(at)) this.to = at;
    this.input.add(line.inputWatts);
    if (!Number.isNaN(line.powerFactor)) this.factor.add(line.powerFactor);
    for (let index = 0; index < this.volts.length; index += 1) {
      const volts = line.volts[index] ?? 0;
      const amps = line.amps[index] ?? 0;
      this.volts[index]?.add(volts);
      this.amps[index]?.add(amps);
      this.watts[index]?.add(volts * amps);
    }
  }

  values(outputs: readonly Output[], load: number): FileValue[] {
    const value = (role: FileValue['role'], port: string | null, sums: Running | undefined): FileValue[] =>
      sums && sums.count > 0 ? [{ role, port, mean: sums.mean, spread: sums.spread, count: sums.count }] : [];
    const perPort = outputs.flatMap(({ port }, index) => [
      ...value('output-volts', port, this.volts[index]),
      ...value('output-amps', port, this.amps[index]),
      ...(this.input.count > 1 ? value('output-watts', port, this.watts[index]) : []),
    ]);
    return [
      ...value('input-watts', null, this.input),
      ...value('power-factor', null, this.factor),
      ...(load > 0 ? perPort : []),
    ];
  }
}

/** What the lines of each mains and load amount to; keyed by mains · 1000 + load, both as indexes of the context. */
export function filePoints(sums: ReadonlyMap<number, PointSums>, context: FileContext): FilePoint[] {
  return [...sums.entries()].flatMap(([key, point]) => {
    const mains = context.mains[Math.floor(key / 1000)];
    const load = context.loads[key % 1000];
    if (!mains || load === undefined) return [];
    const { firstLine, lastLine, from, to } = point;
    return [
      {
        mains,
        load,
        firstLine,
        lastLine,
        lines: point.input.count,
        values: point.values(context.outputs, load),
        drift: point.input.drift,
        taken: Number.isNaN(from) ? null : { from, to },
      },
    ];
  });
}
