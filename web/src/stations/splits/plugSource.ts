// A charger as the worker that arranges devices needs it, from what is known of a sample.
import { voltsOf } from '@lastmark/core/pd';
import { bestReadOut, offersOf } from '@lastmark/core/read-out';
import { aloneWatts, type PlugSource, promisedRows, type SplitResult } from '@lastmark/core/split';
import type { Dossier } from '@lastmark/core/verdict';

/** @param by what decides the shares */
export function plugSource(
  { sample, claims, readOuts }: Pick<Dossier, 'sample' | 'claims' | 'readOuts'>,
  { rule, drops }: Pick<SplitResult, 'rule' | 'drops'>,
  by: PlugSource['by'],
): PlugSource {
  const labels = sample.ports.map(({ label }) => label);
  const lines = claims.flatMap(({ promise }) => (promise.kind === 'port-line' ? [promise] : []));
  const offers = (label: string) => {
    const best = bestReadOut(readOuts, label);
    return best ? offersOf(best).map(({ object }) => object) : [];
  };
  const ports = sample.ports.map(({ label, connector }) => {
    const offered = offers(label).flatMap((object) => voltsOf(object)?.high ?? []);
    const promised = lines.filter(({ port }) => port === label).map(({ volts }) => volts);
    return {
      label,
      volts: [...new Set([5, ...offered, ...promised])],
      connector: connector === 'A' ? 'A' : 'C',
    } as const;
  });
  const alone = Object.fromEntries(
    labels.flatMap((label) => {
      const watts = aloneWatts(label, claims, offers(label));
      return watts === null ? [] : [[label, watts]];
    }),
  );
  return { ports, by, rule: { budgets: rule.budgets }, promised: promisedRows(labels, claims), alone, drops };
}
