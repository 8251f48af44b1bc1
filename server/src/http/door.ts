// Who may come in. The host names this server answers to are a list, always; beyond loopback a token is asked for, once per
// browser, until there are people and roles.
import { createHash, randomBytes, timingSafeEqual } from 'node:crypto';
import { hostname, networkInterfaces } from 'node:os';
import type { RequestHandler } from 'express';
import { isApi } from './paths.ts';
import { ProblemError } from './problem.ts';

const COOKIE = 'lastmark_door';
const YEAR_SECONDS = 31_536_000;
/** Wrong tokens taken in a minute before everyone has to wait for the next. */
const MOST_TRIES = 20;
const MINUTE = 60_000;
const LOOPBACK_HOST = /^(localhost|127(\.\d{1,3}){3}|\[::1\])$/i;
const LOOPBACK_BIND = /^(localhost|127(\.\d{1,3}){3}|::1)$/i;
const ANYWHERE = new Set(['0.0.0.0', '::', '']);
/** Where the token itself is given. */
const ENTRANCE = '/api/door';
/** Where it is not asked for: the door itself, and whether the server runs at all, which tells nothing else. */
const OPEN: ReadonlySet<string> = new Set([ENTRANCE, '/api/health/live', '/api/health/ready']);

export interface DoorSettings {
  /** Address the server is bound to. */
  readonly host: string;
  /** Further names it answers to. */
  readonly hosts: readonly string[];
  /** The token to ask for beyond loopback; null makes one. */
  readonly token: string | null;
}

const bracketed = (address: string): string => (address.includes(':') ? `[${address}]` : address);

/** Names and addresses this machine has itself: no other site can take one of them. */
function ownNames(): string[] {
  const addresses = Object.values(networkInterfaces()).flatMap((all) => all ?? []);
  return [hostname(), ...addresses.map(({ address }) => bracketed(address.split('%', 1)[0] ?? address))];
}

const stampOf = (token: string): string => createHash('sha256').update(`lastmark door ${token}`).digest('hex');

function same(a: string, b: string): boolean {
  const [left, right] = [a, b].map((text) => createHash('sha256').update(text).digest());
  return left !== undefined && right !== undefined && timingSafeEqual(left, right);
}

export class Door {
  /** Null where nobody but this machine can come. */
  readonly token: string | null;
  readonly #names: ReadonlySet<string>;
  #wrong: number[] = [];

  constructor({ host, hosts, token }: DoorSettings) {
    const bound = ANYWHERE.has(host) ? ownNames() : [bracketed(host)];
    this.#names = new Set([...bound, ...hosts].map((name) => name.toLowerCase()));
    this.token = LOOPBACK_BIND.test(host) ? null : token || randomBytes(12).toString('hex');
  }

  /** Whether a Host header names this server. */
  knows(header: string): boolean {
    const name = header.replace(/:\d+$/, '').toLowerCase();
    return LOOPBACK_HOST.test(name) || this.#names.has(name);
  }

  /** Whether a browser has given the token before. @param cookies its Cookie header */
  lets(cookies: string | undefined): boolean {
    if (this.token === null) return true;
    const given = cookies
      ?.split(';')
      .map((one) => one.trim())
      .find((one) => one.startsWith(`${COOKIE}=`))
      ?.slice(COOKIE.length + 1);
    return given !== undefined && same(given, stampOf(this.token));
  }

  /** Whether a script gives the token with its request. @param header its Authorization header */
  takes(header: string | undefined): boolean {
    if (this.token === null) return true;
    const [, given] = /^Bearer (\S+)$/.exec(header ?? '') ?? [];
    // Guessed at as seldom as at the door.
    if (given === undefined || this.#tooMany()) return false;
    if (same(given, this.token)) return true;
    this.#wrong.push(Date.now());
    return false;
  }

  /** Whether so many wrong tokens came in the last minute that none is looked at. */
  #tooMany(): boolean {
    const now = Date.now();
    this.#wrong = this.#wrong.filter((at) => now - at < MINUTE);
    return this.#wrong.length >= MOST_TRIES;
  }

  /** Take a token. @returns the cookie that lets this browser in from now on @throws 403 for a wrong one, 429 after too many */
  enter(token: string): string {
    if (this.#tooMany())
      throw new ProblemError(429, 'Too many tries', 'Too many wrong tokens. Wait a minute.', { again: 60 });
    if (this.token !== null && !same(token.trim(), this.token)) {
      this.#wrong.push(Date.now());
      throw new ProblemError(403, 'Wrong token', 'This is not the token. It was printed where Lastmark was started.');
    }
    return `${COOKIE}=${stampOf(this.token ?? '')}; Path=/; HttpOnly; SameSite=Strict; Max-Age=${YEAR_SECONDS}`;
  }
}

/** Refuses other host names, which a rebound name would be, and whoever has not given the token. */
export function guard(door: Door): RequestHandler {
  return (request, _response, next) => {
    if (!door.knows(request.get('Host') ?? ''))
      throw new ProblemError(
        421,
        'Wrong host',
        'This server does not answer to that name. Start it with LASTMARK_HOSTS set to the names it has.',
      );
    const entered = door.lets(request.get('Cookie')) || door.takes(request.get('Authorization'));
    if (isApi(request.path) && !OPEN.has(request.path) && !entered)
      throw new ProblemError(401, 'Token asked', 'Give the token that was printed where Lastmark was started.');
    next();
  };
}
