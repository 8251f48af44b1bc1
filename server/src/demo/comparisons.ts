// Two comparisons of the Fernwall shelf.
import type { ComparisonBody } from '@lastmark/contract';
import { EVERYTHING } from '@lastmark/core/compare';
import { createComparison } from '../compare/store.ts';
import type { Database } from '../db/database.ts';
import { workOutFigures } from '../shelf/figures.ts';

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
    { measure: 'own-season', condition: null },
  ],
  own: [{ id: 'own-season', title: 'Idle per watt', formula: 'idle / watts', better: 'less' }],
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

export async function seedComparisons(db: Database): Promise<void> {
  // Who stands in a set is told by its figures.
  while ((await workOutFigures(db, 100)) > 0);
  await createComparison(db, LOT, true);
  await createComparison(db, WALL, true);
}
