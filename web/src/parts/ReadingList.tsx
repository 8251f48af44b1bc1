// Readings as taken, superseded ones struck through, each with its files.
import { formatMeasured, quantityOf } from '@lastmark/core/quantity';
import { mainsLabel, type Point, type Reading, withAccuracies } from '@lastmark/core/reading';
import { expandedUncertainty, measured } from '@lastmark/core/uncertainty';
import Box from '@mui/material/Box';
import { useQuery } from '@tanstack/react-query';
import { namesQuery } from '../api/remarks.ts';
import { useSample } from '../state/sample.tsx';
import { Attachments } from './Attachments.tsx';
import { Witness } from './Witness.tsx';

const MOST_SHOWN = 40;

function shownValue({ value, u, quantity, typed }: Reading): string {
  if (value === null) return 'struck out';
  if (u === null) return `${typed}, accuracy not stated`;
  return u > 0 ? formatMeasured(value, expandedUncertainty(measured(value, u)), quantity) : typed;
}

function Line({ reading, superseded }: { readonly reading: Reading; readonly superseded: boolean }) {
  const { dossier } = useSample();
  const { data: names } = useQuery({ ...namesQuery, enabled: reading.author !== undefined });
  const name = names?.items.find(({ id }) => id === reading.author)?.name;
  const instrument = dossier.instruments.find(({ id }) => id === reading.instrumentId);
  return (
    <Box component="li" sx={{ mt: 0.5 }}>
      <Box component="span" sx={{ textDecoration: superseded ? 'line-through' : undefined }}>
        {quantityOf(reading.quantity).label} {reading.port ?? 'mains'}: {shownValue(reading)}
      </Box>{' '}
      <Box component="span" sx={{ color: 'text.secondary' }}>
        {superseded ? 'superseded · ' : ''}
        {reading.because ? `because ${reading.because} · ` : ''}
        {instrument?.name ?? 'no instrument'} · {reading.source}
        {reading.count > 1 ? ` · mean of ${reading.count}` : ''}
        {reading.overdue ? ' · ▼ calibration was overdue' : ''}
        {name && ` · by ${name}`}
      </Box>{' '}
      {!superseded && (
        <Witness
          sampleId={dossier.sample.id}
          about="reading"
          aboutId={reading.id}
          author={reading.author}
          name={`${quantityOf(reading.quantity).label} ${shownValue(reading)}`}
        />
      )}
      <Attachments owner="reading" ownerId={reading.id} compact />
    </Box>
  );
}

export function ReadingList({ points }: { readonly points: readonly Point[] }) {
  const { rigs, instruments } = useSample().dossier;
  const known = withAccuracies(points, rigs, instruments);
  const readings = known.flatMap((point) => point.readings.map((reading) => ({ point, reading })));
  const superseded = new Set(readings.map(({ reading }) => reading.supersedes));
  if (readings.length === 0) return null;
  return (
    <Box component="details" sx={{ mt: 0.5, fontSize: 13, '& summary': { cursor: 'pointer' } }}>
      <summary>{readings.length} readings behind it</summary>
      {known.slice(0, MOST_SHOWN).map((point) => (
        <Box key={point.id} sx={{ mt: 0.75 }}>
          <Box sx={{ color: 'text.secondary' }}>
            {mainsLabel(point.mains)}, {Math.round(point.load * 100)} %, {point.takenAt.slice(0, 16).replace('T', ' ')}{' '}
            UTC
          </Box>
          <Box component="ul" sx={{ m: 0, pl: 2 }}>
            {point.readings.map((reading) => (
              <Line
                key={reading.id}
                reading={reading}
                superseded={superseded.has(reading.id) || reading.value === null}
              />
            ))}
          </Box>
        </Box>
      ))}
    </Box>
  );
}
