import { expect, it } from 'vitest';
import { parseMoney } from './index.ts';

it.each([
  ['54', 54, null],
  ['€54', 54, 'EUR'],
  ['24,50 €', 24.5, 'EUR'],
  ['CHF 1 234.50', 1234.5, 'CHF'],
  ['0,32', 0.32, null],
  ['£ 9', 9, 'GBP'],
  ['12 eur', 12, 'EUR'],
  ['$1,299', 1299, 'USD'],
  ['1.299 €', 1299, 'EUR'],
  ['1.299,50 €', 1299.5, 'EUR'],
  ['0.299 €', 0.299, 'EUR'],
  ['US$ 24.90', 24.9, 'USD'],
  ['CHF 54.–', 54, 'CHF'],
] as const)('%j is %j %j', (text, amount, currency) => expect(parseMoney(text)).toEqual({ amount, currency }));

it.each(['', 'dear', '€', 'EUR 5 USD', '5 apples', '1.2.3'])('%j is no amount', (text) =>
  expect(parseMoney(text).amount).toBeNaN(),
);

it('of a kilowatt-hour may have thousandths', () => {
  expect(parseMoney('1.299', true).amount).toBe(1.299);
  expect(parseMoney('0,2875', true).amount).toBe(0.2875);
});
