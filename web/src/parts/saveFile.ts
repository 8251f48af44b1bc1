// Hands a made file to the browser's downloads.
import type { Table } from '@lastmark/core/table';

export function saveFile(name: string, content: Blob): void {
  const url = URL.createObjectURL(content);
  const link = document.createElement('a');
  link.href = url;
  link.download = name.replace(/[\\/:*?"<>|]+/g, '-');
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 1000);
}

/** Save a table as CSV. */
export function saveTable(name: string, table: Table): void {
  // The CSV library is fetched when first wanted.
  void import('@lastmark/core/table').then(({ csvText }) =>
    saveFile(`${name}.csv`, new Blob([csvText(table)], { type: 'text/csv' })),
  );
}
