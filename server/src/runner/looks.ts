// What the instruments of a rig tell, as the steps need it: the newest numbers, and means over a stretch of time.
import type { LiveEvent, StoredInstrument, StoredRig } from '@lastmark/contract';
import { toldNumber } from '@lastmark/core/instrument';
import type { Look, Moment } from '@lastmark/core/plan';
import { type QuantityId, ZERO_CELSIUS } from '@lastmark/core/quantity';

interface Told {
  /** Counts up over all instruments, in the order they were heard. */
  readonly number: number;
  /** Time of the instrument that keeps time, s: no two instruments' clocks agree. */
  readonly seconds: number;
  readonly values: readonly (number | null)[];
}

/** Mean of several looks. */
export interface Mean {
  readonly value: number;
  readonly count: number;
  /** Standard deviation of one look. */
  readonly spread: number;
}

/** Looks older than this are forgotten: the longest averaging there is, and a little, s of instrument time. */
const REMEMBERED = 2000;
const MOST_LOOKS = 40_000;
/** An instrument that told no numbers for so long is lost, ms. */
const LOST_MILLISECONDS = 2000;

export function meanOf(values: readonly number[]): Mean | null {
  const count = values.length;
  if (count === 0) return null;
  const value = values.reduce((sum, one) => sum + one, 0) / count;
  const squares = values.reduce((sum, one) => sum + (one - value) ** 2, 0);
  return { value, count, spread: count > 1 ? Math.sqrt(squares / (count - 1)) : 0 };
}

/** Where a quantity of an output is read. */
export interface Spot {
  readonly quantity: QuantityId;
  readonly place: 'mains' | 'port' | 'load-end';
  readonly port: string | null;
}

export class Looks {
  readonly #rig: StoredRig;
  readonly #own: ReadonlyMap<string, StoredInstrument>;
  readonly #ports: readonly string[];
  readonly #told = new Map<string, Told[]>();
  readonly #heard = new Map<string, number>();
  readonly #now: () => number;
  #clock: number | null = null;
  #heardOf = 0;
  #suspicion: string | null = null;

  /** @param now server time, ms */
  constructor(rig: StoredRig, own: readonly StoredInstrument[], ports: readonly string[], now: () => number) {
    this.#rig = rig;
    this.#own = new Map(own.map((one) => [one.id, one]));
    this.#ports = ports;
    this.#now = now;
  }

