// Sets a rig by SCPI: supply, sinks and loads, by channel. It never switches a load on after someone switched them off.
import { type Gate, ScpiError } from '@lastmark/bench/scpi';
import type { StoredInstrument, StoredInstrumentProfile, StoredRig } from '@lastmark/contract';
import type { CaptureKind, Trace } from '@lastmark/core/capture';
import { commandFor, readAnswer } from '@lastmark/core/instrument';
import { requestFor } from '@lastmark/core/plan';
import { type Mains, mainsLabel, type Output } from '@lastmark/core/reading';
import { askRipple, askScope } from '../captures/scope.ts';
import type { Links } from '../links/links.ts';
import { isOff, nobodyKnows } from '../links/off.ts';
import { profileOf } from '../links/profiles.ts';
import { Analyser } from './analyser.ts';
import { NobodyKnows, NoOffers, SettingProblem, SwitchedOff, saying } from './driver-problems.ts';
import { can, type Driven, Sinks } from './sinks.ts';

/** What lets a driver command: asked at the wire, and once more before a load goes on. */
export interface Permission {
  /** Why nothing may be commanded now; null when it may. */
  readonly gate: Gate;
  /** Make sure, with the database, that a load may still go on. @throws what says why not */
  readonly mayGoOn: () => Promise<void>;
  /** Ask a person to do what no instrument can, and wait. */
  readonly person: (says: string) => Promise<void>;
}

/** How long a load has to say that it is off, ms. */
const OFF_MILLISECONDS = 2500;

export class RigDriver {
  readonly #links: Links;
  readonly #permission: Permission;
  readonly #ports: readonly string[];
  readonly #source: Driven | null;
  readonly #load: Driven | null;
  readonly #meter: Driven | null;
  readonly #inline: Driven | null;
  readonly #scope: Driven | null;
  readonly #sinks: Sinks;
  readonly analyser: Analyser;
  #mains: Mains | null = null;
  #plugged: readonly string[] = [];
  #levels = new Map<string, Output>();
  #on = new Map<string, number>();
  #lost = false;
  /** The load takes commands and cannot be asked. */
  #blind = false;
  /** Loads-off count at which loads may still go on. */
  #armed: number;

