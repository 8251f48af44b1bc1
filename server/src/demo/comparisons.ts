// Two comparisons of the Fernwall shelf.
import type { ComparisonBody } from '@lastmark/contract';
import { EVERYTHING } from '@lastmark/core/compare';
import { createComparison } from '../compare/store.ts';
import type { Database } from '../db/database.ts';
import { sampleOf } from './shelf.ts';

const EU = '230 V 50 Hz';
const WALL: ComparisonBody = {
  title: 'Wall chargers for the huts',
  note: 'One charger a warden carries up, left plugged in all season on a small store.',
  rule: { ...EVERYTHING, kinds: ['wall'], watts: { from: 40, to: 80 } },
  measures: [
    { measure: 'mass-per-watt', condition: 'with plug' },
    { measure: 'price-per-watt', condition: 'EUR, paid' },
    { measure: 'idle', condition: EU },
    { measure: 'average-efficiency', condition: `four points, ${EU}` },
    { measure: 'full-load-loss', condition: EU },
    { measure: 'proven-share', condition: null },
    { measure: 'own-part-lost', condition: null },
  ],
  own: [
    {
      id: 'own-part-lost',
      title: 'Part lost at full load',
      formula: 'fullLoadLoss / (watts + fullLoadLoss)',
      better: 'less',
    },
  ],
  weights: [
    { measure: 'idle', weight: 4 },
    { measure: 'average-efficiency', weight: 3 },
    { measure: 'mass-per-watt', weight: 2 },
    { measure: 'price-per-watt', weight: 1 },
  ],
};
const LOT: ComparisonBody = {
  title: '45 W, unit by unit',
  note: 'Is the lot of six alike, and is one unit bad?',
  rule: { ...EVERYTHING, kinds: ['wall'], watts: { from: 45, to: 45 }, oneUnit: false },
  measures: [
    { measure: 'idle', condition: EU },
    { measure: 'average-efficiency', condition: `four points, ${EU}` },
    { measure: 'full-load-loss', condition: EU },
    { measure: 'price', condition: 'EUR, paid' },
  ],
  own: [],
  weights: [],
};

/** Who stands in each, by serial: nobody has worked the figures out yet by which a rule tells them. */
const WALL_SERIALS = [
  'PT-75-3310',
  'TE-45-0117',
  'OB-65-0007',
  'GS-0450',
  'TE-65-0231',
  'PS-65-118',
  'GS-6502',
  'PD-2501',
  'QL-65-77',
  'QL-45-12',
];
const LOT_SERIALS = [
  'TE-45-0117',
  'TE-45-0868',
  'GS-0450',
  'PD-2501',
  'PD-2502',
  'PD-2503',
  'PD-2504',
  'PD-2505',
  'PD-2506',
  'QL-45-12',
];

async function idsOf(db: Database, serials: readonly string[]): Promise<readonly string[]> {
  const ids: string[] = [];
  for (const serial of serials) ids.push((await sampleOf(db, serial)) ?? '');
  return ids.sort();
}

export async function seedComparisons(db: Database): Promise<void> {
  await createComparison(db, LOT, await idsOf(db, LOT_SERIALS));
  await createComparison(db, WALL, await idsOf(db, WALL_SERIALS));
}
