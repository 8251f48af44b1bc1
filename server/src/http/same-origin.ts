// Only our own pages may talk to the server.
import type { RequestHandler } from 'express';
import { isApi } from './paths.ts';
import { ProblemError } from './problem.ts';

/** Where the lab's own sign-in sends a browser back: from its site, with what was begun here. */
const SENT_BACK = '/api/sign-in/provider/back';
const SAFE = new Set(['GET', 'HEAD', 'OPTIONS']);

/** Refuses requests that another site's page sent. */
export function sameOrigin(): RequestHandler {
  return (request, _response, next) => {
    const host = request.get('Host') ?? '';
    const origin = request.get('Origin');
    const site = request.get('Sec-Fetch-Site');
    const foreignOrigin = origin !== undefined && origin !== `http://${host}` && origin !== `https://${host}`;
    const foreignSite = site === 'cross-site' || site === 'same-site';
    if (request.method === 'GET' && request.path === SENT_BACK) return next();
    if ((foreignOrigin || foreignSite) && (!SAFE.has(request.method) || isApi(request.path))) {
      throw new ProblemError(403, 'Another site', 'Requests from other sites are refused.');
    }
    next();
  };
}
