// A chart with its caption, saved as a picture or as the data behind it.
import type { Table } from '@lastmark/core/table';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useTheme } from '@mui/material/styles';
import type { Chart, ChartType } from 'chart.js';
import type { ReactNode, RefObject } from 'react';
import { saveFile, saveTable } from './saveFile.ts';

interface Props<T extends ChartType> {
  // biome-ignore lint/suspicious/noExplicitAny: charts differ in their data; only the canvas is used
  readonly chart: RefObject<Chart<T, any> | null>;
  readonly caption: string;
  /** The data behind it, heads first. */
  readonly table: Table;
  readonly height?: number;
  readonly children: ReactNode;
}

export function Figure<T extends ChartType>({ chart, caption, table, height = 320, children }: Props<T>) {
  const { palette, typography } = useTheme();
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
  const saveData = () => saveTable(caption, table);
  return (
    <Box
      component="figure"
      sx={{ m: 0, p: 1.5, border: 1, borderColor: 'divider', borderRadius: 1, bgcolor: 'background.paper' }}
    >
      <Box sx={{ height }}>{children}</Box>
      <Box
        component="figcaption"
        sx={{ display: 'flex', alignItems: 'center', gap: 1, color: 'text.secondary', fontSize: 13 }}
      >
        <Box sx={{ flex: 1 }}>{caption}</Box>
        <Button size="small" onClick={savePicture}>
          Save as PNG
        </Button>
        <Button size="small" onClick={saveData}>
          Save as CSV
        </Button>
      </Box>
    </Box>
  );
}
