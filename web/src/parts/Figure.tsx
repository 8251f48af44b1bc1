// A picture with its caption: read as numbers, saved as a picture or as the data behind it.
import { fixed } from '@lastmark/core/quantity';
import type { Table } from '@lastmark/core/table';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useTheme } from '@mui/material/styles';
import type { Chart, ChartType } from 'chart.js';
import { type ReactNode, type RefObject, useState } from 'react';
import { CAPTION_HEIGHT } from './heights.ts';
import { QuietTable } from './QuietTable.tsx';
import { saveFile, saveTable } from './saveFile.ts';

interface Props<T extends ChartType> {
  // biome-ignore lint/suspicious/noExplicitAny: charts differ in their data; only the canvas is used
  readonly chart: RefObject<Chart<T, any> | null>;
  readonly caption: string;
  /** The data behind it, heads first; as a function where there is much of it, asked when somebody wants to see it. */
  readonly table: Table | (() => Table);
  readonly height?: number;
  readonly children: ReactNode;
}

const cellText = (cell: Table[number][number] | undefined): string =>
  typeof cell === 'number'
    ? fixed(cell, 4)
        .replace(/(\.\d*?)0+$/, '$1')
        .replace(/\.$/, '')
    : String(cell ?? '');

const tableOf = (table: Props<never>['table']): Table => (typeof table === 'function' ? table() : table);

/** The picture for those who read: every number it is drawn from. */
function Numbers({ caption, table }: Pick<Props<never>, 'caption' | 'table'>) {
  const [heads = [], ...rows] = tableOf(table);
  const keyed = rows.map((row, index) => ({ row, key: String(index) }));
  return (
    <QuietTable<(typeof keyed)[number]>
      label={`Numbers of ${caption}`}
      height={320}
      rows={keyed}
      rowKey={({ key }) => key}
      columns={heads.map((head, at) => ({
        head: String(head).replaceAll('_', ' '),
        number: rows.every((row) => typeof row[at] === 'number' || row[at] == null),
        cell: ({ row }) => cellText(row[at]),
      }))}
    />
  );
}

export function Figure<T extends ChartType>({ chart, caption, table, height = 320, children }: Props<T>) {
  const { palette, typography } = useTheme();
  const [asNumbers, setAsNumbers] = useState(false);
  const savePicture = () => {
    const source = chart.current?.canvas;
    if (!source) return;
    const canvas = document.createElement('canvas');
    const line = Math.round(source.width / 32);
    canvas.width = source.width;
    canvas.height = source.height + line * 2;
    const context = canvas.getContext('2d');
    if (!context) return;
    context.fillStyle = palette.background.paper;
    context.fillRect(0, 0, canvas.width, canvas.height);
    context.drawImage(source, 0, 0);
    context.fillStyle = palette.text.primary;
    context.font = `${line * 0.8}px ${typography.fontFamily}`;
    context.fillText(caption, line, source.height + line);
    canvas.toBlob((blob) => blob && saveFile(`${caption}.png`, blob));
  };
  const saveData = () => saveTable(caption, tableOf(table));
  return (
    <Box
      component="figure"
      sx={{
        m: 0,
        p: 1.5,
        pb: 0.5,
        minWidth: 0,
        border: 1,
        borderColor: 'divider',
        borderRadius: 1,
        bgcolor: 'background.paper',
      }}
    >
      <Box sx={{ height, position: 'relative', minWidth: 0, overflow: 'hidden' }}>{children}</Box>
      <Box
        component="figcaption"
        sx={{
          display: 'flex',
          flexWrap: 'wrap',
          alignItems: 'center',
          minHeight: CAPTION_HEIGHT,
          columnGap: 0.5,
          color: 'text.secondary',
          fontSize: 13,
        }}
      >
        <Box sx={{ flex: '1 1 240px' }}>{caption}</Box>
        <Button size="small" aria-expanded={asNumbers} onClick={() => setAsNumbers(!asNumbers)}>
          Numbers
        </Button>
        <Button size="small" onClick={savePicture}>
          Save as PNG
        </Button>
        <Button size="small" onClick={saveData}>
          Save as CSV
        </Button>
      </Box>
      {asNumbers && <Numbers caption={caption} table={table} />}
    </Box>
  );
}
