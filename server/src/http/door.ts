// Which names this server answers to: a list, always. A name that was pointed at this machine from outside gets nothing.
import { hostname, networkInterfaces } from 'node:os';
import type { RequestHandler } from 'express';
import { ProblemError } from './problem.ts';

const LOOPBACK_HOST = /^(localhost|127(\.\d{1,3}){3}|\[::1\])$/i;
const LOOPBACK_BIND = /^(localhost|127(\.\d{1,3}){3}|::1)$/i;
const ANYWHERE = new Set(['0.0.0.0', '::', '']);
export interface DoorSettings {
  /** Address the server is bound to. */
  readonly host: string;
  /** Further names it answers to. */
  readonly hosts: readonly string[];
}

const bracketed = (address: string): string => (address.includes(':') ? `[${address}]` : address);

/** Names and addresses this machine has itself: no other site can take one of them. */
function ownNames(): string[] {
  const addresses = Object.values(networkInterfaces()).flatMap((all) => all ?? []);
  return [hostname(), ...addresses.map(({ address }) => bracketed(address.split('%', 1)[0] ?? address))];
}

/** Whether only this machine can come to an address a server is bound to. */
export const isLoopback = (host: string): boolean => LOOPBACK_BIND.test(host);

export class Door {
  readonly #names: ReadonlySet<string>;

  constructor({ host, hosts }: DoorSettings) {
    const bound = ANYWHERE.has(host) ? ownNames() : [bracketed(host)];
    this.#names = new Set([...bound, ...hosts].map((name) => name.toLowerCase()));
  }

  /** Whether a Host header names this server. */
  knows(header: string): boolean {
    const name = header.replace(/:\d+$/, '').toLowerCase();
    return LOOPBACK_HOST.test(name) || this.#names.has(name);
  }
}

/** Refuses other host names, which a rebound name would be. */
export function guard(door: Door): RequestHandler {
  return (request, _response, next) => {
    if (!door.knows(request.get('Host') ?? ''))
      throw new ProblemError(
        421,
        'Wrong host',
        'This server does not answer to that name. Start it with LASTMARK_HOSTS set to the names it has.',
      );
    next();
  };
}
