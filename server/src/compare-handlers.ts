// What comparisons and filings answer with.
import { deleteComparison, getComparison, listComparisons } from './compare/store.ts';
import { asJson, done, versioned } from './http/answers.ts';
import type { Handlers } from './http/handlers.ts';
import { fileSamples } from './shelf/filing.ts';
import { createSearch, deleteSearch, listSearches } from './shelf/searches.ts';
import type { Working } from './working.ts';

type Comparing = Pick<
  Handlers,
  | 'listComparisons'
  | 'createComparison'
  | 'getComparison'
  | 'updateComparison'
  | 'deleteComparison'
  | 'lookAtSet'
  | 'listSearches'
  | 'createSearch'
  | 'deleteSearch'
  | 'fileSamples'
>;

export function compareHandlers(jobs: Working['jobs']): Comparing {
  return {
    listComparisons: async ({ db }) => ({ body: { items: await listComparisons(db) } }),
    createComparison: async ({ body, left }) => versioned(await jobs.run('createComparison', { body }, left)),
    getComparison: async ({ db, params }) => versioned(await getComparison(db, params.comparisonId)),
    updateComparison: async (call) =>
      versioned(
        await jobs.run(
          'updateComparison',
          { id: call.params.comparisonId, body: call.body, seen: call.ifMatch },
          call.left,
        ),
      ),
    deleteComparison: async (call) => done(await deleteComparison(call.db, call.params.comparisonId, call.ifMatch)),
    lookAtSet: async ({ body, left }) => asJson(await jobs.run('comparisonSet', body, left)),
    listSearches: async ({ db }) => ({ body: { items: await listSearches(db) } }),
    createSearch: async ({ db, body }) => ({ body: await createSearch(db, body) }),
    deleteSearch: async ({ db, params }) => done(await deleteSearch(db, params.searchId)),
    fileSamples: async ({ db, body }) => ({ body: { before: await fileSamples(db, body.filings) } }),
  };
}
