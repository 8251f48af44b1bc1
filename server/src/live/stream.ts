// Live numbers of the bench: while someone looks, connected instruments are asked ten times a second.
import { MeterWatch, ScpiError } from '@lastmark/bench/scpi';
import type { LiveEvent, StoredInstrument } from '@lastmark/contract';
import { commandFor, type InstrumentProfile, LIVE_ACTION, scpiNumber } from '@lastmark/core/instrument';
import { listInstruments } from '../bench/store.ts';
import type { Database } from '../db/database.ts';
import type { Links } from '../links/links.ts';
import { listProfiles, profileOf } from '../links/profiles.ts';

const EVERY_MILLISECONDS = 100;
/** The list of instruments is looked at anew this often, so that a new address joins by itself. */
const REFRESH_MILLISECONDS = 2000;
/** Events kept for a browser that comes back: five minutes of eight instruments. */
const KEPT_EVENTS = 24_000;

/** Less than this below zero is a meter's noise, A and W. */
const BACKWARDS_AMPS = 0.05;
const NOISE_WATTS = 0.05;

interface Source {
  readonly instrument: StoredInstrument;
  readonly profile: InstrumentProfile;
  readonly action: string;
  readonly watch: MeterWatch;
  busy: boolean;
}

export type Listener = (event: LiveEvent) => void;

/** Asks instruments while someone listens, and remembers enough for a listener that was away for a moment. */
export class LiveStream {
  readonly #db: Database;
  readonly #links: Links;
  readonly #listeners = new Map<Listener, () => void>();
  #kept: LiveEvent[] = [];
  #next = 1;
  #sources: Source[] = [];
  #timers: NodeJS.Timeout[] = [];
  /** Current all loads draw together, A: input power should follow it. */
  #loadAmps = 0;

  constructor(db: Database, links: Links) {
    this.#db = db;
    this.#links = links;
  }

  /**
   * Listen from now on, or from the event after `since` where it is still kept.
   * @param onEnd told when the stream is closed by the server
   * @returns how to stop
   */
  listen(listener: Listener, since: number | null, onEnd: () => void): () => void {
    if (since !== null) for (const event of this.#kept) if (event.id > since) listener(event);
    this.#listeners.set(listener, onEnd);
    if (this.#timers.length === 0) this.#start();
    return () => {
      this.#listeners.delete(listener);
      if (this.#listeners.size === 0) this.#stop();
    };
  }

  /** End every listener's stream. */
  close(): void {
    for (const onEnd of this.#listeners.values()) onEnd();
    this.#listeners.clear();
    this.#stop();
  }

  #start(): void {
    void this.#refresh();
    this.#timers = [
      setInterval(() => void this.#refresh(), REFRESH_MILLISECONDS),
      setInterval(() => this.#askAll(), EVERY_MILLISECONDS),
    ];
  }

  #stop(): void {
    for (const timer of this.#timers) clearInterval(timer);
    this.#timers = [];
  }

  async #refresh(): Promise<void> {
    try {
      const profiles = await listProfiles(this.#db);
      const known = this.#sources;
      this.#sources = (await listInstruments(this.#db)).flatMap((instrument): Source[] => {
        const action = LIVE_ACTION[instrument.class];
        const profile = profileOf(profiles, instrument);
        if (!action || !profile || instrument.address === null || !(action in profile.commands)) return [];
        const before = known.find(({ instrument: one }) => one.id === instrument.id);
        // The same source goes on: what is being asked of it, and what its readings looked like.
        const same = before?.instrument.version === instrument.version && before.profile.title === profile.title;
        const range = instrument.ratings?.[instrument.class === 'DC load' ? 'volts' : 'watts'] ?? 1e6;
        return [
          same
            ? before
            : { instrument, profile, action, watch: new MeterWatch({ range, noise: NOISE_WATTS }), busy: false },
        ];
      });
    } catch {
      // The database is away for a moment; the sources stay as they are, and the next look may find it.
    }
  }

  #askAll(): void {
    for (const source of this.#sources) if (!source.busy) void this.#ask(source);
  }

  async #ask(source: Source): Promise<void> {
    const { instrument, profile, action } = source;
    const client = this.#links.of(instrument);
    if (client.state === 'connecting') return;
    if (client.state !== 'up') {
      this.#tell(source, [], `${instrument.name} does not answer.`);
      source.busy = true;
      setTimeout(() => {
        source.busy = false;
      }, REFRESH_MILLISECONDS).unref();
      return;
    }
    source.busy = true;
    const asked = new Date().toISOString();
    try {
      const values = (await client.query(commandFor(profile, action), true)).split(',').map(scpiNumber);
      const suspicion = this.#look(source, values);
      this.#tell(source, values, suspicion?.sentence ?? null, asked);
    } catch (error) {
      this.#tell(source, [], error instanceof ScpiError ? error.message : 'It could not be read.');
    } finally {
      source.busy = false;
    }
  }

  /** Whether input power follows the load, and whether what came is a number at all. */
  #look({ instrument, watch }: Source, values: readonly number[]) {
    if (instrument.class === 'DC load') {
      const amps = values.slice(1).filter((_, index) => index % 2 === 1);
      this.#loadAmps = amps.reduce((sum, one) => sum + (Number.isFinite(one) ? one : 0), 0);
      const backwards = amps.find((one) => one < -BACKWARDS_AMPS);
      return watch.look({
        value: backwards ?? values[1] ?? Number.NaN,
        setting: backwards === undefined ? 0 : BACKWARDS_AMPS,
      });
    }
    if (instrument.class !== 'power analyser') return null;
    // Meter noise of the load is no change of it.
    return watch.look({ value: values[1] ?? Number.NaN, setting: Math.round(this.#loadAmps * 20) / 20 });
  }

  /** @param asked when the question went out: the numbers are not older than that */
  #tell(
    { instrument }: Source,
    values: readonly number[],
    problem: string | null,
    asked = new Date().toISOString(),
  ): void {
    const event: LiveEvent = {
      id: this.#next,
      at: asked,
      instrumentId: instrument.id,
      name: instrument.name,
      class: instrument.class,
      values: values.map((value) => (Number.isFinite(value) ? value : null)),
      problem,
    };
    this.#next += 1;
    this.#kept.push(event);
    if (this.#kept.length > KEPT_EVENTS) this.#kept = this.#kept.slice(-Math.floor(KEPT_EVENTS * 0.9));
    for (const listener of this.#listeners.keys()) listener(event);
  }
}
