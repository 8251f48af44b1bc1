import type { SampleDossier } from '@lastmark/contract';
import { expect, it } from 'vitest';
import { toCsv } from './data.ts';
import { readingFields } from './fields.ts';

it('the table schema names every column of the readings, in their order', () => {
  const empty = { points: [], setups: [], rigs: [], instruments: [] } as unknown as SampleDossier;
  expect(toCsv(empty).trim().split(',')).toEqual(readingFields().map(({ name }) => name));
});
