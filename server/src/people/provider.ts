// Sign-in by the lab's own OpenID Connect provider: authorization code with PKCE, state and nonce. OpenID Connect Core 1.0, RFC 7636
import { createHmac, timingSafeEqual } from 'node:crypto';
import type { Role } from '@lastmark/contract';
import { eq } from 'drizzle-orm';
import * as oidc from 'openid-client';
import type { Database } from '../db/database.ts';
import { isDatabaseError } from '../db/database.ts';
import { newId } from '../db/ids.ts';
import { people } from '../db/schema.ts';
import { firstComes } from './invitations.ts';
import type { PersonRow } from './people.ts';

export interface ProviderSettings {
  readonly issuer: string;
  readonly clientId: string;
  readonly clientSecret: string;
  /** What its button says. */
  readonly name: string;
  /** What somebody may who comes in by it for the first time. */
  readonly role: Role;
}

const COOKIE = 'lastmark_provider';
const LIVES_SECONDS = 600;
export const BACK = '/api/sign-in/provider/back';
const LOOPBACK = /^http:\/\/(localhost|127(\.\d{1,3}){3}|\[::1\])(:\d+)?(\/|$)/;

/** Why somebody was not let in, in words for them. */
export class NotLetIn extends Error {}

interface Begun {
  readonly state: string;
  readonly nonce: string;
  readonly verifier: string;
}

export class Provider {
  readonly name: string;
  readonly #settings: ProviderSettings;
  readonly #key: string;
  #config: Promise<oidc.Configuration> | null = null;

  constructor(settings: ProviderSettings, key: string) {
    this.name = settings.name;
    this.#settings = settings;
    this.#key = key;
  }

  /** What the provider says of itself, asked when it is first needed, and again after it could not be reached. */
  #known(): Promise<oidc.Configuration> {
    const { issuer, clientId, clientSecret } = this.#settings;
    // Without TLS only on this machine.
    const execute = LOOPBACK.test(issuer) ? [oidc.allowInsecureRequests] : [];
    this.#config ??= oidc
      .discovery(new URL(issuer), clientId, clientSecret, undefined, { execute, timeout: 10 })
      .then((config) => {
        // Signed, too: not only told over a connection that is the provider's.
        oidc.enableNonRepudiationChecks(config);
        return config;
      })
      .catch((error: unknown) => {
        this.#config = null;
        throw error;
      });
    return this.#config;
  }

  #mac(text: string): string {
    return createHmac('sha256', this.#key).update(`provider ${text}`).digest('base64url');
  }

  /** Where to send a browser, and what it must bring back. @param origin of this server, as the browser reaches it */
  async begin(origin: string): Promise<{ readonly location: string; readonly cookie: string }> {
    const config = await this.#known();
    const begun: Begun = {
      state: oidc.randomState(),
      nonce: oidc.randomNonce(),
      verifier: oidc.randomPKCECodeVerifier(),
    };
    const location = oidc.buildAuthorizationUrl(config, {
      redirect_uri: origin + BACK,
      scope: 'openid profile email',
      state: begun.state,
      nonce: begun.nonce,
      code_challenge: await oidc.calculatePKCECodeChallenge(begun.verifier),
      code_challenge_method: 'S256',
    });
    const text = [begun.state, begun.nonce, begun.verifier, Date.now() + LIVES_SECONDS * 1000].join('.');
    return { location: location.href, cookie: this.#cookie(`${text}.${this.#mac(text)}`, LIVES_SECONDS, origin) };
  }

  /** Makes a browser forget what it was to bring back. */
  forget(origin: string): string {
    return this.#cookie('', 0, origin);
  }

  /** Lax: it is brought back from the provider's site. */
  #cookie(value: string, age: number, origin: string): string {
    const secure = origin.startsWith('https:') ? '; Secure' : '';
    return `${COOKIE}=${value}; Path=${BACK}; HttpOnly; SameSite=Lax; Max-Age=${age}${secure}`;
  }

  #begun(cookies: string | undefined): Begun | null {
    const value = cookies
      ?.split(';')
      .map((one) => one.trim())
      .find((one) => one.startsWith(`${COOKIE}=`))
      ?.slice(COOKIE.length + 1);
    const [state = '', nonce = '', verifier = '', until = '', mac = ''] = value?.split('.') ?? [];
    const own = Buffer.from(this.#mac([state, nonce, verifier, until].join('.')));
    const given = Buffer.from(mac);
    if (own.length !== given.length || !timingSafeEqual(own, given) || Number(until) < Date.now()) return null;
    return { state, nonce, verifier };
  }

  /**
   * Somebody comes back from the provider.
   * @param url as the browser asked for it
   * @returns the person; made where they come for the first time
   * @throws NotLetIn with why, for them
   */
  async back(db: Database, url: URL, cookies: string | undefined): Promise<PersonRow> {
    const begun = this.#begun(cookies);
    if (!begun) throw new NotLetIn('This sign-in was not begun in this browser, or took too long. Begin it again.');
    const config = await this.#known();
    const tokens = await oidc
      .authorizationCodeGrant(config, url, {
        pkceCodeVerifier: begun.verifier,
        expectedState: begun.state,
        expectedNonce: begun.nonce,
        idTokenExpected: true,
      })
      .catch((error: unknown) => {
        throw new NotLetIn(`${this.name} did not let you in, or what it said could not be believed.`, { cause: error });
      });
    const claims = tokens.claims();
    if (!claims) throw new NotLetIn(`${this.name} did not say who you are.`);
    return this.#personOf(db, claims);
  }

  async #personOf(db: Database, claims: oidc.IDToken): Promise<PersonRow> {
    const provided = `${claims.iss} ${claims.sub}`.slice(0, 300);
    const find = async () => (await db.select().from(people).where(eq(people.provided, provided)))[0];
    const known = await find();
    if (known?.disabled) throw new NotLetIn('You are kept out. Ask an admin.');
    if (known) return known;
    if (await firstComes(db)) throw new NotLetIn('Nobody is here yet. The first comes in with the code of the start.');
    const said = (name: string): string | null => {
      const value = claims[name];
      return typeof value === 'string' && value.trim() !== '' ? value.trim() : null;
    };
    const signIn = (said('email') ?? said('preferred_username') ?? claims.sub).toLowerCase().slice(0, 120);
    const name = (said('name') ?? said('preferred_username') ?? signIn).slice(0, 60);
    try {
      await db
        .insert(people)
        .values({ id: newId(), signIn, name, role: this.#settings.role, provided, createdAt: new Date() });
    } catch (error) {
      if (!isDatabaseError(error, 'ER_DUP_ENTRY')) throw error;
      // Two windows at once are one person; a name somebody has already is never taken over.
      if (!(await find()))
        throw new NotLetIn(
          `Somebody signs in as ${signIn} already, by a password. Ask an admin to change one of the two.`,
        );
    }
    const made = await find();
    if (!made) throw new NotLetIn('You could not be let in. Try again.');
    return made;
  }
}
