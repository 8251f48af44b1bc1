// Live numbers of the bench: while someone looks, connected instruments are asked ten times a second.
import { MeterWatch, ScpiError } from '@lastmark/bench/scpi';
import type { LiveEvent, StoredInstrument } from '@lastmark/contract';
import {
  commandFor,
  type InstrumentProfile,
  LIVE_ACTION,
  numbersFrom,
  ProfileError,
  pairsOf,
  powersOf,
  readAnswer,
} from '@lastmark/core/instrument';
import { ProblemError } from '../http/problem.ts';
import type { Links } from '../links/links.ts';
import type { Roster } from '../links/roster.ts';
import { type Batch, Broadcast, type Listener } from './broadcast.ts';

/** How often instruments are asked, ms. */
export const LIVE_EVERY = 100;
/** The list of instruments is looked at anew this often, so that a new address joins by itself. */
const REFRESH_MILLISECONDS = 500;
/** An instrument that does not answer is said to be away this often. */
const AWAY_MILLISECONDS = 2000;
/** Most numbers taken out of one reply. */
const MOST_NUMBERS = 256;

/** Less than this below zero is a meter's noise, A and W. */
const BACKWARDS_AMPS = 0.05;
const NOISE_WATTS = 0.05;
/** A load that draws less says nothing about what a meter before the charger should show, W. */
const LITTLE_WATTS = 0.5;

interface Source {
  readonly instrument: StoredInstrument;
  readonly profile: InstrumentProfile;
  readonly action: string;
  readonly watch: MeterWatch;
  busy: boolean;
}

/** Where live numbers of other benches come from. */
export interface FromElsewhere {
  readonly start: (tell: (event: LiveEvent) => void) => void;
  /** Have these told as often as they are asked, the others seldom; ids. */
  readonly closely: (instruments: readonly string[]) => void;
  readonly stop: () => void;
}

/** Asks instruments while someone listens, and remembers enough for a listener that was away for a moment. */
export class LiveStream {
  readonly #roster: Roster;
  readonly #links: Links;
  readonly #every: number;
  readonly #elsewhere: FromElsewhere | null;
  readonly #broadcast = new Broadcast();
  /** Instruments each page looks at closely; ids. */
  readonly #closely = new Map<unknown, readonly string[]>();
  /** Told when the stream is closed by the server. */
  readonly #ends = new Set<() => void>();
  /** Loads whose doubt was told, so that its end is told too. */
  readonly #doubted = new Set<string>();
  #sources: Source[] = [];
  #timers: NodeJS.Timeout[] = [];
  /** What each load draws, W, where it says: input power should follow it. */
  readonly #drawn = new Map<string, number>();

  constructor(roster: Roster, links: Links, every = LIVE_EVERY, elsewhere: FromElsewhere | null = null) {
    this.#every = every;
    this.#elsewhere = elsewhere;
    this.#roster = roster;
    this.#links = links;
  }

  /**
   * Be told every event as it comes, from now on or from the one after `since` where it is still kept.
   * @param onEnd told when the stream is closed by the server
   * @returns how to stop
   */
  listen(listener: Listener, since: number | null, onEnd: () => void): () => void {
    return this.#begin(this.#broadcast.listen(listener, since), onEnd);
  }

