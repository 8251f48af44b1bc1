// What one copy of the server asks another is signed with a key only they know, holds for seconds, for this very question, and
// once. RFC 7519 (JWT), RFC 7515 (JWS, HS256).
import { createHash } from 'node:crypto';
import { jwtVerify, SignJWT } from 'jose';
import { ulid } from 'ulid';

const ALGORITHM = 'HS256';
const SECONDS = 20;
/** Questions that are remembered so that none counts twice; more than are asked in the time they hold. */
const MOST_REMEMBERED = 50_000;

const digestOf = (body: string): string => createHash('sha256').update(body).digest('base64url');

/** What a token says: which question it is, and the digest of its body. */
export interface Signed {
  readonly id: string;
  readonly body: string;
}

export class Signature {
  readonly #key: Uint8Array;
  readonly #seen = new Map<string, number>();

  constructor(key: string) {
    this.#key = new TextEncoder().encode(key);
  }

  /** @param path what is asked for @param body as it is sent */
  sign(path: string, body: string): Promise<string> {
    return new SignJWT({ path, body: digestOf(body) })
      .setProtectedHeader({ alg: ALGORITHM })
      .setIssuedAt()
      .setExpirationTime(`${SECONDS}s`)
      .setJti(ulid())
      .sign(this.#key);
  }

  /** What another copy signed just now for a path; null for whoever is none. Looked at before anything of a body is read. */
  async opened(token: string, path: string): Promise<Signed | null> {
    try {
      const { payload } = await jwtVerify(token, this.#key, {
        algorithms: [ALGORITHM],
        requiredClaims: ['exp', 'jti', 'path', 'body'],
        clockTolerance: SECONDS,
      });
      return payload.path === path ? { id: payload.jti as string, body: payload.body as string } : null;
    } catch {
      return null;
    }
  }

  /** Whether this very body was signed, and comes for the first time. */
  fits({ id, body }: Signed, sent: string): boolean {
    return body === digestOf(sent) && this.#first(id);
  }

  #first(id: string): boolean {
    const now = performance.now();
    for (const [one, at] of this.#seen) {
      if (now - at < 3 * SECONDS * 1000 && this.#seen.size < MOST_REMEMBERED) break;
      this.#seen.delete(one);
    }
    if (this.#seen.has(id)) return false;
    this.#seen.set(id, now);
    return true;
  }
}
