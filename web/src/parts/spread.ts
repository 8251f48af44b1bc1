// A block of cells from a spreadsheet laid over a grid, and units typed once for a column.

/**
 * The cells of a copied block, row by row. Tabs part them; a file's semicolons do where there is no tab.
 * @example cellsOf('1\t2\n3\t4') // [['1', '2'], ['3', '4']]
 */
export function cellsOf(text: string): string[][] {
  const lines = text.replace(/\r\n?/g, '\n').replace(/\n+$/, '').split('\n');
  const sign = text.includes('\t') ? '\t' : ';';
  return lines.map((line) => line.split(sign).map((cell) => cell.trim()));
}

/**
 * Where each cell of a block goes when its first one is put at a place: to the right and downwards. Places a grid leaves
 * empty take nothing, nor does what stands beyond its edge; an empty cell leaves what is there.
 * @param grid ids of the cells, row by row; null where the grid has none
 * @returns id and text, in the order of reading
 */
export function placed(
  grid: readonly (readonly (string | null)[])[],
  at: string,
  block: readonly (readonly string[])[],
): [id: string, text: string][] {
  const top = grid.findIndex((row) => row.includes(at));
  const left = grid[top]?.indexOf(at) ?? -1;
  if (top < 0 || left < 0) return [];
  return block.flatMap((row, down) =>
    row.flatMap((text, right): [string, string][] => {
      const id = grid[top + down]?.[left + right];
      return id && text !== '' ? [[id, text]] : [];
    }),
  );
}

/**
 * A number with the unit its column has; what was typed with a unit keeps its own.
 * @example withUnit('2250', 'mA') // '2250 mA'
 */
export const withUnit = (typed: string, unit: string): string =>
  unit !== '' && /\d\s*$/.test(typed) ? `${typed.trim()} ${unit}` : typed;
