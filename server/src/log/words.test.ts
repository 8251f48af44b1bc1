import { ROUTES } from '@lastmark/contract';
import { expect, it } from 'vitest';
import { operationsSaying, whatOf } from './words.ts';

it('says what was done, without what only a program has to know', () => {
  expect(whatOf('addReadings')).toBe('Add readings');
  expect(whatOf('signIn')).toBe('Came in');
  expect(whatOf('nobody knows')).toBe('nobody knows');
  for (const name of Object.keys(ROUTES)) expect(whatOf(name)).toMatch(/^[^;]+[^; ]$/);
});

it('is found by what it says', () => {
  expect(operationsSaying('ADD READINGS')).toEqual(['addReadings']);
  expect(operationsSaying('kept once')).toEqual([]);
});
