// The instruments that can be spoken to and how, as last known: at hand in memory whatever the database does.
import type { StoredInstrument, StoredRig } from '@lastmark/contract';
import type { InstrumentProfile, Wire } from '@lastmark/core/instrument';
import { listInstruments, listRigs } from '../bench/store.ts';
import type { Database } from '../db/database.ts';
import { loadsBehind } from './behind.ts';
import { listProfiles, profileOf } from './profiles.ts';

/** A new address of another server joins by itself this soon, ms. */
const EVERY_MILLISECONDS = 2000;

export interface Known {
  readonly instrument: StoredInstrument;
  /** Undefined for one without a profile, so that nobody knows how to speak to it. */
  readonly profile: InstrumentProfile | undefined;
}

/** A load that can be spoken to. */
export interface KnownLoad extends Known {
  readonly profile: InstrumentProfile;
}

export const isDriven = (known: Known): known is KnownLoad => known.profile !== undefined;

/** A profile that cannot be read costs its own instruments only. */
function profileOrNone(profiles: Parameters<typeof profileOf>[0], instrument: StoredInstrument) {
  try {
    return profileOf(profiles, instrument);
  } catch {
    return undefined;
  }
}

export class Roster {
  readonly #db: Database;
  readonly #bench: string;
  #elsewhere: readonly StoredInstrument[] = [];
  #known: readonly Known[] = [];
  #rigs: readonly StoredRig[] = [];
  #looking: Promise<void> | null = null;
  #timer: NodeJS.Timeout | null = null;

  /** @param bench the one this server stands beside: it speaks to no other */
  constructor(db: Database, bench = '') {
    this.#db = db;
    this.#bench = bench;
  }

  /** Every instrument of this bench with an address. */
  get all(): readonly Known[] {
    return this.#known;
  }

  /** Instruments with an address on other benches: others speak to them. */
  get elsewhere(): readonly StoredInstrument[] {
    return this.#elsewhere;
  }

  /** Every load of this bench with an address. */
  get loads(): readonly Known[] {
    return this.#known.filter(({ instrument }) => instrument.class === 'DC load');
  }

  /** The loads whose power a meter at the mains should follow; ids, none where nobody knows. */
  loadsBehind = (meterId: string): readonly string[] =>
    loadsBehind(
      meterId,
      this.#known.map(({ instrument }) => instrument),
      this.#rigs,
    );

  /** How lines go to an instrument; undefined for the usual way. */
  wireOf = (instrumentId: string): Wire | undefined =>
    this.#known.find(({ instrument }) => instrument.id === instrumentId)?.profile?.wire;

  /** Look now, and again and again. */
  async watch(): Promise<void> {
    this.#timer ??= setInterval(() => void this.look().catch(() => undefined), EVERY_MILLISECONDS);
    await this.look();
  }

  /** Look now; whoever asks while it looks waits for the same. The last known stays when the database does not answer. */
  look(): Promise<void> {
    this.#looking ??= this.#read().finally(() => {
      this.#looking = null;
    });
    return this.#looking;
  }

  /** Look anew, even when someone is looking just now: what has just been written is seen. */
  async refresh(): Promise<void> {
    await this.#looking?.catch(() => undefined);
    await this.look();
  }

  async #read(): Promise<void> {
    const [profiles, all, rigs] = await Promise.all([
      listProfiles(this.#db),
      listInstruments(this.#db),
      listRigs(this.#db),
    ]);
    this.#rigs = rigs;
    const addressed = all.filter(({ address }) => address !== null);
    this.#elsewhere = addressed.filter(({ bench }) => bench !== this.#bench);
    this.#known = addressed
      .filter(({ bench }) => bench === this.#bench)
      .map((instrument) => ({ instrument, profile: profileOrNone(profiles, instrument) }));
  }

  close(): void {
    if (this.#timer) clearInterval(this.#timer);
    this.#timer = null;
  }
}
