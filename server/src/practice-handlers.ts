// What drills answer with.
import { done } from './http/answers.ts';
import type { Handlers } from './http/handlers.ts';
import { conflict } from './http/problem.ts';
import type { Practice } from './practice/practice.ts';

type Practising = Pick<
  Handlers,
  | 'listDrills'
  | 'drillNow'
  | 'startDrill'
  | 'getDrill'
  | 'placeInDrill'
  | 'restartMeters'
  | 'stateVerdict'
  | 'leaveDrill'
>;

/** @param practice null inside the world of practice itself */
export function practiceHandlers(practice: Practice | null): Practising {
  const there = (): Practice => {
    if (!practice) throw conflict('This is practice already. Drills are begun and ended outside it.');
    return practice;
  };
  return {
    listDrills: async () => ({ body: { items: await there().list() } }),
    drillNow: async () => ({ body: await there().now() }),
    startDrill: async ({ body }) => ({ body: await there().start(body) }),
    getDrill: async ({ params }) => ({ body: await there().get(params.drillId) }),
    placeInDrill: async ({ params, body }) => ({ body: await there().place(params.drillId, body.sampleId) }),
    restartMeters: async ({ params }) => ({ body: await there().restartMeters(params.drillId) }),
    stateVerdict: async ({ params, body }) => ({ body: await there().state(params.drillId, body) }),
    leaveDrill: async ({ params }) => done(await there().leave(params.drillId)),
  };
}
