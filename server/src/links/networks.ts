// Which addresses instruments may have: loopback, unless whoever starts the server names other networks.
import { type LookupAddress, lookup as resolveName } from 'node:dns';
import { BlockList, isIP, type LookupFunction } from 'node:net';

export const LOOPBACK_NETWORKS = '127.0.0.0/8,::1/128';

/** What to say of an address that is outside. */
export const outside = (address: string): string =>
  `${address} is outside the networks instruments may be on. Start Lastmark with LASTMARK_INSTRUMENTS set to their network, such as 192.168.1.0/24.`;

export class Networks {
  readonly #list = new BlockList();

  /** @param text networks as `192.168.1.0/24,fd00::/8` @throws Error with what is wrong with it */
  constructor(text: string) {
    for (const part of text
      .split(',')
      .map((one) => one.trim())
      .filter(Boolean)) {
      const [address = '', bits, ...more] = part.split('/');
      const family = isIP(address);
      const length = bits === undefined ? (family === 6 ? 128 : 32) : Number(bits);
      if (
        family === 0 ||
        more.length > 0 ||
        !Number.isInteger(length) ||
        length < 0 ||
        length > (family === 6 ? 128 : 32)
      )
        throw new Error(
          `LASTMARK_INSTRUMENTS has "${part}"; give networks such as 192.168.1.0/24, with commas between.`,
        );
      this.#list.addSubnet(address, length, family === 6 ? 'ipv6' : 'ipv4');
    }
  }

  /** Whether an IP address is inside. */
  has(address: string): boolean {
    const family = isIP(address);
    return family !== 0 && this.#list.check(address, family === 6 ? 'ipv6' : 'ipv4');
  }

  /** Whether a host may be tried: a name may, since what it stands for is looked at when it is connected. */
  mayTry(host: string): boolean {
    return isIP(host) === 0 || this.has(host);
  }

  /** Resolves names to addresses inside, for the very connection that is made: a name cannot change in between. */
  readonly lookup: LookupFunction = (host, options, done) => {
    resolveName(host, { ...options, all: true }, (error, found) => {
      const inside = (found as LookupAddress[] | undefined)?.filter(({ address }) => this.has(address)) ?? [];
      const [first] = inside;
      if (error) done(error, []);
      else if (!first) done(Object.assign(new Error(outside(host)), { code: 'EACCES' }), []);
      else if (options.all) done(null, inside);
      else done(null, first.address, first.family);
    });
  };
}
