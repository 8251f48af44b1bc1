// One drill once it is over: what hid, what was said, each slip with what would have caught it, and the time it took.
import type { DrillState } from '@lastmark/contract/practice';
import { drillFault, drillLevel, type Slip } from '@lastmark/core/drill';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import { PRACTICE_HOME } from '../api/world.ts';
import { Page } from '../parts/Page.tsx';
import { QueryGate } from '../parts/QueryGate.tsx';
import { QuietTable } from '../parts/QuietTable.tsx';
import { drillQuery } from './queries.ts';
import { BASIS_WORDS, benchTime, resultWords } from './words.ts';

/** What a kind of slip is called. */
const SLIP_WORDS: Readonly<Record<Slip['kind'], string>> = {
  missed: 'Missed',
  'not there': 'Not there',
  guessed: 'Guessed',
  'called measured': 'Called measured',
  'called unmeasured': 'Called unmeasured',
  late: 'Out of bench time',
  'rig unproven': 'Rig unproven',
};

/** Bench time of the drill, of a good plan, and what there was, on one scale. */
function Times({ drill }: { readonly drill: DrillState }) {
  const { result } = drill;
  if (!result) return null;
  const lines = [
    {
      title: 'Used',
      seconds: result.used.seconds,
      steps: result.used.steps,
      loud: result.used.seconds > result.budget,
    },
    { title: 'A good plan', seconds: result.good.seconds, steps: result.good.steps, loud: false },
  ];
  const most = Math.max(result.budget, ...lines.map(({ seconds }) => seconds), 1);
  return (
    <Box component="section" aria-labelledby="times" sx={{ mt: 3, maxWidth: 720 }}>
      <Typography variant="h2" id="times" sx={{ mb: 1 }}>
        Bench time
      </Typography>
      {lines.map(({ title, seconds, steps, loud }) => (
        <Box
          key={title}
          sx={{ display: 'grid', gridTemplateColumns: '110px 1fr 200px', gap: 1.5, alignItems: 'center' }}
        >
          <Box>{title}</Box>
          <Box sx={{ position: 'relative', height: 18, bgcolor: 'ground' }} aria-hidden>
            <Box
              sx={{
                position: 'absolute',
                inset: '2px auto 2px 0',
                width: `${(100 * seconds) / most}%`,
                bgcolor: loud ? 'error.main' : 'primary.main',
              }}
            />
            <Box
              sx={{
                position: 'absolute',
                top: -2,
                bottom: -2,
                left: `calc(${(100 * result.budget) / most}% - 2px)`,
                width: '2px',
                bgcolor: 'text.primary',
              }}
            />
          </Box>
          <Box sx={{ fontVariantNumeric: 'tabular-nums' }}>
            {benchTime(seconds)}, {steps === 1 ? 'one step' : `${steps} steps`}
          </Box>
        </Box>
      ))}
      <Box sx={{ fontSize: 14, color: 'text.secondary', mt: 0.5 }}>
        The mark is what there was: {benchTime(result.budget)}.
      </Box>
    </Box>
  );
}

interface PartLine {
  readonly id: string;
  readonly name: string;
  readonly hidden: readonly string[];
  readonly said: NonNullable<DrillState['stated']>[number]['faults'];
}

function Truth({ drill }: { readonly drill: DrillState }) {
  const lines = drill.parts.map(
    ({ id, name }): PartLine => ({
      id,
      name,
      hidden: drill.truth?.find(({ partId }) => partId === id)?.faults ?? [],
      said: drill.stated?.find(({ partId }) => partId === id)?.faults ?? [],
    }),
  );
  const list = (items: readonly string[]) =>
    items.length === 0 ? (
      'nothing'
    ) : (
      <Box component="ul" sx={{ m: 0, pl: 2 }}>
        {items.map((item) => (
          <li key={item}>{item}</li>
        ))}
      </Box>
    );
  return (
    <QuietTable<PartLine>
      label="What hid and what was said"
      rows={lines}
      rowKey={({ id }) => id}
      columns={[
        { head: 'Part', cell: ({ name }) => name },
        { head: 'What is true', cell: ({ hidden }) => list(hidden.map((id) => drillFault(id)?.says ?? id)) },
        {
          head: 'What was said',
          cell: ({ said }) =>
            list(said.map(({ id, basis }) => `${drillFault(id)?.title ?? id} (${BASIS_WORDS[basis].toLowerCase()})`)),
        },
      ]}
    />
  );
}

function Slips({ slips }: { readonly slips: readonly Slip[] }) {
  if (slips.length === 0) return null;
  return (
    <Box component="section" aria-labelledby="slips" sx={{ mt: 3 }}>
      <Typography variant="h2" id="slips" sx={{ mb: 1 }}>
        Slips
      </Typography>
      <Box component="ol" sx={{ m: 0, pl: 3, maxWidth: 860, display: 'grid', gap: 1.5 }}>
        {slips.map(({ kind, partId, faultId, says, caughtBy }) => (
          <li key={`${kind} ${partId} ${faultId}`}>
            <Box sx={{ fontWeight: 600 }}>{SLIP_WORDS[kind]}</Box>
            <Box>{says}</Box>
            {caughtBy && <Box sx={{ color: 'text.secondary' }}>What would have caught it: {caughtBy}</Box>}
          </li>
        ))}
      </Box>
    </Box>
  );
}

function Drill({ drill }: { readonly drill: DrillState }) {
  if (drill.state === 'under way')
    return (
      <Alert severity="info" icon={false} action={<Button href={PRACTICE_HOME}>Go on</Button>}>
        This drill is under way. Its truth is shown once its verdict is stated.
      </Alert>
    );
  if (!drill.result)
    return (
      <Alert severity="info" icon={false}>
        It was left without a verdict; what hid is not told.
      </Alert>
    );
  return (
    <>
      <Typography role="status" sx={{ fontSize: 20, fontWeight: 600, mb: 1.5 }}>
        {drill.result.passed ? '' : '▼ '}
        {resultWords(drill.result)}
      </Typography>
      <Truth drill={drill} />
      <Slips slips={drill.result.slips} />
      <Times drill={drill} />
    </>
  );
}

export function DrillPage() {
  const { drillId = '' } = useParams();
  const query = useQuery(drillQuery(drillId));
  const title = query.data
    ? `Drill: ${drillLevel(query.data.levelId)?.title ?? query.data.levelId}, number ${query.data.seed}`
    : 'Drill';
  return (
    <Page
      title={title}
      actions={
        <>
          {query.data?.open && query.data.state === 'stated' && (
            <Button href={PRACTICE_HOME}>Look at what was measured</Button>
          )}
          <Button component={Link} to="/drills" variant="outlined">
            All drills
          </Button>
        </>
      }
    >
      <QueryGate query={query} what="the drill">
        {(drill) => <Drill drill={drill} />}
      </QueryGate>
    </Page>
  );
}
