// What stands on the safety page: readings on their bands, output to earth, fit, ports after stress, marks.
import { formatPlain } from '@lastmark/core/quantity';
import {
  type BondResult,
  type FitResult,
  LEVER,
  type MarkResult,
  type SafetyConclusion,
  type SafetyJudged,
  type SafetyReading,
  stateSays,
} from '@lastmark/core/safety';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { LimitBand } from '../../parts/LimitBand.tsx';
import { QuietTable } from '../../parts/QuietTable.tsx';
import { isLoud, StateMark } from '../../parts/StateMark.tsx';
import { useSample } from '../../state/sample.tsx';

interface PartProps {
  readonly title: string;
  /** A table in it has the name already. */
  readonly tabled?: boolean;
  readonly children: ReactNode;
}

function Part({ title, tabled = false, children }: PartProps) {
  return (
    <Box component={tabled ? 'div' : 'section'} {...(tabled ? null : { 'aria-label': title })} sx={{ mt: 2 }}>
      <Typography variant="h2" sx={{ mb: 0.75 }}>
        {title}
      </Typography>
      {children}
    </Box>
  );
}

interface Row {
  readonly reading: SafetyReading;
  readonly judged: SafetyJudged | null;
  /** The first line of its reading, which says what was read. */
  readonly first: boolean;
}

export function Readings({ title, readings }: { readonly title: string; readonly readings: readonly SafetyReading[] }) {
  if (readings.length === 0) return null;
  const rows = readings.flatMap((reading): Row[] =>
    reading.judged.length === 0
      ? [{ reading, judged: null, first: true }]
      : reading.judged.map((judged, at) => ({ reading, judged, first: at === 0 })),
  );
  return (
    <Part title={title} tabled>
      <QuietTable<Row>
        label={title}
        rows={rows}
        rowKey={({ reading, judged }) => `${reading.checkId} ${judged?.title ?? ''}`}
        exception={({ judged }) => judged !== null && isLoud(judged.state)}
        columns={[
          {
            head: 'Read',
            cell: ({ reading, first }) =>
              first && (
                <>
                  <Box sx={{ fontSize: 17, fontWeight: 600 }}>{reading.words}</Box>
                  <Box sx={{ fontSize: 13, fontWeight: 400, color: 'text.secondary' }}>
                    {reading.conditions} · {reading.by}
                  </Box>
                </>
              ),
            empty: '',
          },
          { head: 'Limit', cell: ({ judged }) => judged?.title, empty: 'none chosen at Rules' },
          {
            head: 'At most',
            cell: ({ reading, judged }) =>
              judged && (
                <Box sx={{ display: 'flex', gap: 1, alignItems: 'center', whiteSpace: 'nowrap' }}>
                  <LimitBand
                    value={
                      judged.because === '' || judged.known.low > Number.NEGATIVE_INFINITY
                        ? reading.measured.value
                        : null
                    }
                    known={judged.known}
                    words={reading.words}
                    limit={judged.limit}
                    quantity={reading.quantity}
                  />
                  {judged.limit.kind === 'at-most' && formatPlain(judged.limit.high, reading.quantity, reading.unit)}
                </Box>
              ),
            empty: '',
          },
          {
            head: 'So',
            cell: ({ judged }) =>
              judged && (
                <>
                  <StateMark state={judged.state} word={stateSays(judged.state)} />
                  {judged.because && <Box sx={{ fontSize: 13, color: 'text.secondary' }}>{judged.because}</Box>}
                </>
              ),
            empty: '',
          },
        ]}
      />
    </Part>
  );
}

interface BondsProps {
  readonly bonds: readonly BondResult[];
  readonly means: SafetyConclusion['means'];
}

export function Bonds({ bonds, means }: BondsProps) {
  if (bonds.length === 0) return null;
  return (
    <Part title="Output to earth">
      <Typography sx={{ fontSize: 17, fontWeight: 600 }}>{bonds.map(({ words }) => words).join(' · ')}</Typography>
      {means.map(({ bond, sentence }) => (
        <Typography key={bond}>{sentence}</Typography>
      ))}
    </Part>
  );
}

export function Fit({ fit, mass }: { readonly fit: FitResult | null; readonly mass: number | null }) {
  if (!fit) return null;
  const { hold, lever, limit, over, state } = fit;
  return (
    <Part title="Fit in the socket">
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', flexWrap: 'wrap' }}>
        <Typography sx={{ fontSize: 17, fontWeight: 600 }}>
          Sits {hold}
          {lever !== null && `, bears ${lever.toFixed(3)} N·m on the socket`}
        </Typography>
        {lever !== null && (
          <LimitBand
            value={lever}
            known={{ low: lever, high: lever }}
            words={`${lever.toFixed(3)} N·m`}
            limit={limit}
            quantity="power-factor"
          />
        )}
        <StateMark state={state} word={state === 'short' ? (over ? 'over' : `sits ${hold}`) : 'within'} />
      </Box>
      <Typography variant="body2" color="text.secondary">
        {lever !== null
          ? `At most ${LEVER.most} N·m: ${LEVER.source}.`
          : mass === null
            ? 'What it bears on the socket needs its mass, at Intake, and where its centre of gravity hangs.'
            : 'Where its centre of gravity hangs, in mm from the socket, tells what it bears on it.'}
      </Typography>
    </Part>
  );
}

/** Ports proved again after a soak or an overload. */
export function Again() {
  const { dossier, verdict } = useSample();
  const { again } = verdict.results.safety;
  if (!again || again.lines.length === 0) return null;
  const due = again.lines.filter(({ done }) => !done);
  const weak = again.lines.filter(({ done, state }) => done && state === 'short');
  return (
    <Part title="Ports after the last stress" tabled>
      <QuietTable
        label="Ports after the last stress"
        rows={again.lines}
        rowKey={({ step }) => JSON.stringify(step)}
        exception={({ done, state }) => done && state === 'short'}
        columns={[
          {
            head: 'Port',
            cell: ({ step }) => step.outputs.map(({ port, volts, amps }) => `${port} ${volts} V ${amps} A`).join(' + '),
          },
          { head: `Since ${again.since.slice(0, 16).replace('T', ' ')} UTC`, cell: ({ sentence }) => sentence },
        ]}
      />
      <Typography sx={{ mt: 0.5 }}>
        {weak.length > 0 && <strong>A port gives less than before: a finding. </strong>}
        {due.length > 0 && (
          <>
            {due.length === 1 ? 'One port is' : `${due.length} ports are`} still to be proved again,{' '}
            <Link to={`/samples/${dossier.sample.id}/proof`}>at Proof</Link>.
          </>
        )}
      </Typography>
    </Part>
  );
}

export function Marks({ marks }: { readonly marks: readonly MarkResult[] }) {
  if (marks.length === 0) return null;
  return (
    <Part title="Marks" tabled>
      <QuietTable<MarkResult>
        label="Marks"
        rows={marks}
        rowKey={({ checkId, mark }) => checkId ?? mark}
        columns={[
          { head: 'Mark', cell: ({ mark }) => mark },
          { head: 'Seen on', cell: ({ printed }) => printed },
          { head: 'So', cell: ({ sentence }) => sentence },
        ]}
      />
    </Part>
  );
}
