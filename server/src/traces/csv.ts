// A trace as CSV, piece by piece, so that no text of it is ever whole.
import { CHANNEL_UNITS, timeAt } from '@lastmark/core/trace';
import type { Queries } from '../db/database.ts';
import { readTrace } from './store.ts';

const LINES_A_PIECE = 50_000;
const cell = (text: string): string => (/[",\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text);

/** Heads with units, then a line a sample; empty where nothing was told. */
export async function traceCsv(db: Queries, id: string): Promise<Uint8Array> {
  const trace = await readTrace(db, id);
  const { channels, samples } = trace;
  const heads = channels.map(
    ({ name, quantity, unit }) =>
      `${name} [${quantity ? (quantity === 'level' ? '-' : CHANNEL_UNITS[quantity]) : unit}]`,
  );
  const pieces: Uint8Array[] = [new TextEncoder().encode(`${['time [s]', ...heads].map(cell).join(',')}\r\n`)];
  for (let from = 0; from < samples; from += LINES_A_PIECE) {
    let text = '';
    for (let at = from; at < Math.min(samples, from + LINES_A_PIECE); at += 1) {
      text += Number(timeAt(trace, at).toPrecision(12));
      for (const { values } of channels) {
        const value = values[at] as number;
        text += Number.isNaN(value) ? ',' : `,${Number(value.toPrecision(7))}`;
      }
      text += '\r\n';
    }
    pieces.push(new TextEncoder().encode(text));
  }
  const all = new Uint8Array(pieces.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const piece of pieces) {
    all.set(piece, at);
    at += piece.length;
  }
  return all;
}
