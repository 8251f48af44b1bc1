// The rule behind the readings, over the port face; what stays open; and which ports keep power when others come.

import { pairsOf, setKey, steadyPorts } from '@lastmark/core/split';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { EmptyFigure } from '../../parts/EmptyFigure.tsx';
import { QuietTable } from '../../parts/QuietTable.tsx';
import { useSample } from '../../state/sample.tsx';
import { breakWords } from './breakWords.ts';
import { SplitMatrix } from './SplitMatrix.tsx';

const DEMAND_WORDS = {
  fixed: 'Shares are fixed by what is plugged in: what others draw does not matter.',
  'follows demand': 'Shares follow demand: when one draws little, the others get more.',
  'not tested': 'Whether shares follow demand was not tested: read one set again with a port loaded a little.',
} as const;
const STEADY_WORDS = { steady: '● stays on', drops: '▼ drops out', 'not tested': '○ not tested' } as const;
const PAIR_WORDS = { safe: '● stays on', drops: '▼ drops', 'not tested': '○' } as const;

export function Rule() {
  const { dossier, verdict } = useSample();
  const { rule, drops, rows } = verdict.results.splits;
  const read = rows.filter(({ total }) => total !== null);
  const faces = dossier.sample.model.ports;
  const ports = faces.map(({ label }) => label);
  const pairs = pairsOf(ports, drops);
  const steady = steadyPorts(ports, drops);
  const safe = steady.filter(({ state }) => state === 'steady').map(({ port }) => port);
  return (
    <>
      <Box component="section" aria-label="Rule" sx={{ mb: 3 }}>
        {read.length === 0 ? (
          <EmptyFigure says="Measure each port alone, then pairs: the rule follows, drawn over the ports." />
        ) : (
          <SplitMatrix
            label="Sharing rule"
            rows={read}
            ports={ports}
            drops={drops}
            budgets={rule.budgets}
            as={dossier.profile.more.as}
          />
        )}
        {rule.sentences.length > 0 && (
          <Box component="details" sx={{ mb: 1 }}>
            <Box component="summary" sx={{ cursor: 'pointer' }}>
              The rule in words
            </Box>
            {rule.sentences.map((sentence) => (
              <Typography key={sentence} sx={{ mt: 0.5 }}>
                {sentence}
              </Typography>
            ))}
          </Box>
        )}
        {rule.sentences.length > 0 && (
          <Typography sx={{ mt: 1 }} color="text.secondary">
            {DEMAND_WORDS[rule.demand]}
          </Typography>
        )}
        {rule.unexplained.map(({ says }) => (
          <Alert key={says} severity="warning" sx={{ mt: 1 }}>
            Not explained: {says}
          </Alert>
        ))}
        {rule.sentences.length > 0 &&
          rule.open.map(({ says, measure }) => (
            <Alert key={says} severity="info" sx={{ mt: 1 }}>
              Not determined: {says} Measure {setKey(measure)}.
            </Alert>
          ))}
      </Box>
      <Box component="section" aria-label="Interruptions">
        <Typography variant="h2" sx={{ mb: 0.5 }}>
          Which ports can power something that must stay on?
        </Typography>
        <Typography sx={{ mb: 1, fontSize: 18 }}>
          {safe.length > 0
            ? `${safe.join(', ')}: nothing plugged in elsewhere interrupted ${safe.length === 1 ? 'it' : 'them'}.`
            : steady.every(({ state }) => state === 'not tested')
              ? 'Not tested yet: note at each combination whether the running ports stayed on.'
              : 'None is shown to be safe.'}
        </Typography>
        <QuietTable
          label="Pairs of ports"
          rows={ports}
          rowKey={(port) => port}
          columns={[
            { head: 'Running', cell: (port) => port },
            ...ports.map((cause) => ({
              head: `${cause} plugged`,
              cell: (port: string) => {
                const pair = pairs.find((one) => one.port === port && one.cause === cause);
                if (!pair) return null;
                const length = pair.longest === null ? null : breakWords(pair.longest, pair.offBy);
                return (
                  <Box component="span" sx={pair.state === 'drops' ? { color: 'error.main', fontWeight: 600 } : null}>
                    {PAIR_WORDS[pair.state]}
                    {length && ' '}
                    {length && (
                      <Box component="span" sx={{ whiteSpace: 'nowrap' }}>
                        {length}
                      </Box>
                    )}
                  </Box>
                );
              },
              empty: 'itself',
            })),
            {
              head: 'In all',
              cell: (port) => (
                <Box component="span" sx={{ whiteSpace: 'nowrap' }}>
                  {STEADY_WORDS[steady.find((one) => one.port === port)?.state ?? 'not tested']}
                </Box>
              ),
            },
          ]}
        />
      </Box>
    </>
  );
}