  /** The same, some at a time: for pages. @param fast instruments they look at closely; ids */
  follow(
    reader: (batch: Batch) => void,
    since: number | null,
    onEnd: () => void,
    fast: readonly string[] = [],
  ): () => void {
    const stop = this.#broadcast.follow(reader, since);
    this.#closely.set(reader, fast);
    const end = this.#begin(() => {
      this.#closely.delete(reader);
      stop();
    }, onEnd);
    this.#elsewhere?.closely(this.#lookedAt());
    return end;
  }

  /** Instruments of other benches that a page looks at closely; what is none is nobody's to ask for. */
  #lookedAt(): string[] {
    const wanted = new Set([...this.#closely.values()].flat());
    return this.#roster.elsewhere.map(({ id }) => id).filter((id) => wanted.has(id));
  }

  #begin(stop: () => void, onEnd: () => void): () => void {
    this.#ends.add(onEnd);
    if (this.#timers.length === 0) this.#start();
    return () => {
      stop();
      this.#ends.delete(onEnd);
      if (this.listening === 0) this.#stop();
    };
  }

  /** How many listen now. */
  get listening(): number {
    return this.#broadcast.count;
  }

  /** End every listener's stream. */
  close(): void {
    for (const onEnd of this.#ends) onEnd();
    this.#ends.clear();
    this.#broadcast.clear();
    this.#closely.clear();
    this.#stop();
  }

  #start(): void {
    // Whoever just added an instrument sees it at once.
    void this.#roster
      .look()
      .catch(() => undefined)
      .then(() => this.#refresh());
    this.#timers = [
      setInterval(() => this.#refresh(), REFRESH_MILLISECONDS),
      setInterval(() => this.#askAll(), this.#every),
    ];
    this.#elsewhere?.start((event) => this.#broadcast.send(event, false));
  }

  #stop(): void {
    for (const timer of this.#timers) clearInterval(timer);
    this.#timers = [];
    this.#elsewhere?.stop();
  }

  #refresh(): void {
    // An instrument that was not known yet may be by now.
    if (this.#closely.size > 0) this.#elsewhere?.closely(this.#lookedAt());
    const before = this.#sources;
    this.#sources = this.#roster.all.flatMap(({ instrument, profile }): Source[] => {
      const action = LIVE_ACTION[instrument.class];
      if (!action || !profile || !(action in profile.commands)) return [];
      const known = before.find(({ instrument: one }) => one.id === instrument.id);
      // The same source goes on: what is being asked of it, and what its readings looked like.
      const same =
        known?.instrument.version === instrument.version && JSON.stringify(known.profile) === JSON.stringify(profile);
      const range = instrument.ratings?.[instrument.class === 'DC load' ? 'volts' : 'watts'] ?? 1e6;
      return [
        same
          ? known
          : { instrument, profile, action, watch: new MeterWatch({ range, noise: NOISE_WATTS }), busy: false },
      ];
    });
    for (const source of this.#sources) {
      const { id } = source.instrument;
      // It came or went beside the asking: it is told at once.
      if (this.#doubted.has(id) !== (this.#links.doubt(id) !== null)) this.#tell(source, [], null);
    }
  }

  #askAll(): void {
    for (const source of this.#sources)
      if (!source.busy)
        void this.#ask(source).catch((error: unknown) => {
          source.busy = false;
          this.#tell(source, [], error instanceof ProblemError ? error.message : 'It could not be asked.');
        });
  }

  async #ask(source: Source): Promise<void> {
    const { instrument, profile, action } = source;
    const client = this.#links.of(instrument);
    if (client.state === 'connecting') return;
    if (client.state !== 'up') {
      this.#drawn.delete(instrument.id);
      this.#tell(source, [], `${instrument.name} does not answer.`);
      source.busy = true;
      setTimeout(() => {
        source.busy = false;
      }, AWAY_MILLISECONDS).unref();
      return;
    }
    source.busy = true;
    const asked = new Date().toISOString();
    try {
      const reply = await client.query(commandFor(profile, action), { steady: true });
      if (reply.split(',', MOST_NUMBERS + 1).length > MOST_NUMBERS) {
        this.#tell(source, [], `It told more than ${MOST_NUMBERS} numbers at once.`, asked);
        return;
      }
      // Without a pattern what is no number is passed over, not the whole reply.
      const read = action in (profile.replies ?? {}) ? readAnswer(profile, action, reply) : numbersFrom(reply);
      const values = typeof read === 'number' ? [read] : (read as readonly number[]);
      const suspicion = this.#look(source, values);
      this.#tell(source, values, suspicion?.sentence ?? null, asked);
    } catch (error) {
      this.#drawn.delete(instrument.id);
      const said = error instanceof ScpiError || error instanceof ProfileError;
      this.#tell(source, [], said ? error.message : 'It could not be read.');
    } finally {
      source.busy = false;
    }
  }

  /** Whether input power follows the load, and whether what came is a number at all. */
  #look({ instrument, watch }: Source, values: readonly number[]) {
    const at = performance.now() / 1000;
    if (instrument.class === 'DC load') {
      const watts = powersOf(instrument.class, values).reduce<number>((sum, one) => sum + (one ?? 0), 0);
      this.#drawn.set(instrument.id, watts);
      const amps = pairsOf(instrument.class, values.length).map((pair) => values[pair.amps] ?? Number.NaN);
      const backwards = amps.find((one) => one < -BACKWARDS_AMPS);
      const setting = backwards === undefined ? 0 : BACKWARDS_AMPS;
      return watch.look({ value: backwards ?? values[1] ?? Number.NaN, setting, at });
    }
    if (instrument.class !== 'power analyser') return null;
    return watch.look({ value: values[1] ?? Number.NaN, setting: this.#behind(instrument.id), at });
  }

  /** What loads draw behind a meter at the mains, W; null where nobody knows. */
  #behind(meterId: string): number | null {
    const drawn = this.#roster.loadsBehind(meterId).map((id) => this.#drawn.get(id) ?? null);
    if (drawn.length === 0 || drawn.includes(null)) return null;
    const watts = drawn.reduce<number>((sum, one) => sum + (one ?? 0), 0);
    return watts < LITTLE_WATTS ? 0 : watts;
  }

  /** @param asked when the question went out: the numbers are not older than that */
  #tell(
    { instrument }: Source,
    values: readonly number[],
    problem: string | null,
    asked = new Date().toISOString(),
  ): void {
    const event = {
      at: asked,
      instrumentId: instrument.id,
      name: instrument.name,
      class: instrument.class,
      values: values.map((value) => (Number.isFinite(value) ? value : null)),
      // That nobody knows whether a load is off is louder than anything else about it.
      problem: this.#links.doubt(instrument.id) ?? problem,
    };
    if (this.#links.doubt(instrument.id) === null) this.#doubted.delete(instrument.id);
    else this.#doubted.add(instrument.id);
    this.#broadcast.send(event, true);
  }
}
