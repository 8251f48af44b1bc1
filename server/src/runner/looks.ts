// What the instruments of a rig tell, as the steps need it: the newest numbers, and means over a stretch of time.
import type { LiveEvent, StoredInstrument, StoredRig } from '@lastmark/contract';
import { meaningsOf, pairsOf, powersOf, toldNumber } from '@lastmark/core/instrument';
import type { Look, Moment } from '@lastmark/core/plan';
import type { QuantityId } from '@lastmark/core/quantity';
import { LongSeries, type Stretch, spreadOf } from '@lastmark/core/series';
import { Sensors } from './sensors.ts';

/** Mean of several looks. */
export interface Mean {
  readonly value: number;
  /** Measurements behind them: a meter that is asked more often than it measures tells the same again. */
  readonly count: number;
  /** Standard deviation of one measurement. */
  readonly spread: number;
  readonly least: number;
  readonly most: number;
  /** Area under the looks by trapezoids, unit·s: the energy of a power. */
  readonly area: number;
  /** Time that covers, s. */
  readonly covered: number;
}

/** An instrument that told no numbers for so long is lost, ms; one that may take longer over a reply has that time. */
const LOST_MILLISECONDS = 2000;
/** A timekeeper whose own time does not move for so long stands still, ms of the server. */
const STILL_MILLISECONDS = 5000;

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
  readonly #told = new Map<string, LongSeries>();
  /** How many numbers an instrument tells; behind them stand the products of volts and amps. */
  readonly #width = new Map<string, number>();
  readonly #heard = new Map<string, number>();
  /** Null for a rig without thermometer. */
  readonly #sensors: Sensors | null;
  readonly #patience: ReadonlyMap<string, number>;
  readonly #now: () => number;
  #clock: number | null = null;
  /** Whether the timekeeper tells a time of its own. */
  #ownClock = false;
  /** When the timekeeper's own time last moved, ms of the server. */
  #movedAt: number;
  #heardOf = 0;
  #suspicion: string | null = null;

  /** @param now server time, ms @param patience how long instruments may take over a reply, ms, by id */
  constructor(
    rig: StoredRig,
    own: readonly StoredInstrument[],
    ports: readonly string[],
    now: () => number,
    patience: ReadonlyMap<string, number> = new Map(),
  ) {
    this.#patience = patience;
    this.#rig = rig;
    this.#own = new Map(own.map((one) => [one.id, one]));
    this.#ports = ports;
    this.#now = now;
    this.#movedAt = now();
    const thermometer = this.#own.get(rig.drives?.thermometer ?? '');
    this.#sensors = thermometer
      ? new Sensors({ name: thermometer.name, spots: rig.spots, patience: patience.get(thermometer.id) ?? 0, now })
      : null;
  }

  /** Take what an instrument of the rig told. @returns whether it was one of the rig's, with numbers */
  take({ instrumentId, values, problem }: LiveEvent): boolean {
    const instrument = this.#own.get(instrumentId);
    if (!instrument || values.length === 0) return false;
    const told = this.#told.get(instrumentId) ?? new LongSeries();
    // A meter that tells no time of its own is dated by this server.
    if (instrumentId === this.#timekeeper) {
      const time = toldNumber(instrument.class, values, 'time');
      this.#ownClock ||= time !== null;
      if (time === null || time !== this.#clock) this.#movedAt = this.#now();
      this.#clock = time ?? (this.#ownClock ? this.#clock : this.#now() / 1000);
    }
    // Looks from before its first word would carry a time of another kind.
    else if (this.#clock === null && (this.#own.get(this.#timekeeper)?.address ?? null) !== null) return false;
    this.#heardOf += 1;
    const before = told.newest?.values;
    told.push({
      number: this.#heardOf,
      seconds: this.seconds,
      values: [...values, ...powersOf(instrument.class, values)],
      // A time of its own is among them, where it has one.
      again: before !== undefined && values.every((value, slot) => value === before[slot]),
    });
    this.#told.set(instrumentId, told);
    this.#width.set(instrumentId, values.length);
    if (values.some((value) => value !== null)) this.#heard.set(instrumentId, this.#now());
    if (instrumentId === this.#rig.drives?.thermometer) this.#sensors?.take(values);
    this.#suspicion =
      problem !== null && instrumentId !== this.#rig.drives?.thermometer
        ? `${instrument.name}: ${problem}`
        : this.#suspicion;
    return true;
  }

  /** The instrument whose clock counts: the meter at the mains, else the load, else the one at the output. */
  get #timekeeper(): string {
    const { meters, drives } = this.#rig;
    const keeps = (id: string | null | undefined) =>
      id != null &&
      ['power analyser', 'DC load', 'bench multimeter', 'inline USB meter'].includes(this.#own.get(id)?.class ?? '');
    const [first] = [meters.mains, drives?.load, meters.outputVolts].filter(keeps);
    return first ?? meters.mains;
  }

  /** Instrument time of the newest look, s; the server's where no instrument keeps time. */
  get seconds(): number {
    return this.#clock ?? this.#now() / 1000;
  }

  /** What is asked for since now will be exact, however long it lasts. @returns now, s */
  begin(): number {
    for (const told of this.#told.values()) told.mark(this.seconds);
    return this.seconds;
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
    this.#movedAt = this.#now();
    for (const id of this.#own.keys()) this.#heard.set(id, this.#now());
  }

  /** A person goes on without the sensors that fell silent. */
  goOnWithout(): void {
    this.#sensors?.goOnWithout();
  }

  /** This server itself stood still for a while: that is no silence of the instruments. @param milliseconds for how long */
  excuse(milliseconds: number): void {
    this.#movedAt += milliseconds;
    for (const [id, at] of this.#heard) this.#heard.set(id, at + milliseconds);
    this.#sensors?.excuse(milliseconds);
  }

  /** Whether what was heard then is too long ago for an instrument. */
  #isLate = (id: string, at: number | undefined): boolean =>
    this.#now() - (at ?? Number.NEGATIVE_INFINITY) > Math.max(LOST_MILLISECONDS, this.#patience.get(id) ?? 0);

  /** The timekeeper where it answers and its own time stands: whatever waits by it would wait for ever. Null while it moves. */
  stands(): StoredInstrument | null {
    const id = this.#timekeeper;
    if (!this.#ownClock || this.#isLate(id, this.#heard.get(id)) || this.#now() - this.#movedAt <= STILL_MILLISECONDS)
      return null;
    return this.#own.get(id) ?? null;
  }

  /** An instrument that tells numbers and has gone silent; null when none has. @param telling ids that should be heard */
  lost(telling: readonly string[]): StoredInstrument | null {
    const late = telling.find((id) => this.#isLate(id, this.#heard.get(id)));
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

  /** Where a spot stands in the numbers of its meter; null when the rig has none or it tells no such thing. */
  #slot(spot: Spot): { readonly told: LongSeries; readonly slot: number } | null {
    const meter = this.#meter(spot);
    const told = meter && this.#told.get(meter.id);
    if (!told) return null;
    const slot = meaningsOf(meter.kind, this.#width.get(meter.id) ?? 0).findIndex(
      ({ quantity, channel }) => quantity === spot.quantity && (channel === null || channel === meter.channel),
    );
    return slot < 0 ? null : { told, slot };
  }

  #mean(told: LongSeries, slot: number, from: number): Mean | null {
    const summary = told.summary(slot, from);
    if (!summary) return null;
    const { mean, count, squares, measurements, least, most, area, covered } = summary;
    // Each measurement was told about as often as the others: what is squared counts as often too.
    const spread = spreadOf({ count: measurements, squares: (squares * measurements) / count });
    return { value: mean, count: measurements, spread, least, most, area, covered };
  }

  /** The instrument that reads a spot; null when the rig has none. */
  meterAt = (spot: Spot): string | null => this.#meter(spot)?.id ?? null;

  /** Mean of a spot since an instrument time. */
  mean(spot: Spot, from: number): Mean | null {
    const at = this.#slot(spot);
    return at && this.#mean(at.told, at.slot, from);
  }

  /** Time of this server, ms. */
  get clock(): number {
    return this.#now();
  }

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
    const fresh = (meter ? (this.#told.get(meter.id)?.after(mark) ?? []) : []).slice(1);
    return { count: fresh.length, from: fresh[0]?.seconds ?? this.seconds };
  }

  /**
   * What a spot showed from the last look before a mark on, each measurement once: a meter that is asked more often than it
   * measures tells the same again. Where it has no clock of its own, only another number is known to be another measurement.
   */
  measurements(spot: Spot, mark: number): readonly { readonly seconds: number; readonly value: number }[] {
    const at = this.#slot(spot);
    const meter = this.#meter(spot);
    if (!at || !meter) return [];
    const clock = meaningsOf(meter.kind, this.#width.get(meter.id) ?? 0).findIndex(
      ({ quantity }) => quantity === 'time',
    );
    let last = '';
    // By this spot alone, and not across a reply without a number: that a port was seen often enough is never said too soon.
    return at.told.fromBefore(mark).flatMap(({ seconds, values }) => {
      const value = values[at.slot] ?? null;
      const key = `${values[clock] ?? ''} ${value}`;
      if (value === null || key === last) return [];
      last = key;
      return [{ seconds, value }];
    });
  }

  /** Everything a spot showed since a time. */
  samples(spot: Spot, from: number): readonly Stretch[] {
    const at = this.#slot(spot);
    return at ? at.told.since(at.slot, from) : [];
  }

  newest(spot: Spot): number | null {
    const meter = this.#meter(spot);
    const last = meter && this.#told.get(meter.id)?.newest;
    if (!meter || !last) return null;
    const values = last.values.slice(0, this.#width.get(meter.id));
    return toldNumber(meter.kind, values, spot.quantity, meter.channel);
  }

  /** Input power since a time, look by look. */
  input = (from: number): readonly Look[] => this.samples({ quantity: 'power', place: 'mains', port: null }, from);

  /** Mean output power of a port, from volts × amps look by look, where one instrument tells both. */
  watts(port: string, from: number): Mean | null {
    const volts = this.#meter({ quantity: 'voltage', place: this.#rig.outputPlace, port });
    const amps = this.#meter({ quantity: 'current', place: this.#rig.outputPlace, port });
    const told = volts && this.#told.get(volts.id);
    if (!told || volts.id !== amps?.id) return null;
    const width = this.#width.get(volts.id) ?? 0;
    const at = pairsOf(volts.kind, width).findIndex(({ channel }) => channel === null || channel === volts.channel);
    return at < 0 ? null : this.#mean(told, width + at, from);
  }

  /** Temperatures now, K: the room, and the hottest of the other sensors. */
  heat = (): ReturnType<Sensors['heat']> => this.#sensors?.heat() ?? { room: null, hottest: null };

  /** Which sensors fell silent, in words; null while all tell. */
  unminded = (): string | null => this.#sensors?.unminded() ?? null;

  /** What every point of the thermometer told since a time, °C; points that told nothing are left out. */
  warmth(from: number): readonly (readonly Stretch[])[] {
    const id = this.#rig.drives?.thermometer;
    const told = id ? this.#told.get(id) : undefined;
    if (!id || !told) return [];
    return Array.from({ length: this.#width.get(id) ?? 0 }, (_, slot) => told.since(slot, from));
  }

  /** Output power of a port since a time, look by look, where one instrument tells volts and amps. */
  wattSamples(port: string, from: number): readonly Stretch[] {
    const volts = this.#meter({ quantity: 'voltage', place: this.#rig.outputPlace, port });
    const told = volts && this.#told.get(volts.id);
    if (!told) return [];
    const width = this.#width.get(volts.id) ?? 0;
    const at = pairsOf(volts.kind, width).findIndex(({ channel }) => channel === null || channel === volts.channel);
    return at < 0 ? [] : told.since(width + at, from);
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
