// Every operation of the API: the server mounts exactly these, and the API description is made from them.
import { BENCH_ROUTES } from './bench-routes.ts';
import { COLLECTION_ROUTES } from './collection-routes.ts';
import { COMPARE_ROUTES } from './compare-routes.ts';
import { LOG_ROUTES } from './log-routes.ts';
import { PEOPLE_ROUTES } from './people-routes.ts';
import { PRACTICE_ROUTES } from './practice-routes.ts';
import { REPORT_ROUTES } from './report-routes.ts';
import type { ParamOf, Route } from './route.ts';
import { RUN_ROUTES } from './run-routes.ts';
import { SAMPLE_ROUTES } from './sample-routes.ts';
import { TOGETHER_ROUTES } from './together-routes.ts';
import { TRIAL_ROUTES } from './trial-routes.ts';

export { PEOPLE_ROUTES } from './people-routes.ts';
export { neededFor, type Route } from './route.ts';
export * from './route-types.ts';

export const ROUTES = {
  ...SAMPLE_ROUTES,
  ...BENCH_ROUTES,
  ...RUN_ROUTES,
  ...TRIAL_ROUTES,
  ...COMPARE_ROUTES,
  ...REPORT_ROUTES,
  ...PRACTICE_ROUTES,
  ...PEOPLE_ROUTES,
  ...LOG_ROUTES,
  ...COLLECTION_ROUTES,
  ...TOGETHER_ROUTES,
} as const satisfies Record<string, Route>;

export type Operation = keyof typeof ROUTES;

/** What a body, a query and an answer of an operation are. */
export type BodyOf<O extends Operation> =
  (typeof ROUTES)[O] extends Route<string, infer B, infer _Q, infer _A> ? B : never;
export type QueryOf<O extends Operation> =
  (typeof ROUTES)[O] extends Route<string, infer _B, infer Q, infer _A> ? Q : never;
export type AnswerOf<O extends Operation> =
  (typeof ROUTES)[O] extends Route<string, infer _B, infer _Q, infer A> ? A : never;
export type ParamsOf<O extends Operation> = Readonly<Record<ParamOf<(typeof ROUTES)[O]['path']>, string>>;
