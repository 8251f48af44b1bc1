// How much one browser, script or address may ask: more than people do, less than what would keep others waiting.
import type { RequestHandler } from 'express';
import { rateLimit } from 'express-rate-limit';
import { type Entrance, fromOf } from './entrance.ts';
import { inItsWorld, isApi } from './paths.ts';
import { ProblemError } from './problem.ts';

const WINDOW_MILLISECONDS = 60_000;
/** Requests a minute of one browser, or one address. A page with live numbers and a run asks some hundred. */
export const MOST_A_MINUTE = 3000;
const AGAIN_SECONDS = 10;
/** What waits for nothing, and what is asked once for hours. */
const FREE: ReadonlySet<string> = new Set(['/api/loads-off', '/api/live', '/api/health/live', '/api/health/ready']);

/**
 * @param paceOf whose pace a request counts to; by its address where that is not known
 * @param most requests a minute; by default more than people ask
 */
export function pace(paceOf: Entrance['paceOf'] = () => null, most = MOST_A_MINUTE): RequestHandler {
  return rateLimit({
    windowMs: WINDOW_MILLISECONDS,
    limit: most,
    standardHeaders: false,
    legacyHeaders: false,
    keyGenerator: (request) => paceOf(request) ?? fromOf(request).address,
    // How an address is written is for us to know; subnets of six are not told apart here.
    validate: { keyGeneratorIpFallback: false },
    skip: ({ path }) => !isApi(path) || FREE.has(inItsWorld(path)),
    handler: (_request, _response, next) =>
      next(
        new ProblemError(429, 'Too fast', `More than ${most} requests a minute. Slow down.`, { again: AGAIN_SECONDS }),
      ),
  });
}
