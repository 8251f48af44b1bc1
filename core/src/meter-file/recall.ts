// A mapping that was corrected once, for the next file with the same heads.
import Papa from 'papaparse';
import { headerParts } from '../table/index.ts';
import type { FilePlan } from './sniff.ts';

/**
 * Units as a file writes them, by column: behind its names, or in a line of units below them. Empty where it says none.
 * @param text the file, or its beginning
 */
export function writtenUnits(text: string, { delimiter, headerLine, columns }: FilePlan): readonly string[] {
  const rows = Papa.parse<string[]>(text.replace(/^\ufeff/, ''), { delimiter, preview: headerLine }).data;
  const last = rows[headerLine - 1] ?? [];
  const above = rows[headerLine - 2] ?? [];
  return columns.map(({ name }, index) => {
    const cell = last[index] ?? '';
    // A line of units stands below the names: the names are then the line above.
    const own = headerParts(above[index] ?? '').name === name && headerParts(cell).name !== name;
    return own ? cell.replace(/[[\]()\s]/g, '') : headerParts(cell).unit;
  });
}

/**
 * What was found of a file, with the roles of a remembered mapping. A unit the file itself writes holds, and so does what
 * its loads are told by their size; where it is silent, the remembered unit does. Where the header stands and how numbers
 * look is this file's own.
 * @param ports of the outputs now; a column of a port that is not among them goes to the first
 */
export function recall(found: FilePlan, known: FilePlan, text: string, ports: readonly string[]): FilePlan {
  if (known.columns.length !== found.columns.length) return found;
  const units = writtenUnits(text, found);
  return {
    ...found,
    columns: known.columns.map((column, index) => {
      const own = found.columns[index];
      const says = own?.role === column.role && (units[index] !== '' || column.role === 'load');
      const port = column.port !== null && !ports.includes(column.port) ? (ports[0] ?? null) : column.port;
      return { ...column, port, unit: says ? own.unit : column.unit };
    }),
  };
}
