// The charger on the simulated bench, live: who is plugged in, what was agreed, what flows, how hot it is.
import { decodeRequest, encodeSource, type SourceObject, usableAmps, voltsOf } from '@lastmark/core/pd';
import type { Clock } from './clock.ts';
import {
  cableOhms,
  currentCrest,
  currentShape,
  type HeatState,
  heatAfter,
  holdUpSeconds,
  idleWatts,
  inrushAmps,
  lossWatts,
  powerFactor,
  pulseWidth,
  rippleVolts,
} from './physics.ts';
import type { CableTruth, ChargerTruth, PortTruth } from './truth.ts';

/** The load behind one port: a sink that asks for a level, and a current. */
interface Sink {
  plugged: boolean;
  /** Level asked for: position in the list and, for ranges, volts. */
  wanted: { readonly position: number; readonly volts: number | null };
  /** What was agreed. */
  agreed: { readonly position: number; readonly volts: number } | null;
  /** A */
  amps: number;
  on: boolean;
  /** VBUS is gone until this moment, s. */
  goneUntil: number;
  /** Cut off by overload: until when; infinite until unplugged. */
  offUntil: number;
  /** Since when more than the peak power was drawn, s; null while it is not. */
  peakSince: number | null;
}

/** True values at one port. */
export interface PortState {
  /** V at the receptacle */
  readonly volts: number;
  /** A */
  readonly amps: number;
  /** V at the far end of the cable */
  readonly endVolts: number;
}

export interface Supply {
  readonly on: boolean;
  readonly volts: number;
  /** 0 for DC */
  readonly hertz: number;
}

const NOTHING: PortState = { volts: 0, amps: 0, endVolts: 0 };
/** Longest stretch the state is carried over in one go, s of bench time. */
const STRETCH = 5;

export class SimulatedBench {
  readonly #clock: Clock;
  #charger: ChargerTruth;
  #cable: CableTruth;
  #sinks = new Map<string, Sink>();
  #supply: Supply = { on: false, volts: 230, hertz: 50 };
  #room = 298.15;
  #heat: HeatState = { inside: 298.15, shell: 298.15 };
  #throttled = false;
  #tripped = false;
  #corrected = false;
  /** A DC supply sagged below what it runs on. */
  #under = false;
  /** Outputs that fade since the supply went off: voltage then, and until when the bulk holds it. */
  #fading = new Map<string, { readonly volts: number; readonly holdsUntil: number }>();
  /** When the supply was last switched on, and at which angle of the mains. */
  #switchedOn = { at: 0, angle: Math.PI / 2, count: 0 };
  #at: number;
  /** Energy taken in since the bench was switched on, J. */
  #energy = 0;

  constructor(charger: ChargerTruth, cable: CableTruth, clock: Clock) {
    this.#clock = clock;
    this.#charger = charger;
    this.#cable = cable;
    this.#at = clock.now();
    this.#plugIn(charger);
  }