  /** Take what an instrument of the rig told. @returns whether it was one of the rig's, with numbers */
  take({ instrumentId, values, problem }: LiveEvent): boolean {
    const instrument = this.#own.get(instrumentId);
    if (!instrument || values.length === 0) return false;
    const told = this.#told.get(instrumentId) ?? [];
    if (instrumentId === this.#timekeeper) this.#clock = toldNumber(instrument.class, values, 'time') ?? this.#clock;
    // Looks from before its first word would carry a time of another kind.
    else if (this.#clock === null && (this.#own.get(this.#timekeeper)?.address ?? null) !== null) return false;
    const { seconds } = this;
    this.#heardOf += 1;
    told.push({ number: this.#heardOf, seconds, values });
    const oldest = seconds - REMEMBERED;
    if ((told[0]?.seconds ?? 0) < oldest - REMEMBERED / 4 || told.length > MOST_LOOKS)
      told.splice(
        0,
        Math.max(
          told.length - MOST_LOOKS,
          told.findIndex((one) => one.seconds >= oldest),
        ),
      );
    this.#told.set(instrumentId, told);
    if (values.some((value) => value !== null)) this.#heard.set(instrumentId, this.#now());
    this.#suspicion =
      problem !== null && instrumentId !== this.#rig.drives?.thermometer
        ? `${instrument.name}: ${problem}`
        : this.#suspicion;
    return true;
  }

  /** The instrument whose clock counts: the meter at the mains, else the load. */
  get #timekeeper(): string {
    const { meters, drives } = this.#rig;
    const keeps = (id: string | null | undefined) =>
      id != null &&
      ['power analyser', 'DC load', 'bench multimeter', 'inline USB meter'].includes(this.#own.get(id)?.class ?? '');
    return keeps(meters.mains) ? meters.mains : (drives?.load ?? meters.mains);
  }

  /** Instrument time of the newest look, s; the server's where no instrument keeps time. */
  get seconds(): number {
    return this.#clock ?? this.#now() / 1000;
  }

  /** Instruments that told nothing yet, of those that should. */
  unheard(telling: readonly string[]): StoredInstrument | null {
    const missing = telling.find((id) => !this.#told.has(id));
    return missing === undefined ? null : (this.#own.get(missing) ?? null);
  }

  /** What is suspicious about the numbers since {@link trust}; null when nothing is. */
  get suspicion(): string | null {
    return this.#suspicion;
  }

  /** Forget suspicions of before. */
  trust(): void {
    this.#suspicion = null;
    for (const id of this.#own.keys()) this.#heard.set(id, this.#now());
  }

  /** This server itself stood still for a while: that is no silence of the instruments. @param milliseconds for how long */
  excuse(milliseconds: number): void {
    for (const [id, at] of this.#heard) this.#heard.set(id, at + milliseconds);
  }

  /** An instrument that tells numbers and has gone silent; null when none has. @param telling ids that should be heard */
  lost(telling: readonly string[]): StoredInstrument | null {
    const late = telling.find((id) => this.#now() - (this.#heard.get(id) ?? 0) > LOST_MILLISECONDS);
    return late === undefined ? null : (this.#own.get(late) ?? null);
  }

  /** The meter of a spot and the channel there; null when the rig has none. */
  #meter({
    quantity,
    place,
    port,
  }: Spot): { readonly id: string; readonly kind: string; readonly channel: number | null } | null {
    const { meters, outputPlace } = this.#rig;
    const output = quantity === 'current' ? meters.outputAmps : meters.outputVolts;
    const id =
      place === 'mains' ? meters.mains : place === outputPlace ? output : place === 'load-end' ? meters.loadEnd : null;
    const instrument = id === null ? undefined : this.#own.get(id);
    if (!instrument) return null;
    return { id: instrument.id, kind: instrument.class, channel: port === null ? null : this.#ports.indexOf(port) + 1 };
  }

  #values(spot: Spot, from: number): readonly number[] {
    const meter = this.#meter(spot);
    if (!meter) return [];
    return (this.#told.get(meter.id) ?? []).flatMap(({ seconds, values }) => {
      if (seconds < from) return [];
      const value = toldNumber(meter.kind, values, spot.quantity, meter.channel);
      return value === null ? [] : [value];
    });
  }

  /** Mean of a spot since an instrument time. */
  mean = (spot: Spot, from: number): Mean | null => meanOf(this.#values(spot, from));

  /** A mark in the order of looks: what is heard after it is newer. */
  get mark(): number {
    return this.#heardOf;
  }

  /**
   * Looks of a spot heard after a mark. The first may have been on its way when the mark was set and is left out.
   * @returns how many, and the time of the first, s
   */
  after(spot: Spot, mark: number): { readonly count: number; readonly from: number } {
    const meter = this.#meter(spot);
    const fresh = (meter ? (this.#told.get(meter.id) ?? []) : []).filter(({ number }) => number > mark).slice(1);
    return { count: fresh.length, from: fresh[0]?.seconds ?? this.seconds };
  }

  /** Everything a spot showed since a time. */
  samples(spot: Spot, from: number): readonly { readonly seconds: number; readonly volts: number }[] {
    const meter = this.#meter(spot);
    if (!meter) return [];
    return (this.#told.get(meter.id) ?? []).flatMap(({ seconds, values }) => {
      const volts = seconds >= from ? toldNumber(meter.kind, values, spot.quantity, meter.channel) : null;
      return volts === null ? [] : [{ seconds, volts }];
    });
  }

  newest(spot: Spot): number | null {
    const meter = this.#meter(spot);
    const last = meter && this.#told.get(meter.id)?.at(-1);
    return meter && last ? toldNumber(meter.kind, last.values, spot.quantity, meter.channel) : null;
  }

  /** Input power since a time, look by look. */
  input(from: number): readonly Look[] {
    const meter = this.#own.get(this.#rig.meters.mains);
    return (this.#told.get(this.#rig.meters.mains) ?? []).flatMap(({ seconds, values }) => {
      const value = seconds >= from && meter ? toldNumber(meter.class, values, 'power') : null;
      return value === null ? [] : [{ seconds, value }];
    });
  }

  /** Mean output power of a port, from volts × amps look by look, where one instrument tells both. */
  watts(port: string, from: number): Mean | null {
    const volts = this.#meter({ quantity: 'voltage', place: this.#rig.outputPlace, port });
    const amps = this.#meter({ quantity: 'current', place: this.#rig.outputPlace, port });
    if (!volts || !amps || volts.id !== amps.id) return null;
    const products = (this.#told.get(volts.id) ?? []).flatMap(({ seconds, values }) => {
      const v = toldNumber(volts.kind, values, 'voltage', volts.channel);
      const a = toldNumber(amps.kind, values, 'current', amps.channel);
      return seconds >= from && v !== null && a !== null ? [v * a] : [];
    });
    return meanOf(products);
  }

  /** Temperatures of the thermometer's points, K: the room, and the hottest of the others. */
  heat(): { readonly room: number | null; readonly hottest: number | null } {
    const id = this.#rig.drives?.thermometer;
    const values = (id && this.#told.get(id)?.at(-1)?.values) || [];
    const [room, ...others] = values.map((value) => (value === null ? null : value + ZERO_CELSIUS));
    const known = others.filter((value): value is number => value !== null);
    return { room: room ?? null, hottest: known.length > 0 ? Math.max(...known) : null };
  }

  /** What limits are held against. */
  moment(): Moment {
    return {
      ports: this.#ports.map((port) => ({
        port,
        volts: this.newest({ quantity: 'voltage', place: this.#rig.outputPlace, port }),
        amps: this.newest({ quantity: 'current', place: this.#rig.outputPlace, port }),
      })),
      hottest: this.heat().hottest,
    };
  }
}
