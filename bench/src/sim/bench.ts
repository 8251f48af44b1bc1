// The charger on the simulated bench, live: who is plugged in, what was agreed, what flows, how hot it is.
import { decodeRequest, encodeSource, type SourceInfo, type SourceObject, usableAmps } from '@lastmark/core/pd';
import { offersWith, portOf, shareOf, statedBy } from './allocation.ts';
import { demandOf } from './battery.ts';
import type { Clock } from './clock.ts';
import { SimulatedDevices } from './devices.ts';
import { LaidCable } from './laid-cable.ts';
import { currentCrest, type HeatState, heatAfter, idleWatts, lossWatts, powerFactor, rippleVolts } from './physics.ts';
import { NOTHING, type PortState } from './port-state.ts';
import { agreement, freshSink, nextMoment, type Sink } from './sink.ts';
import { type Supply, SupplySide } from './supply-side.ts';
import type { CableTruth, ChargerTruth, PortTruth } from './truth.ts';

/** Longest stretch the state is carried over in one go, s of bench time. */
const STRETCH = 5;

export class SimulatedBench {
  readonly #clock: Clock;
  #charger: ChargerTruth;
  #cable: LaidCable;
  #sinks = new Map<string, Sink>();
  readonly #mains = new SupplySide();
  #room = 298.15;
  #heat: HeatState = { inside: 298.15, shell: 298.15 };
  #throttled = false;
  #tripped = false;
  #dead = false;
  #corrected = false;
  #at: number;
  /** Energy taken in since the bench was switched on, J. */
  #energy = 0;
  /** Real devices behind the ports. */
  readonly devices = new SimulatedDevices({
    sinks: () => this.#sinks,
    plug: (label, plugged) => this.plug(label, plugged),
    offers: (label) => this.offers(label),
    request: (label, position) => this.request(label, position, null),
    port: (label) => this.port(label),
  });

  constructor(charger: ChargerTruth, cable: CableTruth, clock: Clock) {
    this.#clock = clock;
    this.#charger = charger;
    this.#cable = new LaidCable(cable);
    this.#at = clock.now();
    this.#plugIn(charger);
  }

