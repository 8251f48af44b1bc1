// Connections to instruments: one for each, opened when first needed, gone with the server.
import { ScpiClient } from '@lastmark/bench/scpi';
import type { StoredInstrument } from '@lastmark/contract';
import { refused } from '../http/problem.ts';

interface Link {
  readonly address: string;
  readonly client: ScpiClient;
}

const CONNECT_MILLISECONDS = 2500;

/** host:port taken apart. IPv6 hosts stand in brackets. */
function partsOf(address: string): { host: string; port: number } {
  const at = address.lastIndexOf(':');
  return { host: address.slice(0, at).replace(/^\[|\]$/g, ''), port: Number(address.slice(at + 1)) };
}

/**
 * The open connections of this server. It is no state another copy of the server would miss: an address in the database
 * is all there is to know, and a connection is only the way there.
 */
export class Links {
  readonly #links = new Map<string, Link>();
  #offs = 0;

  /** How often every load was switched off: what wants to switch one on compares. */
  get offs(): number {
    return this.#offs;
  }

  /** Loads are being switched off by hand. */
  countOff(): void {
    this.#offs += 1;
  }

  /** The connection of an instrument. A changed address is connected anew. @throws 422 for one without an address */
  of({ id, name, address }: Pick<StoredInstrument, 'id' | 'name' | 'address'>): ScpiClient {
    if (address === null) throw refused('address', `"${name}" has no address. Enter it at Bench as host:port.`);
    const known = this.#links.get(id);
    if (known?.address === address) return known.client;
    known?.client.close();
    const client = new ScpiClient(partsOf(address));
    client.open();
    this.#links.set(id, { address, client });
    return client;
  }

  /** The same, once it is up. @throws 422 when it does not answer */
  async ready(instrument: Pick<StoredInstrument, 'id' | 'name' | 'address'>): Promise<ScpiClient> {
    const client = this.of(instrument);
    const isUp = () => client.state === 'up';
    if (isUp()) return client;
    await new Promise<void>((resolve) => {
      const timer = setTimeout(done, CONNECT_MILLISECONDS);
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

  close(): void {
    for (const { client } of this.#links.values()) client.close();
    this.#links.clear();
  }
}
