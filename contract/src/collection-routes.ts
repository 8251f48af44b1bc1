// Operations on collections: who may see which samples.
import { string } from 'yup';
import type { Collection, CollectionInput, InCollection } from './collection-types.ts';
import { id, list, record, text } from './parts.ts';
import { get, is, of, type Route, write } from './route.ts';
import type { Items } from './route-types.ts';

const MOMENT = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(:\d{2}(\.\d{1,3})?)?Z$/;
const moment = () =>
  string()
    .strict()
    .test(
      'moment',
      '${path} is no moment; write it as 2027-03-01T09:00Z',
      (value) => value == null || (MOMENT.test(value) && !Number.isNaN(Date.parse(value))),
    );

const collectionInput = record({
  name: text(80),
  embargo: moment().nullable().defined(),
  people: list(id(), 200),
});
const inCollection = record({ collectionId: id().nullable().defined() });
const ADMIN = { needs: 'admin' } as const;

export const COLLECTION_ROUTES = {
  listCollections: get('/collections', 'Collections of samples whoever asks may see, and who may', {
    answer: is<Items<Collection>>(),
  }),
  createCollection: write('post', '/collections', 'Make a collection: for guests, or until an embargo ends', {
    body: of<CollectionInput>(collectionInput),
    answer: is<Collection>(),
    ...ADMIN,
  }),
  updateCollection: write('put', '/collections/{collectionId}', 'Change a collection', {
    body: of<CollectionInput>(collectionInput),
    ifMatch: true,
    answer: is<Collection>(),
    ...ADMIN,
  }),
  deleteCollection: write('delete', '/collections/{collectionId}', 'Remove a collection nothing is in', {
    ifMatch: true,
    ...ADMIN,
  }),
  putInCollection: write('put', '/samples/{sampleId}/collection', 'Put a sample into a collection, or take it out', {
    body: of<InCollection>(inCollection),
    answer: is<InCollection>(),
  }),
} as const satisfies Record<string, Route>;
