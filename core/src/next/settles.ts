// Which steps of a sheet settle a promise: all of them must be done.
import { ofKind, outputsOf, type SheetStep } from '../plan/index.ts';
import { type Claim, type Promised, sharePorts } from '../promise/index.ts';
import { type Mains, mainsLabel, type Output, sameOutputs } from '../reading/index.ts';

/** Four loads an average is made of. */
const FOUR = [1, 0.75, 0.5, 0.25];
const near = (a: number, b: number, part = 0.01): boolean =>
  Math.abs(a - b) <= part * Math.max(Math.abs(a), Math.abs(b));
const wattsOf = (outputs: readonly Output[]): number => outputs.reduce((sum, { volts, amps }) => sum + volts * amps, 0);
const sameSet = (a: readonly string[], b: readonly string[]): boolean =>
  [...a].sort().join('\n') === [...b].sort().join('\n');

interface Asked {
  readonly steps: readonly SheetStep[];
  /** How long a power must hold to count as continuous, s. */
  readonly continuous: number;
  /** Part by which a set power may miss its promise. */
  readonly allowance: number;
  readonly devices: readonly { readonly id: string; readonly name: string }[];
}

const at = (mains: Mains | null, step: { readonly mains: Mains }): boolean =>
  mains === null || mainsLabel(mains) === mainsLabel(step.mains);

/** Steps one behind the other, or none where one is missing. */
const all = (...parts: readonly (readonly SheetStep[])[]): readonly SheetStep[] =>
  parts.some((part) => part.length === 0) ? [] : [...new Set(parts.flat())];

/** A whole average: its warm-up and its four points, the strongest loading at the first mains that has them. */
function average(steps: readonly SheetStep[], mains: Mains | null): readonly SheetStep[] {
  const points = ofKind(steps, 'point').filter((step) => step.station === 'efficiency' && at(mains, step));
  for (const first of points) {
    const own = FOUR.map((load) =>
      points.find(
        (step) =>
          near(step.load, load) &&
          mainsLabel(step.mains) === mainsLabel(first.mains) &&
          sameOutputs(step.outputs, first.outputs),
      ),
    );
    const found = own.filter((step) => step !== undefined);
    if (found.length < FOUR.length) continue;
    const warm = ofKind(steps, 'warm-up').find((step) => mainsLabel(step.mains) === mainsLabel(first.mains));
    return [...(warm ? [warm] : []), ...found];
  }
  return [];
}

/** Steps in which a power is drawn, whatever for how long. */
function drawn(promise: Promised, { steps, allowance }: Asked): readonly SheetStep[] {
  const points = ofKind(steps, 'point').filter(({ station, load }) => station === 'proof' && load > 0);
  switch (promise.kind) {
    case 'port-line': {
      const found = points.find(({ outputs: [own, ...others] }) => {
        if (!own || others.length > 0 || own.supply !== undefined || own.port !== promise.port) return false;
        return near(own.volts, promise.volts) && own.amps >= promise.amps * (1 - allowance);
      });
      return found ? [found] : [];
    }
    case 'range':
      return points.filter(({ outputs: [own, ...others] }) => {
        const fits = own && others.length === 0 && own.port === promise.port && own.supply === promise.supply;
        return fits && (near(own.volts, promise.low) || near(own.volts, promise.high));
      });
    case 'combination': {
      const ports = promise.shares.flatMap(sharePorts);
      const split = ofKind(steps, 'split').find(({ order }) => sameSet(order, ports));
      if (split) return [split];
      const point = points.find(({ outputs }) =>
        sameSet(
          outputs.map(({ port }) => port),
          ports,
        ),
      );
      return point ? [point] : [];
    }
    case 'total': {
      const point = points.find(({ outputs }) => wattsOf(outputs) >= promise.watts * (1 - allowance));
      if (point) return [point];
      const most = [...ofKind(steps, 'split')].sort((a, b) => b.order.length - a.order.length)[0];
      return most ? [most] : [];
    }
    default:
      return [];
  }
}

/** A step that holds a power long enough. */
function held(promise: Promised, seconds: number, { steps, allowance }: Asked): readonly SheetStep[] {
  const watts =
    promise.kind === 'port-line'
      ? promise.volts * promise.amps
      : promise.kind === 'total'
        ? promise.watts
        : promise.kind === 'combination'
          ? promise.shares.reduce((sum, share) => sum + share.watts, 0)
          : 0;
  const long = steps.find((step) => {
    const soaks = step.kind === 'capture' && step.capture === 'soak';
    if (step.kind !== 'hold' && !soaks) return false;
    const outputs = outputsOf(step);
    const alone = promise.kind !== 'port-line' || (outputs.length === 1 && outputs[0]?.port === promise.port);
    return alone && step.dwell >= seconds - 1 && wattsOf(outputs) >= watts * (1 - allowance);
  });
  return long ? [long] : [];
}

/**
 * The steps of a sheet that settle a promise, in the order of the sheet.
 * @returns empty where the sheet has nothing for it
 */
export function stepsFor(
  { promise, duration }: Pick<Claim, 'promise' | 'duration'>,
  asked: Asked,
): readonly SheetStep[] {
  const { steps, continuous, devices } = asked;
  switch (promise.kind) {
    case 'port-line':
    case 'range':
    case 'combination':
    case 'total': {
      const power = drawn(promise, asked);
      if (duration.kind === 'unstated' || promise.kind === 'range') return power;
      return all(power, held(promise, duration.kind === 'peak' ? duration.seconds : continuous, asked));
    }
    case 'signal':
      return ofKind(steps, 'read-out').filter(({ port }) => port === promise.port);
    case 'average-efficiency':
      return average(steps, promise.mains);
    case 'idle':
      return ofKind(steps, 'idle')
        .filter((step) => step.attached === 'nothing' && at(promise.mains, step))
        .slice(0, 1);
    case 'ripple': {
      const records = ofKind(steps, 'capture').filter((step) => step.capture === 'ripple' && at(promise.mains, step));
      const supply = records[0] && mainsLabel(records[0].mains);
      return records.filter((step) => step.load > 0 && mainsLabel(step.mains) === supply);
    }
    case 'surface':
      return ofKind(steps, 'capture')
        .filter(({ capture }) => capture === 'soak')
        .slice(0, 1);
    case 'charge-time': {
      const device = devices.find(({ name }) => name === promise.device);
      return ofKind(steps, 'charge')
        .filter(({ deviceId }) => promise.device === '' || deviceId === device?.id)
        .slice(0, 1);
    }
    case 'cable-rating':
      return all(ofKind(steps, 'read-out'), ofKind(steps, 'resistance').slice(0, 1));
    case 'bends':
      return ofKind(steps, 'bend').length > 0
        ? steps.filter(({ kind }) => kind === 'bend' || kind === 'resistance')
        : [];
    case 'data-rate':
    case 'wording':
      return [];
  }
}
