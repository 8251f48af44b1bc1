// What should come out of the ports while a step lasts, and whether it does. A charger that fell silent gets no verdict.
import { fixed, formatPlain } from '@lastmark/core/quantity';
import { type Mains, mainsLabel, type Output } from '@lastmark/core/reading';
import type { Looks, Spot } from './looks.ts';
import { DrawsNothing, type Gone, Silent } from './turns.ts';

/** Below this nothing comes out, V. */
const NOTHING_VOLTS = 1;
/** Below this part of its level an output has dropped to another. */
const DROPPED = 0.8;
/** A load that draws less than this part of what it was told does not draw … */
const DRAWS_NOTHING = 0.1;
/** … where it was told to draw at least this, A: a meter's zero is below that. */
const LEAST_AMPS = 0.1;
/** Looks behind either. Both meters have to tell: what draws nothing because nothing comes is seen as gone first. */
const LASTING_LOOKS = { gone: 1, idle: 5 };
/** A load that draws nothing does so for longer than a meter may take to show a current, ms. */
const LASTING_MILLISECONDS = { gone: 0, idle: 2500 };

interface Expected {
  readonly outputs: readonly Output[];
  /** Fraction of their currents; 0 for levels without load. */
  readonly load: number;
  readonly mains: Mains;
}

interface Watching extends Expected {
  /** For how long, s. */
  readonly planned: number;
  readonly since: number;
  /** When, in the order of looks. */
  readonly mark: number;
}

type Finding = Silent['finding'];

/** How an output stands that should be at a level, V; null where it is there, or where nothing is told. */
export function goneFrom(volts: number | null, level: number): Gone | null {
  if (volts === null) return null;
  if (volts < NOTHING_VOLTS) return 'cut off';
  return volts < DROPPED * level ? 'dropped a level' : null;
}

export class OutputWatch {
  readonly #looks: Looks;
  readonly #place: Spot['place'];
  readonly #loadName: string;
  readonly #telling: readonly string[];
  /** Ports that fell silent and have not been proved since. */
  readonly #unproved = new Set<string>();
  #expected: Watching | null = null;
  /** Steps in which a port fell silent; ids. */
  readonly #silentIn = new Set<string>();
  /** Since when a port is seen gone: in the order of looks, and by the server's clock, ms. */
  #low = new Map<string, { readonly mark: number; readonly at: number }>();

  /** @param telling instruments that tell numbers by themselves; ids */
  constructor(looks: Looks, place: Spot['place'], loadName: string, telling: readonly string[]) {
    this.#looks = looks;
    this.#place = place;
    this.#loadName = loadName;
    this.#telling = telling;
  }

  /** From now on these are to be there. @param planned for how long, s */
  expect(step: Expected, planned: number): void {
    this.#low.clear();
    this.#expected = { ...step, planned, since: this.#looks.seconds, mark: this.#looks.mark };
  }

  /** Nothing is expected any more. */
  rest(): void {
    this.#expected = null;
    this.#low.clear();
  }

  /** Whether a port fell silent and was not proved since. */
  isUnproved = (port: string): boolean => this.#unproved.has(port);

  /** Whether a port fell silent in a step before: if it does so again, proved in between, that is how it is. */
  silentIn = (stepId: string): boolean => this.#silentIn.has(stepId);

  /** These fell silent in a step. */
  doubt(ports: readonly string[], stepId: string): void {
    this.#silentIn.add(stepId);
    for (const port of ports) this.#unproved.add(port);
  }

  /** These are there again. */
  proved(ports: readonly string[]): void {
    for (const port of ports) this.#unproved.delete(port);
  }

  /** Whether something seems gone, or was not seen at all, and has not been looked at often enough to say which. */
  get inDoubt(): boolean {
    const expected = this.#expected;
    if (!expected) return false;
    const unseen = expected.outputs.some(({ port }) => {
      const spot = this.#spot(port);
      const meter = this.#looks.meterAt(spot);
      return meter !== null && this.#telling.includes(meter) && this.#looks.after(spot, expected.mark).count === 0;
    });
    return unseen || this.#low.size > 0;
  }

