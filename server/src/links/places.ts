// Where instruments may be: networks, the serial ports of this machine, and folders other programs write their logs to.
import { realpath } from 'node:fs/promises';
import { isAbsolute, relative, resolve } from 'node:path';
import { followFile, overHislip, overPorts, overSerial, overSocket, type Way } from '@lastmark/bench/ways';
import { ADDRESS_FORMS, type Address, parseAddress } from '@lastmark/core/instrument';
import { refused } from '../http/problem.ts';
import { LOOPBACK_NETWORKS, Networks, outside } from './networks.ts';

/** One socket, or one each channel. */
function overSockets({ host, port, more }: Address & { readonly way: 'socket' }, lookup: Networks['lookup']): Way {
  const [first, ...others] = [port, ...more].map((one) => overSocket(host, one, lookup));
  return first && others.length === 0 ? first : overPorts([first, ...others].flatMap((way) => way ?? []));
}

const outsideFolders = (path: string): string =>
  `${path} is outside the folders logs may be read from. Start Lastmark with LASTMARK_LOGS set to its folder.`;

const inside = (folder: string, path: string): boolean => {
  const way = relative(folder, path);
  return way !== '' && !way.startsWith('..') && !isAbsolute(way);
};

export class Places {
  readonly networks: Networks;
  readonly #folders: readonly string[];

  /** @param folders where growing files may be; none allows none */
  constructor(networks = new Networks(LOOPBACK_NETWORKS), folders: readonly string[] = []) {
    this.networks = networks;
    this.#folders = folders.map((folder) => resolve(folder));
  }

  /** The parts of an address that may be tried. @throws 422 for one outside, or that is none */
  check(address: string): Address {
    const parts = parseAddress(address);
    if (!parts) throw refused('address', `"${address}" is no address. Give one such as ${ADDRESS_FORMS}.`);
    if ('host' in parts && !this.networks.mayTry(parts.host)) throw refused('address', outside(address));
    if (parts.way === 'file' && !this.#folders.some((folder) => inside(folder, resolve(parts.path))))
      throw refused('address', outsideFolders(parts.path));
    return parts;
  }

  /** Whether a file may be read now, wherever its links lead. */
  readonly #mayRead = async (path: string): Promise<boolean> => {
    const real = await realpath(path);
    const folders = await Promise.all(this.#folders.map((folder) => realpath(folder).catch(() => null)));
    return folders.some((folder) => folder !== null && inside(folder, real));
  };

  /** The way to an address. @throws 422 as {@link check} */
  wayTo(address: string): Way {
    const parts = this.check(address);
    switch (parts.way) {
      case 'socket':
        return overSockets(parts, this.networks.lookup);
      case 'hislip':
        return overHislip(parts.host, parts.port, parts.device, this.networks.lookup);
      case 'serial':
        return overSerial(parts.path, parts);
      case 'file':
        return followFile(parts.path, this.#mayRead);
    }
  }
}
