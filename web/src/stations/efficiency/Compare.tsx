// Two series side by side: another loading, another day, or another sample; only where conditions match.
import type { SampleDossier } from '@lastmark/contract/types';
import { compareSeries, efficiencySeries, type Pair, type SeriesResult, type Side } from '@lastmark/core/efficiency';
import { takenOf } from '@lastmark/core/procedure';
import { fixed, formatMeasured } from '@lastmark/core/quantity';
import { mainsLabel } from '@lastmark/core/reading';
import { expandedUncertainty } from '@lastmark/core/uncertainty';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { dossierQuery } from '../../api/queries.ts';
import { Choice } from '../../parts/fields.tsx';
import { type Chosen, SampleField } from '../../parts/SampleField.tsx';
import { useSample } from '../../state/sample.tsx';

interface Candidate {
  readonly id: string;
  readonly label: string;
  readonly side: Side;
}

/** The series of one sample: each loading as a whole, and each day of it where it was taken on several. */
function candidates(dossier: SampleDossier, prefix: string): Candidate[] {
  return dossier.setups
    .filter(({ purpose }) => purpose === 'efficiency')
    .flatMap((setup) => {
      const own = dossier.points.filter((point) => point.setupId === setup.id && point.load > 0);
      const days = [...new Set(own.map(({ takenAt }) => takenAt.slice(0, 10)))].sort();
      const side = (name: string, points: typeof own): Side => {
        const warm = points.map((point) => takenOf(point, dossier.stated)?.warmUp ?? null);
        const known = warm.filter((one): one is number => one !== null);
        return {
          name,
          series: efficiencySeries(setup, points, dossier.rigs),
          rigId: points.at(-1)?.rigId ?? setup.rigId,
          warmUp: known.length > 0 ? Math.min(...known) : null,
        };
      };
      const whole = { id: setup.id, label: `${prefix}${setup.name}`, side: side(`${prefix}${setup.name}`, own) };
      const single = days.map((day) => {
        const label = `${prefix}${setup.name}, ${day}`;
        return {
          id: `${setup.id} ${day}`,
          label,
          side: side(
            label,
            own.filter(({ takenAt }) => takenAt.startsWith(day)),
          ),
        };
      });
      return days.length > 1 ? [whole, ...single] : [whole];
    })
    .filter(({ side }) => side.series.byMains.length > 0);
}

const loadText = (load: number | null): string =>
  load === null ? 'average of four' : `${Math.round(load * 100)} % load`;

function Row({ pair }: { readonly pair: Pair }) {
  const shown = (value: SeriesResult['byMains'][number]['average']) =>
    value ? formatMeasured(value.value, expandedUncertainty(value), 'efficiency') : '–';
  const points = pair.difference.value * 100;
  const expanded = expandedUncertainty(pair.difference) * 100;
  return (
    <TableRow>
      <TableCell>{mainsLabel(pair.mains)}</TableCell>
      <TableCell sx={{ fontWeight: pair.load === null ? 600 : 400 }}>{loadText(pair.load)}</TableCell>
      <TableCell align="right">{shown(pair.a)}</TableCell>
      <TableCell align="right">{shown(pair.b)}</TableCell>
      <TableCell align="right">
        {points > 0 ? '+' : ''}
        {fixed(points, 2)} ± {fixed(expanded, 2)} points
      </TableCell>
      <TableCell sx={{ fontWeight: pair.differs ? 600 : 400 }}>
        {pair.differs ? (points > 0 ? 'better' : 'worse') : 'not told apart'}
      </TableCell>
    </TableRow>
  );
}

export function Compare() {
  const { dossier } = useSample();
  const [chosen, setChosen] = useState<Chosen | null>(null);
  const otherId = chosen?.id ?? dossier.sample.id;
  const other = useQuery(dossierQuery(otherId));
  const [leftId, setLeftId] = useState('');
  const [rightId, setRightId] = useState('');
  const foreign = otherId !== dossier.sample.id;
  const nameOf = ({ sample }: SampleDossier) => `${sample.model.model} ${sample.unit.serial || sample.tag}: `;
  const mine = candidates(dossier, foreign ? nameOf(dossier) : '');
  const theirs = other.data ? candidates(other.data, foreign ? nameOf(other.data) : '') : [];
  const left = mine.find(({ id }) => id === leftId) ?? mine[0];
  const right = theirs.find(({ id }) => id === rightId) ?? theirs.find(({ id }) => id !== left?.id) ?? theirs[0];
  if (!left) return <Typography color="text.secondary">Nothing to compare until a load point is complete.</Typography>;
  const result = right && right.id !== left.id ? compareSeries(left.side, right.side) : null;
  return (
    <>
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, minmax(0, 1fr))', gap: 1.5, mb: 2 }}>
        <Choice
          label="Compare"
          value={left.id}
          options={mine.map(({ id, label }) => ({ value: id, label }))}
          onChange={setLeftId}
        />
        <SampleField label="with the sample (empty: this one)" chosen={chosen} onChoose={setChosen} />
        <Choice
          label="its series"
          value={right?.id ?? ''}
          options={theirs.map(({ id, label }) => ({ value: id, label }))}
          onChange={setRightId}
          more={{ disabled: theirs.length === 0 }}
        />
      </Box>
      {other.isPending && <Typography color="text.secondary">Fetching the other sample …</Typography>}
      {other.error && <Alert severity="error">{other.error.message}</Alert>}
      {other.data && !result && (
        <Alert severity="info">
          {theirs.length === 0 ? 'That sample has no complete load point yet.' : 'Choose two different series.'}
        </Alert>
      )}
      {result && result.unlike.length > 0 && (
        <Alert severity={result.pairs.length === 0 ? 'warning' : 'info'} sx={{ mb: 1.5 }}>
          {result.pairs.length === 0 && 'Not comparable. '}
          {result.unlike.join(' ')}
        </Alert>
      )}
      {result && result.pairs.length > 0 && (
        <>
          <Table size="small" aria-label="Comparison" sx={{ '& td': { whiteSpace: 'nowrap' } }}>
            <TableHead>
              <TableRow>
                {['Mains', 'At', left.label, right?.label ?? '', 'Second less first', ''].map((head, index) => (
                  <TableCell key={head || 'word'} align={index > 1 && index < 5 ? 'right' : 'left'}>
                    {head}
                  </TableCell>
                ))}
              </TableRow>
            </TableHead>
            <TableBody>
              {result.pairs.map((pair) => (
                <Row key={`${mainsLabel(pair.mains)} ${pair.load}`} pair={pair} />
              ))}
            </TableBody>
          </Table>
          <Typography variant="body2" color="text.secondary" sx={{ mt: 1 }}>
            No spec says how much of a meter’s error is the same in both, so none of it is taken to cancel. A difference
            is called only where it exceeds its own uncertainty.
          </Typography>
        </>
      )}
    </>
  );
}