  #spot = (port: string): Spot => ({ quantity: 'voltage', place: this.#place, port });
  #current = (port: string): Spot => ({ quantity: 'current', place: this.#place, port });

  /** Seen in more than one look: a single one may have been on its way while something was switched. */
  #lasts(what: 'gone' | 'idle', port: string, gone: boolean): boolean {
    const key = `${what} ${port}`;
    if (!gone) {
      this.#low.delete(key);
      return false;
    }
    const since = this.#low.get(key);
    if (since === undefined) {
      this.#low.set(key, { mark: this.#looks.mark, at: this.#looks.clock });
      return false;
    }
    if (this.#looks.clock - since.at < LASTING_MILLISECONDS[what]) return false;
    const spots = what === 'gone' ? [this.#spot(port)] : [this.#spot(port), this.#current(port)];
    return spots.every((spot) => this.#looks.after(spot, since.mark).count >= LASTING_LOOKS[what]);
  }

  /** @throws Silent when an output is gone that should be there; DrawsNothing when the load draws nothing from one that is */
  mind(): void {
    const expected = this.#expected;
    if (!expected) return;
    const gone = expected.outputs.flatMap(({ port, volts }) => {
      const how = goneFrom(this.#looks.newest(this.#spot(port)), volts);
      return this.#lasts('gone', port, how !== null) && how ? [{ port, how }] : [];
    });
    const [first] = gone;
    if (first) throw this.#silent(expected, gone, first.how);
    for (const { port, amps } of expected.outputs) {
      const told = amps * expected.load;
      const drawn = this.#looks.newest(this.#current(port));
      const nothing = drawn !== null && told >= LEAST_AMPS && drawn < told * DRAWS_NOTHING;
      if (this.#lasts('idle', port, nothing))
        throw new DrawsNothing(
          `"${this.#loadName}" draws ${fixed(drawn ?? 0, 3)} A from ${port} instead of ${fixed(told, 3)} A`,
        );
    }
  }

  #silent(
    { outputs, load, mains, planned, since }: Watching,
    gone: readonly { readonly port: string; readonly how: Gone }[],
    how: Gone,
  ): Silent {
    const held = Math.max(0, this.#looks.seconds - since);
    const { room, hottest } = this.#looks.heat();
    const loaded = outputs.map((one) => ({ ...one, amps: Number((one.amps * load).toFixed(4)) }));
    const under = loaded
      .map(({ port, volts, amps }) => `${port} ${formatPlain(volts, 'voltage')} ${formatPlain(amps, 'current')}`)
      .join(' + ');
    const heat = [
      ...(hottest === null ? [] : [`hottest ${formatPlain(hottest, 'temperature')}`]),
      ...(room === null ? [] : [`room ${formatPlain(room, 'temperature')}`]),
    ];
    const ports = gone.map(({ port }) => port);
    const when =
      load > 0
        ? `${held < 120 ? `${Math.round(held)} s` : `${Math.round(held / 60)} min`} after the load came on`
        : 'without load';
    const says = `${ports.join(' + ')} ${how} ${when}: ${[`${under} at ${mainsLabel(mains)}`, ...heat].join(', ')}.`;
    const own = loaded.find(({ port }) => port === ports[0]);
    const finding: Finding =
      load > 0 && own
        ? {
            kind: 'hold',
            port: own.port,
            volts: own.volts,
            amps: own.amps,
            others: loaded.filter((one) => one !== own),
            planned: Math.max(planned, held + 1),
            held,
            end: how,
            hottest,
            ambient: room,
            after: null,
            note: says.slice(0, 400),
            supersedes: null,
            withdrawn: false,
          }
        : null;
    return new Silent(ports, how, says, finding);
  }
}
