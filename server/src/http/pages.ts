// The browser's files, and the policy they are shown under: scripts and styles of ours, and nothing written into a page.
import { randomBytes } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import express, { type Express, type RequestHandler, type Response } from 'express';
import helmet from 'helmet';

const YEAR_SECONDS = 31_536_000;
/** Where the page says what its styles are known by: styles are written at run time, by our own scripts. */
const HEAD = '<head>';

const nonceOf = (response: unknown): string => (response as Response).locals.nonce as string;

/** Headers of every answer. @param secure whether browsers are told to come by TLS only from now on */
export function headers(secure: boolean): RequestHandler[] {
  return [
    (_request, response, next) => {
      response.locals.nonce = randomBytes(16).toString('base64');
      next();
    },
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          styleSrc: ["'self'", (_request, response) => `'nonce-${nonceOf(response)}'`],
          imgSrc: ["'self'", 'data:', 'blob:'],
          workerSrc: ["'self'", 'blob:'],
          objectSrc: ["'none'"],
          frameAncestors: ["'none'"],
          baseUri: ["'self'"],
          formAction: ["'self'"],
        },
      },
      strictTransportSecurity: secure ? { maxAge: YEAR_SECONDS, includeSubDomains: false } : false,
      referrerPolicy: { policy: 'no-referrer' },
    }),
  ];
}

/** Serve what was built, any address of a page with the one page there is. */
export function servePages(app: Express, web: string): void {
  const index = join(web, 'index.html');
  if (!existsSync(index)) return;
  const page = readFileSync(index, 'utf8');
  app.use(
    '/assets',
    express.static(join(web, 'assets'), { immutable: true, maxAge: YEAR_SECONDS * 1000, fallthrough: false }),
  );
  app.use(express.static(web, { index: false }));
  app.get('/{*path}', (_request, response) => {
    response.setHeader('Cache-Control', 'no-store');
    const said = `<meta property="csp-nonce" content="${nonceOf(response)}" />`;
    response.type('html').send(page.replace(HEAD, HEAD + said));
  });
}
