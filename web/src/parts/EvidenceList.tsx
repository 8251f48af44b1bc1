// What stands behind a claim's state: each test with its limit band, and the readings it rests on.
import { type ClaimResult, type ClaimTest, shownTest } from '@lastmark/core/claim';
import { formatPlain, formatProbability } from '@lastmark/core/quantity';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useSample } from '../state/sample.tsx';
import { NotStated } from './NotStated.tsx';
import { ReadingList } from './ReadingList.tsx';
import { StateMark } from './StateMark.tsx';
import { TestBand } from './TestBand.tsx';

const EVIDENCE_WORDS: Readonly<Record<string, string>> = {
  load: 'electronic load',
  device: 'device',
  wall: 'wall meter',
  display: 'display',
};

export function limitWords({ limit, quantity }: Pick<ClaimTest, 'limit' | 'quantity'>): string {
  if (limit.kind === 'at-least') return `at least ${formatPlain(limit.low, quantity)}`;
  if (limit.kind === 'at-most') return `at most ${formatPlain(limit.high, quantity)}`;
  return `${formatPlain(limit.low, quantity)} to ${formatPlain(limit.high, quantity)}`;
}

function Test({ test }: { readonly test: ClaimTest }) {
  const { dossier } = useSample();
  const points = dossier.points.filter(({ id }) => test.evidence.pointIds.includes(id));
  const runs = dossier.runs.filter(({ id }) => test.evidence.pointIds.includes(id));
  const probability = test.probability === null ? '' : ` · ${formatProbability(test.probability)} likely to conform`;
  return (
    <Box component="li" sx={{ mt: 1.25 }}>
      <Box sx={{ display: 'flex', justifyContent: 'space-between', gap: 1, flexWrap: 'wrap' }}>
        <strong>{shownTest(test)}</strong>
        <StateMark state={test.state} />
      </Box>
      <TestBand test={test} />
      <Typography variant="body2" color="text.secondary">
        {limitWords(test)} · {test.evidence.conditions} · {EVIDENCE_WORDS[test.evidence.kind] ?? test.evidence.kind}
        {probability}
      </Typography>
      <ReadingList points={points} />
      {runs.map(({ id, kind, port, takenAt, note }) => (
        <Typography key={id} variant="body2">
          {kind} run on {port}, {takenAt.slice(0, 16).replace('T', ' ')}
          {note && `: ${note}`}
        </Typography>
      ))}
    </Box>
  );
}

interface Props {
  readonly result: ClaimResult;
  readonly printed: string;
}

export function EvidenceList({ result, printed }: Props) {
  return (
    <>
      <Typography variant="body2" color="text.secondary">
        Printed: {printed}
      </Typography>
      <NotStated unstated={result.unstated} />
      {result.notes.map((note) => (
        <Typography key={note} variant="body2" sx={{ mt: 0.5 }}>
          {note}
        </Typography>
      ))}
      {result.tests.length === 0 && (
        <Typography variant="body2" sx={{ mt: 0.5 }}>
          {result.besides?.length
            ? `No reading puts this to the test. Read otherwise: ${result.besides.join('; ')}.`
            : 'No reading stands behind this yet.'}
        </Typography>
      )}
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {result.tests.map((test, index) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: the same test may be met twice
          <Test key={index} test={test} />
        ))}
      </Box>
    </>
  );
}
