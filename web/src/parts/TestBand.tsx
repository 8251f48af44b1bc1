// A claim's test as a band: value with its uncertainty, or the interval that is all there is.
import { type ClaimTest, shownTest } from '@lastmark/core/claim';
import { LimitBand } from './LimitBand.tsx';

export function TestBand({ test }: { readonly test: ClaimTest }) {
  const { value, expanded, limit, quantity, evidence } = test;
  const nothing = { low: Number.NEGATIVE_INFINITY, high: Number.POSITIVE_INFINITY };
  const known = value === null ? (evidence.interval ?? nothing) : { low: value - expanded, high: value + expanded };
  return <LimitBand value={value} known={known} words={shownTest(test)} limit={limit} quantity={quantity} />;
}
