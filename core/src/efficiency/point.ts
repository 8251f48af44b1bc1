// One loaded point: output power at the port, efficiency, loss.

import { memoOf } from '../memo/index.ts';
import { formatPlain } from '../quantity/index.ts';
import {
  asMeasured,
  type Mains,
  metersOf,
  type Output,
  type OutputResult,
  outputAtReceptacle,
  type Point,
  type Rig,
  readingAt,
  type Setup,
  statedLead,
} from '../reading/index.ts';
import { difference, type Measured, propagate } from '../uncertainty/index.ts';

export interface EfficiencyPoint {
  readonly pointId: string;
  readonly takenAt: string;
  readonly mains: Mains;
  /** Fraction of nameplate current asked for. */
  readonly load: number;
  readonly outputs: readonly OutputResult[];
  readonly input: Measured;
  readonly output: Measured;
  /** Output over input, 0…1. */
  readonly efficiency: Measured;
  /** Input less output, W: what becomes heat. */
  readonly loss: Measured;
  readonly powerFactor: number | null;
  /** What to know before relying on the point. */
  readonly findings: readonly string[];
  /** Ids of the instruments that read it. */
  readonly meters: readonly string[];
}

/** A point that cannot give an efficiency yet, with what it lacks. */
export interface IncompletePoint {
  readonly pointId: string;
  readonly missing: readonly string[];
}

/** Load setting tolerance: ±2 percentage points of nameplate current (10 CFR 430 subpart B, appendix Z). */
export const LOAD_TOLERANCE = 0.02;

/** Note when a port carried another current than the load point asks for. */
function offLoad(result: OutputResult, output: Output, load: number): string[] {
  const wanted = load * output.amps;
  if (Math.abs(result.amps.value - wanted) <= LOAD_TOLERANCE * output.amps + 1e-9) return [];
  return [
    `${output.port} carried ${formatPlain(result.amps.value, 'current')}; ${Math.round(load * 100)} % is ${formatPlain(wanted, 'current')} ± 2 points.`,
  ];
}

function workedOut(point: Point, setup: Setup, rig: Rig): EfficiencyPoint | IncompletePoint {
  const outputs: OutputResult[] = [];
  const missing: string[] = [];
  const inputReading = readingAt(point, 'power', 'mains');
  if (!inputReading) missing.push('input watts');
  for (const output of setup.outputs) {
    const result = outputAtReceptacle(point, output.port, rig.outputPlace, statedLead(rig));
    if ('watts' in result) outputs.push(result);
    else missing.push(...result);
  }
  if (!inputReading || missing.length > 0) return { pointId: point.id, missing };
  const input = asMeasured(inputReading);
  if (input.value <= 0) return { pointId: point.id, missing: ['input watts above zero'] };
  const meterOf = (port: string | null): string | null => {
    const meters = (['voltage', 'current'] as const).map(
      (quantity) => readingAt(point, quantity, rig.outputPlace, port)?.instrumentId ?? null,
    );
    return meters.includes(null) ? null : meters.join(' and ');
  };
  const terms = outputs.map(({ port, watts }) => ({ weight: 1, of: watts, meter: meterOf(port) }));
  const output = propagate(
    outputs.reduce((total, { watts }) => total + watts.value, 0),
    terms,
  );
  const eta = output.value / input.value;
  return {
    pointId: point.id,
    takenAt: point.takenAt,
    mains: point.mains,
    load: point.load,
    outputs,
    input,
    output,
    efficiency: propagate(eta, [
      { weight: -eta / input.value, of: input },
      ...terms.map((term) => ({ ...term, weight: 1 / input.value })),
    ]),
    loss: difference(output, input),
    powerFactor: readingAt(point, 'power-factor', 'mains')?.value ?? null,
    meters: metersOf(point),
    findings: outputs.flatMap((result, index) => {
      const asked = setup.outputs[index];
      return asked ? offLoad(result, asked, point.load) : [];
    }),
  };
}

/**
 * Efficiency of one loaded point at the receptacle: η = Pout/Pin.
 * @returns the result, or what is missing for it
 */
export const efficiencyPoint: typeof workedOut = memoOf(workedOut);
