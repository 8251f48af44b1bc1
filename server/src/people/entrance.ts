// Who asks, where people are told apart: by the session of their browser, or the token of their script.
import type { Request } from 'express';
import type { Database } from '../db/database.ts';
import type { Entrance } from '../http/entrance.ts';
import type { Who } from '../who/who.ts';
import { labKey } from './keys.ts';
import { digestOf } from './secrets.ts';
import { secretIn, whoseSession } from './sessions.ts';
import { whoseToken } from './tokens.ts';

/** Somebody who was let in here once. Who it is, is found out when nothing waits for it. */
const LET_IN_ONCE: Who = { id: null, name: 'Somebody signed out', role: 'reader', through: 'session', keyId: null };

export class PeopleEntrance implements Entrance {
  readonly #db: Database;
  /** What sessions are signed with: made in the database, known here, so that a signature is checked without it. */
  readonly key: string;

  private constructor(db: Database, key: string) {
    this.#db = db;
    this.key = key;
  }

  static async open(db: Database): Promise<PeopleEntrance> {
    return new PeopleEntrance(db, await labKey(db, 'sessions'));
  }

  readonly whoAsks = async (request: Request): Promise<Who | null> => {
    const secret = secretIn(request.get('Cookie'), this.key);
    if (secret === null) return whoseToken(this.#db, request.get('Authorization'));
    return whoseSession(this.#db, secret);
  };

  /**
   * Whoever was let in here at any time may switch loads off, also with a session that is over: it can only make
   * things safer, and is never the moment to look for a password. A script's token is for what it was made for.
   */
  readonly whoPresses = (request: Request): Who | null =>
    secretIn(request.get('Cookie'), this.key) === null ? null : LET_IN_ONCE;

  /** By the session: a lab behind one address is many browsers. A session nobody signed counts by its address. */
  readonly paceOf = (request: Request): string | null => {
    const secret = secretIn(request.get('Cookie'), this.key);
    return secret === null ? null : digestOf(secret);
  };
}