  #plugIn(charger: ChargerTruth): void {
    this.#charger = charger;
    this.#sinks = new Map(charger.ports.map(({ label }) => [label, this.#fresh()]));
    this.#heat = { inside: this.#room, shell: this.#room };
    this.#throttled = false;
    this.#tripped = false;
    this.#corrected = false;
  }

  #fresh = (): Sink => ({
    plugged: false,
    wanted: { position: 1, volts: null },
    agreed: null,
    amps: 0,
    on: false,
    goneUntil: 0,
    offUntil: 0,
    peakSince: null,
  });

  get charger(): ChargerTruth {
    return this.#charger;
  }

  get cable(): CableTruth {
    return this.#cable;
  }

  get supply(): Supply {
    return this.#supply;
  }

  /** Put another charger on the bench, cold and with everything off. */
  load(charger: ChargerTruth): void {
    this.#advance();
    this.#plugIn(charger);
  }

  /** Put another cable between ports and loads. */
  lay(cable: CableTruth): void {
    this.#advance();
    this.#cable = cable;
    for (const label of this.#sinks.keys()) this.#agree(label);
  }

  setSupply(part: Partial<Supply>): void {
    this.#advance();
    const before = this.#supply;
    if (before.on && part.on === false) this.#fade();
    this.#supply = { ...before, ...part };
    if (!before.on && this.#supply.on) this.#switchOn();
    this.#sag();
    if (!this.#supply.on) {
      // Without mains everything is forgotten: trips, agreements, cut-offs.
      this.#tripped = false;
      for (const sink of this.#sinks.values()) Object.assign(sink, { agreed: null, offUntil: 0, peakSince: null });
    } else for (const label of this.#sinks.keys()) this.#agree(label);
  }

  /** The supply goes off: what an output then has, it loses slowly. */
  #fade(): void {
    const peak = this.#supply.hertz === 0 ? this.#supply.volts : this.#supply.volts * Math.SQRT2;
    const drawn = this.#drawn();
    this.#fading = new Map(
      this.#charger.ports.map(({ label }) => {
        const { volts } = this.#flow(label);
        return [label, { volts, holdsUntil: this.#at + holdUpSeconds(this.#charger.supply, peak, drawn) }];
      }),
    );
  }

  /** The supply comes on, each time at another angle of the mains. */
  #switchOn(): void {
    const count = this.#switchedOn.count + 1;
    // The golden angle spreads the moments evenly.
    this.#switchedOn = { at: this.#at, angle: (count * 2.399_963) % (2 * Math.PI), count };
    this.#fading.clear();
    this.#under = false;
  }

  /** A DC supply below the cut-out takes every output away; above the restart all come back and agree anew. */
  #sag(): void {
    const { cutOut, restart } = this.#charger.supply;
    const { on, volts, hertz } = this.#supply;
    if (cutOut === null || restart === null || !on || hertz !== 0) return;
    if (!this.#under && volts < cutOut) {
      this.#under = true;
      for (const sink of this.#sinks.values()) sink.agreed = null;
    } else if (this.#under && volts > restart) this.#under = false;
  }

  /** Temperature of the room or chamber, K. */
  setRoom(kelvin: number): void {
    this.#advance();
    this.#room = kelvin;
  }

  get room(): number {
    return this.#room;
  }

  /** Cut the charger out, as a fault on demand. */
  cutOut(): void {
    this.#advance();
    this.#tripped = true;
  }

  #sink(label: string): Sink {
    const sink = this.#sinks.get(label);
    if (!sink) throw new RangeError(`There is no port ${label}.`);
    return sink;
  }

  get occupied(): readonly string[] {
    return [...this.#sinks].flatMap(([label, { plugged }]) => (plugged ? [label] : []));
  }

  /** Plug a load into a port, or pull it. Other ports may lose their level for a moment. */
  plug(label: string, plugged: boolean): void {
    this.#advance();
    const sink = this.#sink(label);
    if (sink.plugged === plugged) return;
    const before = new Map([...this.#sinks.keys()].map((port) => [port, this.#share(port)]));
    Object.assign(sink, plugged ? { plugged } : this.#fresh());
    for (const [port, share] of before) {
      const other = this.#sink(port);
      if (port !== label && other.plugged && Math.abs(this.#share(port) - share) > 0.5) {
        other.goneUntil = this.#at + this.#charger.gap;
        this.#agree(port);
      }
    }
    if (plugged) this.#agree(label);
  }

  /** Ask a port for a level. @returns whether the charger agreed */
  request(label: string, position: number, volts: number | null): boolean {
    this.#advance();
    const sink = this.#sink(label);
    if (!sink.plugged) return false;
    sink.wanted = { position, volts };
    const before = sink.agreed;
    this.#agree(label);
    const agreed = sink.agreed?.position === position;
    if (!agreed) sink.agreed = before;
    return agreed;
  }

  /** Ask with a request word, as a sink on the wire does. */
  requestWord(label: string, word: number): boolean {
    const position = Math.floor(word / 2 ** 28);
    const object = this.offers(label)[position - 1];
    if (!object) return false;
    const kind = object.kind === 'pps' ? 'pps' : object.kind.endsWith('avs') ? 'avs' : 'fixed';
    return this.request(label, position, decodeRequest(word, kind).volts);
  }

  setLoad(label: string, part: { amps?: number; on?: boolean }): void {
    this.#advance();
    Object.assign(this.#sink(label), part);
  }

  /** Every load off: what an emergency asks for. */
  loadsOff(): void {
    this.#advance();
    for (const sink of this.#sinks.values()) sink.on = false;
  }

  isOn(label: string): boolean {
    return this.#sink(label).on;
  }

  #port(label: string): PortTruth {
    const port = this.#charger.ports.find((one) => one.label === label);
    if (!port) throw new RangeError(`There is no port ${label}.`);
    return port;
  }

  /** Power a port may give now, W. */
  #share(label: string): number {
    const { watts: alone } = this.#port(label);
    const occupied = this.occupied;
    if (occupied.length <= 1 || !occupied.includes(label)) return alone;
    const rule = this.#charger.allocations.find(
      ({ ports }) => ports.length === occupied.length && ports.every((port) => occupied.includes(port)),
    );
    if (rule) return Math.min(alone, rule.watts[label] ?? 0);
    const all = occupied.reduce((sum, port) => sum + this.#port(port).watts, 0);
    return all <= this.#charger.nameplate ? alone : (alone * this.#charger.nameplate) / all;
  }

  /** What a port offers now: cut down to its share, and to what the cable's marker allows. */
  offers(label: string): readonly SourceObject[] {
    const { offers, watts } = this.#port(label);
    const share = this.#share(label);
    const whole = share >= watts - 0.5;
    const epr = this.#cable.marks === '5 A EPR' && whole;
    const most = this.#cable.marks === '5 A' || this.#cable.marks === '5 A EPR' ? 5 : 3;
    /** Current that is left of an offer at a voltage, in the steps offers are told in. */
    const left = (amps: number, volts: number) =>
      Math.floor(Math.min(amps, most, whole ? amps : share / volts) * 100 + 1e-6) / 100;
    return offers.flatMap((object): SourceObject[] => {
      const range = voltsOf(object);
      if (!range || (range.high > 21.5 && !epr)) return [];
      if (!('amps' in object)) return [object];
      if (object.kind === 'spr-avs')
        return [{ ...object, amps: left(object.amps, 15), ampsAbove: left(object.ampsAbove, 20) }];
      const amps = left(object.amps, range.high);
      return amps < 0.5 ? [] : [{ ...object, amps }];
    });
  }

  /** The offers as words, as an analyser receives them. */
  words(label: string): readonly number[] {
    return this.#supply.on && !this.#tripped ? this.offers(label).map(encodeSource) : [];
  }

  signals(label: string): readonly string[] {
    return this.#port(label).signals;
  }

  /** Agree a level with a port's sink: what it wants if it is there, else the highest that is below. */
  #agree(label: string): void {
    const sink = this.#sink(label);
    if (!sink.plugged || !this.#supply.on || this.#under) return;
    const offers = this.offers(label);
    const { position, volts } = sink.wanted;
    const wanted = offers[position - 1];
    const range = wanted && voltsOf(wanted);
    const refused = this.#port(label).refuses.includes(position);
    if (wanted && range && !refused) {
      const at = volts ?? range.high;
      if (at >= range.low - 1e-9 && at <= range.high + 1e-9) {
        sink.agreed = { position, volts: at };
        return;
      }
    }
    const five = offers[0];
    sink.agreed = five?.kind === 'fixed' ? { position: 1, volts: five.volts } : { position: 1, volts: 5 };
  }

  /** True values at a port now. */
  port(label: string): PortState {
    this.#advance();
    return this.#flow(label);
  }

  /** What flows at a port without moving time on. */
  #flow(label: string): PortState {
    const sink = this.#sink(label);
    const { agreed } = sink;
    const fading = this.#supply.on || !sink.plugged ? undefined : this.#fading.get(label);
    if (fading) {
      const since = Math.max(0, this.#at - fading.holdsUntil);
      const volts = fading.volts * Math.exp(-since / this.#charger.supply.bleedSeconds);
      return { volts, amps: 0, endVolts: volts };
    }
    if (!this.#supply.on || this.#tripped || !sink.plugged || !agreed) return NOTHING;
    if (this.#at < sink.goneUntil || this.#at < sink.offUntil) return NOTHING;
    const object = this.offers(label)[agreed.position - 1];
    const limit = object ? Math.max(0.5, usableAmps(object, agreed.volts)) : 0.5;
    const asked = sink.on ? sink.amps : 0;
    const { hertz, volts: supplied } = this.#supply;
    const droop = hertz === 0 ? this.#charger.supply.droopBelow12 * Math.max(0, 12 - supplied) : 0;
    const nominal = agreed.volts * (1 + this.#charger.levelOffset) * (1 - droop);
    let amps = asked * (this.#throttled && asked > 0 ? this.#charger.heat.throttleTo : 1);
    let sag = 1;
    if (object?.kind === 'pps' && amps > limit) {
      // A programmable supply holds the current and lets the voltage go.
      sag = Math.max(0.3, limit / amps);
      amps = limit;
    } else if (amps > limit * this.#charger.overload.at) {
      amps = limit * 0.6;
      sag = 0.7;
    }
    const volts = Math.max(0, nominal * sag - this.#charger.sourceOhms * amps);
    const ohms = cableOhms(this.#cable.copperOhms, this.#cable.contactOhms, this.#room - 273.15);
    return { volts, amps, endVolts: Math.max(0, volts - amps * ohms) };
  }

  /** Input now: W, power factor, A rms, crest. */
  input(): { readonly watts: number; readonly powerFactor: number; readonly amps: number; readonly crest: number } {
    this.#advance();
    return this.#input();
  }

  #input() {
    const { on, volts, hertz } = this.#supply;
    if (!on || volts <= 0) return { watts: 0, powerFactor: 0, amps: 0, crest: 0 };
    const watts = this.#tripped || this.#under ? this.#charger.idle.floor : this.#drawn();
    if (hertz === 0) return { watts, powerFactor: 1, amps: watts / volts, crest: 1 };
    const factor = powerFactor(watts, this.#charger.nameplate, this.#corrected);
    return { watts, powerFactor: factor, amps: watts / volts / factor, crest: currentCrest(factor) };
  }

  #drawn(): number {
    const outputs = this.#charger.ports.map(({ label }) => {
      const { volts, amps } = this.#flow(label);
      return { volts, watts: volts * amps };
    });
    const total = outputs.reduce((sum, { watts }) => sum + watts, 0);
    if (total <= 0) return idleWatts(this.#charger.idle, this.#at);
    return (
      total +
      lossWatts(this.#charger.loss, outputs, this.#charger.nameplate, this.#supply.volts, this.#supply.hertz === 0)
    );
  }

  /** Energy taken in since the bench was switched on, J. */
  energy(): number {
    this.#advance();
    return this.#energy;
  }

  /** Faces of the shell, K. */
  faces(): { readonly front: number; readonly back: number; readonly side: number } {
    this.#advance();
    const rise = this.#heat.shell - this.#room;
    const { front, back, side } = this.#charger.heat.faces;
    return { front: this.#room + rise * front, back: this.#room + rise * back, side: this.#room + rise * side };
  }

  /** Mains voltage and current from now on, as they stand: V and A. */
  mainsWave(samples: number, interval: number): { readonly volts: Float64Array; readonly amps: Float64Array } {
    this.#advance();
    const { volts, hertz, on } = this.#supply;
    const { amps, powerFactor: factor } = this.#input();
    const width = hertz > 0 && factor > 0 ? pulseWidth(factor) : 1;
    const angle = (index: number) => 2 * Math.PI * hertz * index * interval + 0.4;
    const wave = (value: (index: number) => number) =>
      Float64Array.from({ length: samples }, (_, index) => value(index));
    if (!on) return { volts: new Float64Array(samples), amps: new Float64Array(samples) };
    if (hertz === 0) return { volts: wave(() => volts), amps: wave(() => amps) };
    return {
      volts: wave((index) => volts * Math.SQRT2 * Math.sin(angle(index))),
      amps: wave((index) => amps * currentShape(width, angle(index))),
    };
  }

  /** Current as the supply was last switched on, a tenth of the record before it, A. */
  inrush(samples: number, interval: number): Float64Array {
    this.#advance();
    const { volts, hertz } = this.#supply;
    const { angle, count } = this.#switchedOn;
    const at = hertz === 0 ? volts : volts * Math.SQRT2 * Math.sin(angle);
    const begin = (samples / 10) * interval;
    return Float64Array.from({ length: samples }, (_, index) =>
      count === 0 ? 0 : inrushAmps(this.#charger.supply, at, index * interval - begin),
    );
  }

  /** A capture of one port's ripple, V about the mean. */
  ripple(label: string, samples: number, interval: number): Float64Array {
    this.#advance();
    const { volts, amps } = this.#flow(label);
    const share = Math.min(1, (volts * amps) / this.#charger.nameplate);
    const live = volts > 0;
    return Float64Array.from({ length: samples }, (_, index) =>
      live ? rippleVolts(this.#charger.ripple, share, this.#supply.hertz, this.#at + index * interval) : 0,
    );
  }

  /** Carry everything over to the clock's time, in stretches short enough to catch what happens on the way. */
  #advance(): void {
    const until = this.#clock.now();
    while (this.#at < until - 1e-9) {
      const step = Math.min(STRETCH, until - this.#at, this.#nextEvent() - this.#at);
      this.#step(Math.max(step, 1e-6));
    }
  }

  /** The next moment at which a gap, a cut-off, a peak or an idle burst begins or ends, s. */
  #nextEvent(): number {
    const { peak, idle } = this.#charger;
    const moments = [...this.#sinks.values()].flatMap(({ goneUntil, offUntil, peakSince }) => [
      goneUntil,
      offUntil,
      ...(peak && peakSince !== null ? [peakSince + peak.seconds] : []),
    ]);
    const phase = this.#at % idle.period;
    moments.push(this.#at + (phase < idle.length ? idle.length - phase : idle.period - phase));
    return Math.min(Number.POSITIVE_INFINITY, ...moments.filter((moment) => moment > this.#at + 1e-9));
  }

  #step(seconds: number): void {
    const { watts } = this.#input();
    const output = this.#charger.ports.reduce((sum, { label }) => {
      const { volts, amps } = this.#flow(label);
      return sum + volts * amps;
    }, 0);
    this.#energy += watts * seconds;
    this.#heat = heatAfter(this.#heat, this.#charger.heat, Math.max(0, watts - output), this.#room, seconds);
    this.#at += seconds;
    this.#protect(output);
    this.#limitPeak(output);
    this.#overload();
  }

  #protect(output: number): void {
    const { throttleAt, tripAt } = this.#charger.heat;
    if (this.#heat.inside >= throttleAt) this.#throttled = true;
    else if (this.#heat.inside < throttleAt - 8) this.#throttled = false;
    if (this.#heat.inside >= tripAt) this.#tripped = true;
    const { correctionFrom } = this.#charger;
    if (output >= correctionFrom) this.#corrected = true;
    else if (output < 0.9 * correctionFrom) this.#corrected = false;
  }

  /** A power that is held for a time only: then the port goes back to 5 V. */
  #limitPeak(output: number): void {
    const { peak } = this.#charger;
    if (!peak) return;
    for (const [label, sink] of this.#sinks) {
      const { volts, amps } = this.#flow(label);
      if (output <= peak.above || volts * amps <= 0) {
        sink.peakSince = null;
        continue;
      }
      sink.peakSince ??= this.#at;
      if (this.#at - sink.peakSince < peak.seconds - 1e-9) continue;
      sink.wanted = { position: 1, volts: null };
      sink.goneUntil = this.#at + this.#charger.gap;
      sink.amps = Math.min(sink.amps, peak.downTo / 5);
      sink.peakSince = null;
      this.#agree(label);
    }
  }

  #overload(): void {
    const { at, how, recovery } = this.#charger.overload;
    if (how !== 'cuts off') return;
    for (const [label, sink] of this.#sinks) {
      if (!sink.agreed || !sink.on || this.#at < sink.offUntil) continue;
      const object = this.offers(label)[sink.agreed.position - 1];
      if (!object || object.kind === 'pps') continue;
      if (sink.amps > usableAmps(object, sink.agreed.volts) * at)
        sink.offUntil = recovery === null ? Number.POSITIVE_INFINITY : this.#at + recovery;
    }
  }
}
