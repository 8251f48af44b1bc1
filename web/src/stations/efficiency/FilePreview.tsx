// What a meter file amounts to: one row a load point.
import { type FileReading, type FileValue, isDrifting } from '@lastmark/core/meter-file';
import { fixed, formatPlain, type QuantityId } from '@lastmark/core/quantity';
import { mainsLabel } from '@lastmark/core/reading';
import Box from '@mui/material/Box';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';

const QUANTITY_OF: Record<FileValue['role'], QuantityId> = {
  'input-watts': 'power',
  'power-factor': 'power-factor',
  'output-volts': 'voltage',
  'output-amps': 'current',
  'output-watts': 'power',
};

const LABEL_OF: Record<FileValue['role'], string> = {
  'input-watts': 'in',
  'power-factor': 'PF',
  'output-volts': '',
  'output-amps': '',
  'output-watts': 'out',
};

const words = ({ role, port, mean }: FileValue): string =>
  [port, LABEL_OF[role], formatPlain(mean, QUANTITY_OF[role])].filter(Boolean).join(' ');

export function FilePreview({ reading }: { readonly reading: FileReading }) {
  return (
    <Table size="small" aria-label="Points found" sx={{ my: 1 }}>
      <TableHead>
        <TableRow>
          {['Mains', 'Load', 'Lines', 'Mean values'].map((head) => (
            <TableCell key={head}>{head}</TableCell>
          ))}
        </TableRow>
      </TableHead>
      <TableBody>
        {reading.points.map((point) => (
          <TableRow key={`${mainsLabel(point.mains)} ${point.load}`}>
            <TableCell>{mainsLabel(point.mains)}</TableCell>
            <TableCell>{Math.round(point.load * 100)} %</TableCell>
            <TableCell>
              {point.lines}
              {isDrifting(point) && (
                <Box component="span" sx={{ fontWeight: 600, color: 'warning.main' }}>
                  {' '}
                  ▲ drifts {fixed((point.drift ?? 0) * 100, 1)} %
                </Box>
              )}
            </TableCell>
            <TableCell>{point.values.map(words).join(' · ')}</TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Table>
  );
}
