// A small OpenID Connect provider on loopback, which says of whoever comes what a test wants it to say.
import { createHash, createSign, generateKeyPairSync, randomUUID } from 'node:crypto';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';

export const CLIENT = { clientId: 'bench', clientSecret: 'a secret of the lab' };

type Claims = Record<string, unknown>;

export interface TestProvider {
  readonly issuer: string;
  /** What is said of the next who comes; what stands here replaces what is true. */
  next: { claims: Claims; forged?: boolean; refuse?: boolean };
  readonly close: () => Promise<void>;
}

const encoded = (value: object): string => Buffer.from(JSON.stringify(value)).toString('base64url');

export async function startProvider(): Promise<TestProvider> {
  const { publicKey, privateKey } = generateKeyPairSync('rsa', { modulusLength: 2048 });
  const forger = generateKeyPairSync('rsa', { modulusLength: 2048 });
  const codes = new Map<string, { challenge: string; nonce: string; redirect: string }>();
  const sign = (claims: Claims, forged: boolean): string => {
    const head = `${encoded({ alg: 'RS256', typ: 'JWT', kid: 'one' })}.${encoded(claims)}`;
    const signature = createSign('RSA-SHA256')
      .update(head)
      .sign(forged ? forger.privateKey : privateKey);
    return `${head}.${signature.toString('base64url')}`;
  };
  const provider = { issuer: '', next: { claims: {} as Claims } } as TestProvider & { issuer: string };
  const server = createServer((request, response) => {
    const url = new URL(request.url ?? '', provider.issuer);
    const json = (status: number, body: object) => {
      response.writeHead(status, { 'Content-Type': 'application/json' });
      response.end(JSON.stringify(body));
    };
    if (url.pathname === '/.well-known/openid-configuration')
      return json(200, {
        issuer: provider.issuer,
        authorization_endpoint: `${provider.issuer}/authorise`,
        token_endpoint: `${provider.issuer}/token`,
        jwks_uri: `${provider.issuer}/keys`,
        response_types_supported: ['code'],
        subject_types_supported: ['public'],
        id_token_signing_alg_values_supported: ['RS256'],
      });
    if (url.pathname === '/keys')
      return json(200, { keys: [{ ...publicKey.export({ format: 'jwk' }), kid: 'one', alg: 'RS256', use: 'sig' }] });
    if (url.pathname === '/authorise') {
      const of = (name: string) => url.searchParams.get(name) ?? '';
      const back = new URL(of('redirect_uri'));
      back.searchParams.set('state', of('state'));
      if (provider.next.refuse) back.searchParams.set('error', 'access_denied');
      else {
        const code = randomUUID();
        codes.set(code, { challenge: of('code_challenge'), nonce: of('nonce'), redirect: of('redirect_uri') });
        back.searchParams.set('code', code);
      }
      response.writeHead(302, { Location: back.href });
      return response.end();
    }
    let body = '';
    request.on('data', (part) => {
      body += part;
    });
    return request.on('end', () => {
      const sent = new URLSearchParams(body);
      const known = codes.get(sent.get('code') ?? '');
      codes.delete(sent.get('code') ?? '');
      const challenge = createHash('sha256')
        .update(sent.get('code_verifier') ?? '')
        .digest('base64url');
      // Each code once, for whoever began it, at the address it was begun with.
      if (!known || known.challenge !== challenge || known.redirect !== sent.get('redirect_uri'))
        return json(400, { error: 'invalid_grant' });
      const now = Math.floor(Date.now() / 1000);
      const own = { iss: provider.issuer, aud: CLIENT.clientId, iat: now, exp: now + 300, nonce: known.nonce };
      return json(200, {
        access_token: randomUUID(),
        token_type: 'Bearer',
        id_token: sign({ ...own, ...provider.next.claims }, provider.next.forged ?? false),
      });
    });
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  provider.issuer = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  return Object.assign(provider, {
    close: () =>
      new Promise<void>((resolve) => {
        server.closeAllConnections();
        server.close(() => resolve());
      }),
  });
}