  constructor(
    links: Links,
    rig: StoredRig,
    own: readonly StoredInstrument[],
    profiles: readonly StoredInstrumentProfile[],
    ports: readonly string[],
    permission: Permission,
  ) {
    const driven = (id: string | null | undefined): Driven | null => {
      const instrument = own.find((one) => one.id === id && one.address !== null);
      const profile = instrument && profileOf(profiles, instrument);
      return instrument && profile ? { instrument, profile } : null;
    };
    this.#links = links;
    this.#permission = permission;
    this.#ports = ports;
    this.#source = driven(rig.drives?.source);
    this.#load = driven(rig.drives?.load);
    this.#meter = driven(rig.meters.mains);
    this.#scope = driven(rig.drives?.scope);
    const volts = driven(rig.meters.outputVolts);
    this.#inline = volts?.instrument.class === 'inline USB meter' ? volts : null;
    this.#armed = links.offs;
    this.analyser = new Analyser({
      analyser: driven(rig.drives?.analyser),
      channelOf: (port) => this.#channel(port),
      ask: (one, action, values) => this.#ask(one, action, values),
    });
    this.#sinks = new Sinks({
      sink: driven(rig.drives?.sink) ?? this.#load,
      channelOf: (port) => this.#channel(port),
      command: (one, action, values) => this.#do(one, action, values),
      person: permission.person,
    });
  }

  get setsMains(): boolean {
    return this.#source !== null;
  }

  /** Whether it has a load that runs by itself. */
  get loads(): boolean {
    return this.#load !== null;
  }

  get loadName(): string {
    return this.#load?.instrument.name ?? 'the load';
  }

  get countsEnergy(): boolean {
    return this.#meter !== null && 'startEnergy' in this.#meter.profile.commands;
  }

  /** Whether a load draws now. */
  get isOn(): boolean {
    return this.#on.size > 0;
  }

  /** What was asked for at every port a load draws from now. */
  get asked(): readonly Output[] {
    return [...this.#levels.values()].filter(({ port }) => this.#on.has(port));
  }

  /** Loads were switched off by hand here since {@link arm}. */
  get switchedOff(): boolean {
    return this.#links.offs !== this.#armed;
  }

  /** Loads may go on again from here: a person, or the run's own plan, asked for it. */
  arm(): void {
    this.#lost = false;
    this.#armed = this.#links.offs;
  }

  async #do({ instrument, profile }: Driven, action: string, values?: Record<string, number | string>): Promise<void> {
    const client = await this.#links.ready(instrument);
    await saying(instrument, () => client.confirm(commandFor(profile, action, values), this.#permission.gate));
  }

  async #ask(
    { instrument, profile }: Driven,
    action: string,
    values?: Record<string, number | string>,
  ): Promise<ReturnType<typeof readAnswer>> {
    const client = await this.#links.ready(instrument);
    const answer = await saying(instrument, () => client.query(commandFor(profile, action, values)));
    return readAnswer(profile, action, answer);
  }

  #loadOr(): Driven {
    if (!this.#load) throw new SettingProblem('The rig has no load that runs by itself. Choose one at Bench.');
    return this.#load;
  }

  #channel(port: string): number {
    const index = this.#ports.indexOf(port);
    if (index < 0) throw new SettingProblem(`The sample has no port ${port}.`);
    return index + 1;
  }

  /** The load goes off by itself when nobody has spoken to it for some seconds; a profile may not know how. */
  async watchdog(seconds: number): Promise<void> {
    if (this.#load && 'watchdog' in this.#load.profile.commands) await this.#do(this.#load, 'watchdog', { seconds });
  }

  /** Set the supply. Loads go off first when it changes. @throws SettingProblem for a rig that cannot */
  async mains(wanted: Mains): Promise<void> {
    if (this.#mains && mainsLabel(this.#mains) === mainsLabel(wanted)) return;
    if (!this.#source) throw new SettingProblem(`Set the supply to ${mainsLabel(wanted)} by hand.`);
    await this.off();
    await this.#do(this.#source, 'volts', { volts: wanted.volts });
    await this.#do(this.#source, 'hertz', { hertz: wanted.kind === 'ac' ? wanted.hertz : 0 });
    await this.#do(this.#source, 'on');
    this.#mains = wanted;
    this.#levels.clear();
  }

  /** Another voltage of the same supply with loads as they are: a sag, a dip, a sweep. The next step sets it anew. */
  async sourceVolts(volts: number): Promise<void> {
    if (!this.#source) throw new SettingProblem('The rig has no source that runs by itself.');
    await this.#do(this.#source, 'volts', { volts });
    this.#mains = null;
  }

  /** What the scope has on the mains side. */
  async capture(kind: CaptureKind): Promise<Trace> {
    if (!this.#scope) throw new SettingProblem('The rig has no oscilloscope. Choose one at Bench.');
    return askScope(this.#links, this.#scope.instrument, this.#scope.profile, kind);
  }

  /** What the scope has on an output. */
  async ripple(port: string): Promise<Trace> {
    if (!this.#scope) throw new SettingProblem('The rig has no oscilloscope. Choose one at Bench.');
    return askRipple(this.#links, this.#scope.instrument, this.#scope.profile, this.#channel(port));
  }

  /** A person has set the supply. */
  mainsByHand(mains: Mains): void {
    this.#mains = mains;
  }

  hasMains = (wanted: Mains): boolean => this.#mains !== null && mainsLabel(this.#mains) === mainsLabel(wanted);

  /** Loads off, then the supply: it goes off too when nobody knows about the load. @throws NobodyKnows */
  async mainsOff(): Promise<void> {
    try {
      await this.off();
    } finally {
      if (this.#source) await this.#do(this.#source, 'off');
      this.#mains = null;
      this.#levels.clear();
    }
  }

  /** Every load off; where a load does not say that it is, the supply goes off instead. @returns what nobody knows, null when all is well */
  async makeSafe(): Promise<string | null> {
    const says = await this.offSays();
    if (says === null || !this.#source) return says;
    try {
      const client = await this.#links.ready(this.#source.instrument);
      await client.confirm(commandFor(this.#source.profile, 'off'));
      this.#mains = null;
      this.#levels.clear();
      return `${says} "${this.#source.instrument.name}" was switched off.`;
    } catch {
      return says;
    }
  }

  /** Whether a person moves the plugs, or sets the levels. */
  get plugsByHand(): boolean {
    return this.#sinks.byHand;
  }
  get levelsByHand(): boolean {
    return this.#sinks.levelsByHand;
  }

  /** Plug sinks into exactly these ports. @returns whether anything changed, so that ports may renegotiate */
  async occupy(ports: readonly string[]): Promise<boolean> {
    const wrong = this.#ports.filter((port) => ports.includes(port) !== this.#plugged.includes(port));
    if (wrong.length === 0) return false;
    this.#loadOr();
    await this.off();
    await this.#sinks.move(
      wrong.filter((port) => !ports.includes(port)),
      wrong.filter((port) => ports.includes(port)),
    );
    for (const port of wrong) this.#levels.delete(port);
    this.#plugged = [...ports];
    return true;
  }

  /** Plug one more sink in, whatever runs: what it does to the others is to be seen. */
  async join(port: string): Promise<void> {
    await this.#sinks.move([], [port]);
    this.#plugged = [...this.#plugged, port];
    this.#levels.delete(port);
  }

  /** Pull one sink, without load on it, whatever else runs. */
  async leave(port: string): Promise<void> {
    if (this.#on.has(port)) await this.draw(port, 0);
    await this.#sinks.move([port], []);
    this.#on.delete(port);
    this.#levels.delete(port);
    this.#plugged = this.#plugged.filter((one) => one !== port);
  }

  /** What was agreed may have changed by itself: ask for every level anew. */
  forgetLevels(): void {
    this.#levels.clear();
  }

  /** Pull every sink, whatever was known of them. @param asking whether a person is asked where nothing else can */
  async unplugAll(asking = true): Promise<void> {
    this.#loadOr();
    if (asking || !this.#sinks.byHand) await this.#sinks.move(this.#ports, []);
    this.#plugged = [];
    this.#levels.clear();
  }

  /** Ask a port for a level; nothing is sent when it stands there already. @param known offers read earlier, for a rig without analyser. @returns whether it was asked for */
  async level(output: Output, known: readonly string[]): Promise<boolean> {
    const standing = this.#levels.get(output.port);
    if (standing && standing.volts === output.volts && standing.supply === output.supply) return false;
    const words = this.analyser.id ? await this.analyser.words(output.port) : known;
    const wanted = requestFor(words, output);
    // What nobody read out, a person at the trigger sees.
    const unseen = this.#sinks.levelsByHand && !this.analyser.id && words.length === 0;
    if (!wanted && !unseen && words.length === 0) throw new NoOffers(`${output.port} offers nothing: is it on?`);
    if (!wanted && !unseen)
      throw new SettingProblem(`${output.port} does not offer ${output.supply ?? 'fixed'} ${output.volts} V now.`);
    await this.off();
    await this.#sinks.request(output, wanted);
    this.#levels.set(output.port, output);
    await this.lookAt(output.port);
    return true;
  }

  /** Set an inline meter to a port, where it can be. */
  async lookAt(port: string): Promise<void> {
    if (can(this.#inline, 'channel')) await this.#do(this.#inline, 'channel', { channel: this.#channel(port) });
  }

  /** Draw a current from a port. @throws SwitchedOff when loads were switched off since {@link arm} */
  async draw(port: string, amps: number): Promise<void> {
    if (this.#on.get(port) === amps) return;
    const load = this.#loadOr();
    const client = await this.#links.ready(load.instrument);
    if ('channel' in load.profile.commands) await this.#do(load, 'channel', { channel: this.#channel(port) });
    else if ([...this.#on.keys()].some((other) => other !== port))
      throw new SettingProblem(`"${load.instrument.name}" has one channel: it loads one port at a time.`);
    await this.#do(load, 'amps', { amps });
    if (this.#on.has(port)) {
      this.#on.set(port, amps);
      return;
    }
    const doubt = this.#links.doubt(load.instrument.id);
    if (doubt) throw new NobodyKnows(doubt);
    await this.#permission.mayGoOn();
    if (this.switchedOff) throw new SwitchedOff();
    this.#on.set(port, amps);
    const gate = () => this.#permission.gate() ?? (this.switchedOff ? 'Loads were switched off.' : null);
    await saying(load.instrument, () => client.confirm(commandFor(load.profile, 'on'), gate));
    // Someone may have pressed Loads off between the check and the wire.
    if (this.switchedOff) {
      await this.off();
      throw new SwitchedOff();
    }
  }

  /** Every load off, ahead of whatever waits, and seen to be off. @throws NobodyKnows when the load does not say so */
  async off(): Promise<void> {
    const barred = this.#permission.gate();
    if (barred) throw new ScpiError('barred', barred);
    const says = await this.offSays();
    if (says !== null && !this.#blind) throw new NobodyKnows(says);
  }

  /** Every load off, and what to say when nobody knows that it is; null when the load said so itself. */
  async offSays(): Promise<string | null> {
    const load = this.#load;
    if (!load) return null;
    const { name } = load.instrument;
    const { sure, sent, blind, detail } = await this.#links.off(load, OFF_MILLISECONDS);
    this.#blind = blind;
    if (sure || blind) this.#on.clear();
    if (sure) return null;
    return blind && sent ? `"${name}" was told to go off; ${detail}. Look at it.` : nobodyKnows(name, detail);
  }

  /** Whether the load says that it is off; null when it says nothing. */
  async saysOff(): Promise<boolean | null> {
    const load = this.#load;
    const ask = async () => load && isOff(await this.#links.ready(load.instrument), load.profile);
    return ask().catch(() => null);
  }

  /** What nobody knows about the load; null when it is not in doubt. */
  get doubt(): string | null {
    return this.#load && this.#links.doubt(this.#load.instrument.id);
  }

  /** Whether the connection to the load was lost while it drew, since {@link arm}. */
  get lost(): boolean {
    return this.#lost;
  }

  /** Watch the connection to the load: lost while it draws, and off it goes as soon as it answers again. @returns how to stop */
  guard(): () => void {
    const load = this.#load;
    if (!load) return () => undefined;
    const client = this.#links.of(load.instrument);
    return client.onState((state) => {
      if (state !== 'up') this.#lost ||= this.isOn;
      else if (this.#lost && this.#permission.gate() === null) void this.offSays().catch(() => undefined);
    });
  }

  /** Frequency set and distortion told by the source; null for what a source set by hand cannot tell. */
  async supply(): Promise<{ readonly hertz: number | null; readonly distortion: number | null }> {
    const source = this.#source;
    if (!source) return { hertz: null, distortion: null };
    const hertz = this.#mains?.kind === 'ac' ? this.#mains.hertz : null;
    const told = 'distortion' in source.profile.commands ? await this.#ask(source, 'distortion') : null;
    return { hertz, distortion: typeof told === 'number' ? told : null };
  }

  async startEnergy(): Promise<void> {
    if (this.#meter) await this.#do(this.#meter, 'startEnergy');
  }

  /** Energy and time counted since the start. @returns J and s */
  async energy(): Promise<{ readonly joules: number; readonly seconds: number }> {
    if (!this.#meter) throw new SettingProblem('The rig has no meter at the mains.');
    await this.#do(this.#meter, 'stopEnergy');
    const wattHours = (await this.#ask(this.#meter, 'energy')) as number;
    const seconds = (await this.#ask(this.#meter, 'energyTime')) as number;
    return { joules: wattHours * 3600, seconds };
  }
}
