// What happened to the sample so far: taken in, measured, its units.
import type { StoredReport } from '@lastmark/contract/types';
import { lifeOf, measureAbout, measureWords } from '@lastmark/core/measure';
import { currentRuns } from '@lastmark/core/run';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useMemo } from 'react';
import { Link } from 'react-router';
import { apiUrl } from '../../api/world.ts';
import { useSample } from '../../state/sample.tsx';

const day = (iso: string): string => iso.slice(0, 10);

/** What changed over its life by more than the uncertainty, and what did not. */
function Life() {
  const { dossier } = useSample();
  const told = useMemo(() => lifeOf({ ...dossier, sample: dossier.sample.model }), [dossier]);
  if (told.length === 0) return null;
  const changed = told.filter(({ change }) => change.changed);
  const same = told.length - changed.length;
  return (
    <>
      {changed.map(({ measure, condition, first, last, change }) => (
        <Typography key={`${measure} ${condition}`} sx={{ fontWeight: 600 }}>
          {measureAbout(measure).title} changed: {measureWords(measureAbout(measure), first)} on {change.from},{' '}
          {measureWords(measureAbout(measure), last)} on {change.to}, {condition}
        </Typography>
      ))}
      {same > 0 && (
        <Typography>
          {same === 1 ? 'One measure' : `${same} measures`} taken on several days did not change by more than the
          uncertainty.
        </Typography>
      )}
    </>
  );
}

/** What was issued of it, the newest last. */
function Issued({ reports }: { readonly reports: readonly StoredReport[] }) {
  const inOrder = [...reports].reverse();
  return (
    <Typography>
      Reports:{' '}
      {inOrder.map(({ id, code, issuedAt, fate, kind }, at) => (
        <span key={id}>
          {at > 0 && ' · '}
          <a href={apiUrl(`/reports/${id}/report.pdf`)} target="_blank" rel="noreferrer">
            {code}
          </a>{' '}
          of {day(issuedAt)}
          {kind === 'correction' ? ', a correction' : fate ? `, ${fate}` : ''}
        </span>
      ))}
    </Typography>
  );
}

export function History({ reports }: { readonly reports: readonly StoredReport[] }) {
  const { dossier } = useSample();
  const { sample, points, runs, captures, readOuts, cableRuns, checks } = dossier;
  const taken = [...points, ...runs, ...captures, ...readOuts, ...cableRuns, ...currentRuns(checks)]
    .map(({ takenAt }) => takenAt)
    .sort();
  const [first, last] = [taken[0], taken.at(-1)];
  const others = sample.units.filter(({ id }) => id !== sample.id);
  const { obtained, revision, dateCode } = sample.unit;
  return (
    <Box component="section" aria-label="History" sx={{ mb: 2.5 }}>
      <Typography variant="h2" sx={{ mb: 0.5 }}>
        History
      </Typography>
      <Typography>
        {[
          `${obtained}, on the shelf since ${day(sample.createdAt)}`,
          revision && `revision ${revision}`,
          dateCode && `date code ${dateCode}`,
          first && last ? `measured from ${day(first)} to ${day(last)}` : 'nothing measured yet',
        ]
          .filter(Boolean)
          .join(' · ')}
      </Typography>
      {others.length > 0 && (
        <Typography>
          Other units:{' '}
          {others.map(({ id, serial, tag }, at) => (
            <span key={id}>
              {at > 0 && ', '}
              <Link to={`/samples/${id}/verdict`}>{serial || tag}</Link>
            </span>
          ))}
        </Typography>
      )}
      <Life />
      {reports.length > 0 && <Issued reports={reports} />}
    </Box>
  );
}
