// Connections to instruments: one for each, opened when first needed, gone with the server.
import { ScpiClient } from '@lastmark/bench/scpi';
import type { Way } from '@lastmark/bench/ways';
import type { StoredInstrument } from '@lastmark/contract';
import { USUAL_WIRE, type Wire } from '@lastmark/core/instrument';
import { refused } from '../http/problem.ts';
import { pause } from '../wait/wait.ts';
import { nobodyKnows, type OffWord, switchOff } from './off.ts';
import { Places } from './places.ts';
import type { KnownLoad } from './roster.ts';

interface Link {
  readonly address: string;
  readonly wire: Wire | undefined;
  readonly client: ScpiClient;
}

type Addressed = Pick<StoredInstrument, 'id' | 'name' | 'address' | 'bench'>;

/** Told of a command that went to an instrument. Never waits. */
export type CommandTold = (instrument: Pick<Addressed, 'id' | 'name'>, line: string) => void;

const ENDS: Readonly<Record<Wire['end'], string>> = { LF: '\n', 'CR LF': '\r\n', CR: '\r' };
const CONNECT_MILLISECONDS = 2500;
/** How long one try of an off that was not seen may take, and the pause before the next, ms. */
const INSIST_MILLISECONDS = 1500;
const INSIST_PAUSE_MILLISECONDS = 400;

/** What to say of an instrument that is not this server's to speak to. */
export const onAnother = (name: string, bench: string): string =>
  bench === ''
    ? `"${name}" stands on no bench. Enter which at Bench.`
    : `"${name}" stands on bench "${bench}", and only the server beside that speaks to it.`;

/** Wait until a connection is up. @throws 422 when it does not come */
async function up(instrument: Addressed, client: ScpiClient, patience: number): Promise<ScpiClient> {
  const isUp = () => client.state === 'up';
  if (isUp()) return client;
  await new Promise<void>((resolve) => {
    const timer = setTimeout(done, patience);
    const stop = client.onState((state) => {
      if (state === 'up') done();
    });
    function done() {
      clearTimeout(timer);
      stop();
      resolve();
    }
  });
  if (!isUp())
    throw refused(
      'address',
      `"${instrument.name}" does not answer at ${instrument.address}. Is it on, and is the address right?`,
    );
  return client;
}

/**
 * The open connections of this server. It is no state another copy of the server would miss: an address in the database
 * is all there is to know, and a connection is only the way there.
 */
export class Links {
  readonly places: Places;
  readonly #wireOf: (instrumentId: string) => Wire | undefined;
  readonly #bench: string;
  readonly #told: CommandTold;
  readonly #links = new Map<string, Link>();
  /** Loads that were switched off and have not said so, with the sentence about each. */
  readonly #doubts = new Map<string, string>();
  #offs = 0;
  #closed = false;

  /**
   * @param wireOf how lines go to an instrument; the usual way where its profile says nothing else
   * @param told is told of every line that asks nothing
   * @param bench the one this server stands beside: instruments of others are never connected
   */
  constructor(
    places = new Places(),
    wireOf: (instrumentId: string) => Wire | undefined = () => undefined,
    bench = '',
    told: CommandTold = () => undefined,
  ) {
    this.places = places;
    this.#wireOf = wireOf;
    this.#bench = bench;
    this.#told = told;
  }

  /** How often every load was switched off here: what wants to switch one on compares. */
  get offs(): number {
    return this.#offs;
  }

  /** Loads are being switched off by hand. */
  countOff(): void {
    this.#offs += 1;
  }

  /** The connection of an instrument. A changed address is connected anew. @throws 422 for one without an address */
  of({ id, name, address, bench }: Addressed): ScpiClient {
    if (address === null) throw refused('address', `"${name}" has no address. Enter it at Bench.`);
    if (bench !== this.#bench) throw refused('bench', onAnother(name, bench));
    const known = this.#links.get(id);
    const wire = this.#wireOf(id);
    if (known?.address === address && JSON.stringify(known.wire) === JSON.stringify(wire)) return known.client;
    const way = this.places.wayTo(address);
    known?.client.close();
    const client = this.#client({ id, name }, way, wire);
    if (!this.#closed) client.open();
    this.#links.set(id, { address, wire, client });
    return client;
  }

  #client(instrument: Pick<Addressed, 'id' | 'name'>, way: Way, wire: Wire = USUAL_WIRE): ScpiClient {
    return new ScpiClient({
      way,
      end: ENDS[wire.end],
      errors: wire.errors,
      timeout: wire.patience * 1000,
      pauseAfter: wire.pause * 1000,
      hello: wire.hello,
      onCommand: (line) => this.#told(instrument, line),
    });
  }

  /** The same, once it is up. @throws 422 when it does not answer */
  async ready(instrument: Addressed, patience = CONNECT_MILLISECONDS): Promise<ScpiClient> {
    return up(instrument, this.of(instrument), patience);
  }

  /**
   * Switch a load off and wait until it says so. One that does not is told again and again afterwards, until it does.
   * @param patience how long to wait here, ms
   */
  async off({ instrument, profile }: KnownLoad, patience: number): Promise<OffWord> {
    const begun = performance.now();
    let word: OffWord;
    try {
      const client = this.of(instrument);
      // Straight away where the way is open: the command is on the wire before this function first waits.
      if (client.state !== 'up') await this.ready(instrument, patience);
      word = await switchOff(client, profile, Math.max(200, patience - (performance.now() - begun)));
    } catch {
      // It is not there, or may not be tried: its address says which.
      word = { sent: false, sure: false, blind: false, detail: `it does not answer at ${instrument.address}` };
    }
    if (word.sure) this.#doubts.delete(instrument.id);
    else this.#insist({ instrument, profile }, word.detail);
    return word;
  }

  /** What nobody knows about a load, in a sentence; null when it is not in doubt. */
  doubt(instrumentId: string): string | null {
    return this.#doubts.get(instrumentId) ?? null;
  }

  /** A load that did not say that it is off is told again until it does, even when it was away meanwhile. */
  #insist(load: KnownLoad, detail: string): void {
    const { id, name } = load.instrument;
    const going = this.#doubts.has(id);
    this.#doubts.set(id, nobodyKnows(name, detail));
    if (!going) void this.#repeat(load);
  }

  async #repeat({ instrument, profile }: KnownLoad): Promise<void> {
    while (!this.#closed && this.#doubts.has(instrument.id)) {
      await pause(INSIST_PAUSE_MILLISECONDS);
      const client = this.#links.get(instrument.id)?.client;
      if (!client) break;
      const word = await switchOff(client, profile, INSIST_MILLISECONDS);
      // Nothing more can be learnt from a load that cannot be asked.
      if (word.sure || word.blind) break;
    }
    this.#doubts.delete(instrument.id);
  }

  close(): void {
    this.#closed = true;
    for (const { client } of this.#links.values()) client.close();
    this.#links.clear();
  }
}
