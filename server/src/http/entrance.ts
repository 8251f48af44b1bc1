// Who asks: what the application wants to know of it. People implement this; a machine of one person needs nobody.
import type { Request } from 'express';
import { MACHINE, type Who } from '../who/who.ts';

/** Where a request comes from. */
export interface From {
  readonly address: string;
  readonly browser: string;
  /** Whether it came over TLS, here or at the proxy before. */
  readonly secure: boolean;
}

export interface Entrance {
  /** Who asks; null for somebody nobody knows. */
  readonly whoAsks: (request: Request) => Promise<Who | null>;
  /** Who presses Loads off: known without the database, also when the session is over. */
  readonly whoPresses: (request: Request) => Who | null;
  /** Whose pace a request counts to, where that is known without the database; null counts by address. */
  readonly paceOf?: (request: Request) => string | null;
}

/** Nobody is told apart: whoever reaches the machine sits at it. */
export const OPEN: Entrance = { whoAsks: async () => MACHINE, whoPresses: () => MACHINE };

export const fromOf = (request: Request): From => ({
  address: (request.ip ?? '').replace(/^::ffff:/, ''),
  browser: request.get('User-Agent') ?? '',
  secure: request.secure,
});
