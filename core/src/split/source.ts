// A charger as an arrangement needs it, from what is known of a sample: plain data, so that it can be handed to a worker.
import { voltsOf } from '../pd/index.ts';
import type { Claim } from '../promise/index.ts';
import { bestReadOut, offersOf, type ReadOut } from '../read-out/index.ts';
import type { PlugSource } from './plug.ts';
import { aloneWatts, promisedRows } from './promises.ts';
import type { SplitResult } from './station.ts';

interface Known {
  readonly sample: { readonly ports: readonly { readonly label: string; readonly connector: string }[] };
  readonly claims: readonly Claim[];
  readonly readOuts: readonly ReadOut[];
}

/** @param by what decides the shares */
export function plugSource(
  { sample, claims, readOuts }: Known,
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
      const watts = aloneWatts(label, claims, []);
      return watts === null ? [] : [[label, watts]];
    }),
  );
  return { ports, by, rule: { budgets: rule.budgets }, promised: promisedRows(labels, claims), alone, drops };
}
