// Truth of comparisons: leads that are called though there is none, and how long stability takes.
import { type Compared, EVERYTHING, firstOf, populationOf, weightedRanking } from '../../core/src/compare/index.ts';
import { seededNormal, seededRandom } from '../../core/src/random/index.ts';

/** The rule of a set that takes everything. */
export const everything = EVERYTHING;

const chance = seededRandom(20_261_127);
const normal = seededNormal(chance);
const of = (id: string, value: number, u: number, common: number, meters: string): Compared => ({
  id,
  value,
  u,
  common,
  meters,
  below: false,
  at: null,
});

/** Shelves of six whose true values are known: how often a lead that is called is another's. */
export function leads(shelves: number): { called: number; wrong: number; equalCalled: number } {
  let [called, wrong, equalCalled] = [0, 0, 0];
  for (let turn = 0; turn < shelves; turn += 1) {
    const u = 0.1;
    const common = u * Math.SQRT1_2;
    const alike = turn % 2 === 0;
    const truth = Array.from({ length: 6 }, () => (alike ? 90 : 90 + 0.25 * normal()));
    const error = common * normal();
    const read = truth.map((value) => value + error + Math.sqrt(u * u - common * common) * normal());
    const told = firstOf(
      read.map((value, at) => of(String(at), value, u, common, 'm')),
      'more',
      4000,
    );
    if (!told.called) continue;
    called += 1;
    if (alike) equalCalled += 1;
    else if (truth[Number(told.leader)] !== Math.max(...truth)) wrong += 1;
  }
  return { called, wrong, equalCalled };
}

/** Lots of good units: how often one is called bad. */
export function falselyOdd(lots: number): number {
  let found = 0;
  for (let turn = 0; turn < lots; turn += 1) {
    const units = Array.from({ length: 6 }, (_one, at) => ({
      id: String(at),
      value: 90 + 0.2 * normal(),
      u: 0.05,
      group: '',
    }));
    if ((populationOf(units, 'more')?.odd.length ?? 0) > 0) found += 1;
  }
  return found;
}

/** Stability of 200 samples, five measures, ten thousand draws, ms. */
export function stability(): number {
  const values = (phase: number) =>
    Array.from({ length: 200 }, (_one, at) => of(String(at), 50 + 10 * Math.sin(at * phase), 0.5, 0.35, `m${at % 5}`));
  const criteria = [1, 2, 3, 4, 5].map((phase) => ({
    measure: `m${phase}`,
    title: 'm',
    better: phase % 2 === 0 ? ('more' as const) : ('less' as const),
    weight: 1,
    values: values(phase),
  }));
  const begun = performance.now();
  weightedRanking(criteria);
  return performance.now() - begun;
}