  #plugIn(charger: ChargerTruth): void {
    this.#charger = charger;
    this.#sinks = new Map(charger.ports.map(({ label }) => [label, freshSink()]));
    this.#heat = { inside: this.#room, shell: this.#room };
    this.#throttled = false;
    this.#tripped = false;
    this.#corrected = false;
  }

  get charger(): ChargerTruth {
    return this.#charger;
  }

  get cable(): CableTruth {
    return this.#cable.truth;
  }

  get supply(): Supply {
    return this.#mains.now;
  }

  /** Put another charger on the bench, cold and with everything off. */
  load(charger: ChargerTruth): void {
    this.#advance();
    this.#plugIn(charger);
  }

  /** Put another cable between ports and loads. */
  lay(cable: CableTruth): void {
    this.#advance();
    this.#cable = new LaidCable(cable);
    for (const label of this.#sinks.keys()) this.#agree(label);
  }

  /** The cable between ports and loads, to be bent or plugged anew. */
  get laid(): LaidCable {
    return this.#cable;
  }

  setSupply(part: Partial<Supply>): void {
    this.#advance();
    const { supply: truth, ports } = this.#charger;
    const outputs = new Map(ports.map(({ label }) => [label, this.#flow(label).volts]));
    this.#mains.set(part, { at: this.#at, truth, outputs, drawn: this.#drawn() });
    if (!this.supply.on) {
      // Without mains everything is forgotten: trips, agreements, cut-offs.
      this.#tripped = this.#dead;
      for (const sink of this.#sinks.values()) Object.assign(sink, { agreed: null, offUntil: 0, peakSince: null });
    } else if (this.#mains.under) for (const sink of this.#sinks.values()) sink.agreed = null;
    else for (const label of this.#sinks.keys()) this.#agree(label);
  }

  /** Temperature of the room or chamber, K. */
  setRoom(kelvin: number): void {
    this.#advance();
    this.#room = kelvin;
  }

  get room(): number {
    return this.#room;
  }

  /** Nothing comes out whatever is done, until it is told otherwise. */
  setDead(dead: boolean): void {
    this.#advance();
    this.#dead = dead;
    this.#tripped ||= dead;
  }

  /** Cut the charger out, as a fault on demand; with a port only that one, until it is unplugged. */
  cutOut(label?: string): void {
    this.#advance();
    if (label === undefined) this.#tripped = true;
    else this.#sink(label).offUntil = Number.POSITIVE_INFINITY;
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
    Object.assign(sink, plugged ? { plugged } : freshSink());
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

  #port = (label: string): PortTruth => portOf(this.#charger, label);

  /** Power a port may give now, W. */
  #share = (label: string): number => shareOf(this.#charger, label, this.occupied);

  /** What a port offers now. */
  offers = (label: string): readonly SourceObject[] =>
    offersWith(this.#port(label), this.#share(label), this.#cable.truth);

  /** The offers as words, as an analyser receives them. */
  words(label: string): readonly number[] {
    return this.supply.on && !this.#tripped ? this.offers(label).map(encodeSource) : [];
  }

  /** What a port states of its power; null where it speaks no PD, or nothing now. */
  info(label: string): SourceInfo | null {
    const port = this.#port(label);
    const objects = this.supply.on && !this.#tripped ? this.offers(label) : [];
    return port.connector === 'A' || objects.length === 0
      ? null
      : statedBy(this.#charger, port, this.#share(label), objects);
  }

  signals(label: string): readonly string[] {
    return this.#port(label).signals;
  }

  /** Agree a level with a port's sink: what it wants if it is there, else the highest that is below. */
  #agree(label: string): void {
    const sink = this.#sink(label);
    if (!sink.plugged || !this.supply.on || this.#mains.under) return;
    sink.agreed = agreement(this.offers(label), sink.wanted, this.#port(label).refuses);
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
    const left = sink.plugged ? this.#mains.fading(label, this.#at, this.#charger.supply) : null;
    if (left !== null) return { volts: left, amps: 0, endVolts: left };
    if (!this.supply.on || this.#tripped || !sink.plugged || !agreed) return NOTHING;
    if (this.#at < sink.goneUntil || this.#at < sink.offUntil) return NOTHING;
    const object = this.offers(label)[agreed.position - 1];
    const limit = object ? Math.max(0.5, usableAmps(object, agreed.volts)) : 0.5;
    const asked = sink.battery
      ? Math.min(limit, demandOf(sink.battery, agreed.volts) / agreed.volts)
      : sink.on
        ? sink.amps
        : 0;
    const { hertz, volts: supplied } = this.supply;
    const droop = hertz === 0 ? this.#charger.supply.droopBelow12 * Math.max(0, 12 - supplied) : 0;
    const nominal = agreed.volts * (1 + this.#charger.levelOffset) * (1 - droop);
    let amps = asked * (this.#throttled && asked > 0 ? this.#charger.heat.throttleTo : 1);
    let sag = 1;
    if (object?.kind === 'pps' && amps > limit) {
      // A programmable supply holds the current and lets the voltage go.
      sag = Math.max(0.3, limit / amps);
      amps = limit;
    } else if (amps > limit * (this.#port(label).weak ?? Number.POSITIVE_INFINITY)) {
      const most = limit * (this.#port(label).weak ?? 1);
      sag = Math.max(0.3, most / amps);
      amps = most;
    } else if (amps > limit * this.#charger.overload.at) {
      amps = limit * 0.6;
      sag = 0.7;
    }
    const volts = Math.max(0, nominal * sag - this.#charger.sourceOhms * amps);
    const ohms = this.#cable.ohms(amps, this.#room - 273.15, this.#at);
    return { volts, amps, endVolts: Math.max(0, volts - amps * ohms) };
  }

  /** Input now: W, power factor, A rms, crest. */
  input(): { readonly watts: number; readonly powerFactor: number; readonly amps: number; readonly crest: number } {
    this.#advance();
    return this.#input();
  }

  #input() {
    const { on, volts, hertz } = this.supply;
    if (!on || volts <= 0) return { watts: 0, powerFactor: 0, amps: 0, crest: 0 };
    const watts = this.#tripped || this.#mains.under ? this.#charger.idle.floor : this.#drawn();
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
      lossWatts(this.#charger.loss, outputs, this.#charger.nameplate, this.supply.volts, this.supply.hertz === 0)
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
  mainsWave(samples: number, interval: number): ReturnType<SupplySide['wave']> {
    const { amps, powerFactor: factor } = this.input();
    return this.#mains.wave(samples, interval, amps, factor);
  }

  /** Current as the supply was last switched on, a tenth of the record before it, A. */
  inrush(samples: number, interval: number): Float64Array {
    this.#advance();
    return this.#mains.inrush(samples, interval, this.#charger.supply);
  }

  /** A capture of one port's ripple, V about the mean. */
  ripple(label: string, samples: number, interval: number): Float64Array {
    this.#advance();
    const { volts, amps } = this.#flow(label);
    const share = Math.min(1, (volts * amps) / this.#charger.nameplate);
    const live = volts > 0;
    return Float64Array.from({ length: samples }, (_, index) =>
      live ? rippleVolts(this.#charger.ripple, share, this.supply.hertz, this.#at + index * interval) : 0,
    );
  }

  /** Carry everything over to the clock's time, in stretches short enough to catch what happens on the way. */
  #advance(): void {
    const until = this.#clock.now();
    while (this.#at < until - 1e-9) {
      const step = Math.min(
        STRETCH,
        until - this.#at,
        nextMoment([...this.#sinks.values()], this.#charger, this.#at) - this.#at,
      );
      this.#step(Math.max(step, 1e-6));
    }
  }

  #step(seconds: number): void {
    const { watts } = this.#input();
    const output = this.#charger.ports.reduce((sum, { label }) => {
      const { volts, amps } = this.#flow(label);
      return sum + volts * amps;
    }, 0);
    this.devices.charge((label) => this.#flow(label), seconds);
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
