// What collections answer with.
import {
  createCollection,
  deleteCollection,
  listCollections,
  putInCollection,
  updateCollection,
} from './collections/store.ts';
import { done, versioned } from './http/answers.ts';
import type { Handlers } from './http/handlers.ts';

export const collectionHandlers = (): Pick<
  Handlers,
  'listCollections' | 'createCollection' | 'updateCollection' | 'deleteCollection' | 'putInCollection'
> => ({
  listCollections: async ({ db }) => ({ body: { items: await listCollections(db) } }),
  createCollection: async ({ db, body }) => versioned(await createCollection(db, body)),
  updateCollection: async ({ db, params, body, ifMatch }) =>
    versioned(await updateCollection(db, params.collectionId, body, ifMatch)),
  deleteCollection: async ({ db, params, ifMatch }) => done(await deleteCollection(db, params.collectionId, ifMatch)),
  putInCollection: async ({ db, params, body }) => ({ body: await putInCollection(db, params.sampleId, body) }),
});
