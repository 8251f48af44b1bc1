// The benches there are: named by instruments, and by the copies of the server beside them.
import type { BenchPlace } from '@lastmark/contract';
import type { Queries } from '../db/database.ts';
import { listInstruments } from './store.ts';

/** @param here the bench of this server @param others those of other servers that are there */
export async function benchPlaces(db: Queries, here: string, others: readonly string[]): Promise<BenchPlace[]> {
  const named = (await listInstruments(db)).flatMap(({ bench, address }) => (address === null ? [] : [bench]));
  const all = [...new Set([here, ...others, ...named])].sort();
  return all.map((name) => ({ name, here: name === here, there: name === here || others.includes(name) }));
}
