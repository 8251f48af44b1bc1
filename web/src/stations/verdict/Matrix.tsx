// Claims by the station that settles them and by state: what fell short stands out, what is open leads to where it is settled.
import { stateWord } from '@lastmark/core/station';
import { claimMatrix, type MatrixRow, settlesMost, statesIn } from '@lastmark/core/verdict';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';
import { QuietTable } from '../../parts/QuietTable.tsx';
import { isLoud, StateMark } from '../../parts/StateMark.tsx';
import { useSample } from '../../state/sample.tsx';

const MOST_SHOWN = 3;

export function Matrix() {
  const { dossier, verdict } = useSample();
  const matrix = claimMatrix(dossier, verdict);
  if (matrix.length === 0) return null;
  const states = statesIn(matrix);
  const next = settlesMost(matrix).slice(0, MOST_SHOWN);
  return (
    <Box component="section" aria-label="Claims by station" sx={{ minWidth: 0 }}>
      <QuietTable<MatrixRow>
        label="Claims by station and state"
        rows={matrix}
        rowKey={({ station }) => station}
        exception={({ counts }) => (counts.short ?? 0) + (counts.unreachable ?? 0) > 0}
        columns={[
          {
            head: 'Settled at',
            cell: ({ station, title }) =>
              station === '' ? title : <Link to={`/samples/${dossier.sample.id}/${station}`}>{title}</Link>,
          },
          ...states.map((state) => ({
            head: stateWord(state),
            cell: ({ counts }: MatrixRow) =>
              counts[state] === undefined ? null : (
                <Box component="span" sx={{ fontWeight: isLoud(state) ? 700 : 500 }}>
                  <StateMark state={state} bare /> {counts[state]}
                </Box>
              ),
            empty: '·',
          })),
        ]}
      />
      {next.length > 0 && (
        <Typography sx={{ mt: 1 }}>
          Settles most next:{' '}
          {next.map(({ station, title, claims }, at) => (
            <span key={station}>
              {at > 0 && ', '}
              <Link to={`/samples/${dossier.sample.id}/${station}`}>{title}</Link> ({claims}{' '}
              {claims === 1 ? 'claim' : 'claims'})
            </span>
          ))}
          . <a href="#next">What to measure next</a>
        </Typography>
      )}
    </Box>
  );
}
