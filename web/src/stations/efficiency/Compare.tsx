// Two series side by side: another loading, another day, or another sample; only where conditions match.
import type { SampleDossier } from '@lastmark/contract/types';
import {
  type Candidate,
  compareSeries,
  efficiencySeries,
  firstComparable,
  type Pair,
  type Side,
} from '@lastmark/core/efficiency';
import { takenOf } from '@lastmark/core/procedure';
import { fixed, formatMeasured } from '@lastmark/core/quantity';
import { mainsLabel } from '@lastmark/core/reading';
import { expandedUncertainty } from '@lastmark/core/uncertainty';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { dossierQuery } from '../../api/queries.ts';
import { EmptyFigure } from '../../parts/EmptyFigure.tsx';
import { Choice } from '../../parts/fields.tsx';
import { QueryGate } from '../../parts/QueryGate.tsx';
import { QuietTable } from '../../parts/QuietTable.tsx';
import { type Chosen, SampleField } from '../../parts/SampleField.tsx';
import { useSample } from '../../state/sample.tsx';
import { CurveChart } from './CurveChart.tsx';

interface Labelled extends Candidate {
  readonly label: string;
}

/** The series of one sample: each loading as a whole, and each day of it where it was taken on several. */
function candidates(dossier: SampleDossier, prefix: string): Labelled[] {
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
      const made = (id: string, label: string, points: typeof own): Labelled => ({
        id,
        label,
        pointIds: points.map((point) => point.id),
        side: side(label, points),
      });
      const whole = made(setup.id, `${prefix}${setup.name}`, own);
      const single = days.map((day) =>
        made(
          `${setup.id} ${day}`,
          `${prefix}${setup.name}, ${day}`,
          own.filter(({ takenAt }) => takenAt.startsWith(day)),
        ),
      );
      return days.length > 1 ? [whole, ...single] : [whole];
    })
    .filter(({ side }) => side.series.byMains.length > 0);
}

const loadText = (load: number | null): string =>
  load === null ? 'average of four' : `${Math.round(load * 100)} % load`;

const shown = (value: Pair['a']): string => formatMeasured(value.value, expandedUncertainty(value), 'efficiency');

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
  // Opens on two that can be compared, as far as nobody has chosen.
  const [first, second] =
    firstComparable(
      mine.filter(({ id }) => leftId === '' || id === leftId),
      theirs.filter(({ id }) => rightId === '' || id === rightId),
    ) ?? [];
  const left = mine.find(({ id }) => id === leftId) ?? first ?? mine[0];
  const right =
    theirs.find(({ id }) => id === rightId) ?? second ?? theirs.find(({ id }) => id !== left?.id) ?? theirs[0];
  if (!left) return <EmptyFigure says="Two curves side by side, as soon as a load point is complete." />;
  const result = right && right.id !== left.id ? compareSeries(left.side, right.side) : null;
  return (
    <>
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fit, minmax(270px, 1fr))', gap: 1.5, mb: 2 }}>
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
      {other.error && <QueryGate query={other} what="the other sample" />}
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
          <Box sx={{ mb: 1.5 }}>
            <CurveChart
              curves={[left, right].flatMap((one) =>
                (one?.side.series.byMains ?? []).map(({ mains, loads }) => ({
                  label: `${one?.label ?? ''}, ${mainsLabel(mains)}`,
                  points: loads.map(({ load, efficiency }) => ({
                    x: load * 100,
                    y: efficiency.value * 100,
                    u: expandedUncertainty(efficiency) * 100,
                  })),
                })),
              )}
              caption={`${left.label} and ${right?.label ?? ''}: efficiency against load`}
              title="Efficiency, %"
              unit="%"
              height={280}
              table={[
                ['mains', 'load', 'first_percent', 'second_percent', 'second_less_first_points'],
                ...result.pairs.map(({ mains, load, a, b, difference }) => [
                  mainsLabel(mains),
                  loadText(load),
                  a.value * 100,
                  b.value * 100,
                  difference.value * 100,
                ]),
              ]}
            />
          </Box>
          <QuietTable
            label="Comparison"
            rows={result.pairs}
            rowKey={({ mains, load }) => `${mainsLabel(mains)} ${load}`}
            columns={[
              { head: 'Mains', cell: ({ mains }) => mainsLabel(mains) },
              { head: 'At', cell: ({ load }) => (load === null ? <strong>{loadText(load)}</strong> : loadText(load)) },
              { head: left.label, unit: '%', number: true, cell: ({ a }) => shown(a) },
              { head: right?.label ?? '', unit: '%', number: true, cell: ({ b }) => shown(b) },
              {
                head: 'Second less first',
                unit: 'points',
                number: true,
                cell: ({ difference }) =>
                  `${fixed(difference.value * 100, 2)} ± ${fixed(expandedUncertainty(difference) * 100, 2)}`,
              },
              {
                head: '',
                cell: ({ differs, difference }) =>
                  differs ? <strong>{difference.value > 0 ? 'better' : 'worse'}</strong> : 'not told apart',
              },
            ]}
          />
          <Typography variant="body2" color="text.secondary" sx={{ mt: 1 }}>
            No spec says how much of a meter’s error is the same in both, so none of it is taken to cancel. A difference
            is called only where it exceeds its own uncertainty.
          </Typography>
        </>
      )}
    </>
  );
}
