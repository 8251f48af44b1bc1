// Months by their names.
const MONTHS = 'january february march april may june july august september october november december'.split(' ');
const LEAST_LETTERS = 3;

/** Number of a month by its English name, whole or its first letters; 0 for none. @example monthOf('Sept.') // 9 */
export function monthOf(name: string): number {
  const letters = name.replace(/\.$/, '').toLowerCase();
  return letters.length < LEAST_LETTERS ? 0 : MONTHS.findIndex((month) => month.startsWith(letters)) + 1;
}
