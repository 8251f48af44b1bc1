// What a meter file amounts to: one row a load point.
import { type FilePoint, type FileReading, type FileValue, isDrifting, momentOf } from '@lastmark/core/meter-file';
import { fixed, formatPlain, type QuantityId } from '@lastmark/core/quantity';
import { mainsLabel } from '@lastmark/core/reading';
import Box from '@mui/material/Box';
import { QuietTable } from '../../parts/QuietTable.tsx';
import { offsetOf } from './useMeterFile.ts';

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

/** When its lines were taken, in universal time as everywhere. */
function takenWords({ taken }: FilePoint, { clock }: FileReading, file: File): string {
  if (!taken || !clock) return '';
  const [from = '', to = ''] = [taken.from, taken.to].map((seconds) => {
    const at = momentOf(seconds, clock.base, clock.last, new Date(file.lastModified).toISOString(), offsetOf(file));
    return at.slice(0, 16).replace('T', ' ');
  });
  return from === to ? from : `${from} to ${to.slice(0, 10) === from.slice(0, 10) ? to.slice(11) : to}`;
}

export function FilePreview({ reading, file }: { readonly reading: FileReading; readonly file: File }) {
  return (
    <Box sx={{ my: 1 }}>
      <QuietTable
        label="Points found"
        rows={reading.points}
        rowKey={(point) => `${mainsLabel(point.mains)} ${point.load}`}
        exception={isDrifting}
        columns={[
          { head: 'Mains', cell: (point) => mainsLabel(point.mains) },
          { head: 'Load', unit: '%', number: true, cell: (point) => String(Math.round(point.load * 100)) },
          {
            head: 'Lines',
            cell: (point) => (
              <>
                {point.lines}
                {isDrifting(point) && (
                  <Box component="span" sx={{ fontWeight: 600, color: 'warning.main' }}>
                    {' '}
                    ▲ drifts {fixed((point.drift ?? 0) * 100, 1)} %
                  </Box>
                )}
              </>
            ),
          },
          ...(reading.clock
            ? [{ head: 'Taken, UTC', cell: (point: FilePoint) => takenWords(point, reading, file), empty: 'not told' }]
            : []),
          { head: 'Mean values', cell: (point) => point.values.map(words).join(' · ') },
        ]}
      />
    </Box>
  );
}
