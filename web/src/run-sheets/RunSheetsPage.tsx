// All run sheets: plan one, open one, watch the one that is on.
import type { SheetRow } from '@lastmark/contract/plan';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { Link, useSearchParams } from 'react-router';
import { sheetsQuery } from '../api/queries.ts';
import { PAGE_SIDE } from '../parts/Page.tsx';
import { QueryGate } from '../parts/QueryGate.tsx';
import { QuietTable } from '../parts/QuietTable.tsx';
import { usePageTitle } from '../parts/usePageTitle.ts';
import { PlanForm } from './PlanForm.tsx';
import { SimulatedButton } from './SimulatedButton.tsx';
import { howLong, RUN_WORDS } from './words.ts';

const SMALL = { color: 'text.secondary', fontSize: 13, fontWeight: 400 } as const;

function Sheets({ items }: { readonly items: readonly SheetRow[] }) {
  return (
    <QuietTable<SheetRow>
      label="Run sheets"
      rows={items}
      rowKey={({ id }) => id}
      columns={[
        {
          head: 'Sample',
          cell: ({ sample }) => (
            <>
              <Box sx={{ overflowWrap: 'anywhere' }}>
                {sample.maker} {sample.model}
              </Box>
              <Box sx={SMALL}>
                {sample.serial || 'no serial'} · tag {sample.tag}
              </Box>
            </>
          ),
        },
        {
          head: 'Sheet',
          cell: ({ title, methodTitle, methodVersion, createdAt }) => (
            <>
              {title}
              <Box sx={SMALL}>
                {methodTitle}
                {methodVersion !== null && methodVersion > 1 && `, version ${methodVersion}`}, {createdAt.slice(0, 10)}
              </Box>
            </>
          ),
        },
        { head: 'Steps', number: true, cell: ({ steps }) => String(steps) },
        { head: 'Takes about', cell: ({ seconds }) => howLong(seconds) },
        {
          head: 'Newest run',
          cell: ({ run }) =>
            run && (
              <>
                {RUN_WORDS[run.state]}
                <Box sx={SMALL}>
                  {run.done} of {run.steps} steps, {run.person}
                </Box>
              </>
            ),
          empty: 'never ran',
        },
        {
          head: '',
          cell: ({ id, sample, title, run }) => (
            <Box sx={{ whiteSpace: 'nowrap' }}>
              {run && (
                <Button
                  size="small"
                  component={Link}
                  to={`/runs/${run.id}`}
                  aria-label={`Console of ${sample.model}, ${title}`}
                >
                  Console
                </Button>
              )}
              <Button
                size="small"
                component={Link}
                to={`/run-sheets/${id}`}
                aria-label={`Open ${sample.model}, ${title}`}
              >
                Open
              </Button>
            </Box>
          ),
        },
      ]}
    />
  );
}

const GHOST = [
  ['The rig proves itself', 2],
  ['Idle, nothing attached', 12],
  ['Warm-up at full load', 30],
  ['100, 75, 50, 25 and 10 %', 55],
  ['Every combination of ports', 20],
  ['Cool down, prove again', 15],
] as const;

/** What a sheet looks like, before there is one: its steps by how long they take. */
function GhostSheet() {
  return (
    <Box sx={{ p: 2 }}>
      <Typography color="text.secondary" sx={{ mb: 1.5 }}>
        No run sheet yet. Choose a sample, a method and a rig above: steps like these follow from its ports and claims.
      </Typography>
      {GHOST.map(([title, minutes]) => (
        <Box
          key={title}
          sx={{
            display: 'grid',
            gridTemplateColumns: '210px 1fr 60px',
            gap: 1.5,
            alignItems: 'center',
            py: 0.5,
            color: 'text.secondary',
          }}
        >
          <span>{title}</span>
          <Box
            aria-hidden
            sx={{
              height: 12,
              width: `${minutes * 1.6}%`,
              border: '1px dashed',
              borderColor: 'soft',
              borderRadius: 0.5,
            }}
          />
          <span>{minutes} min</span>
        </Box>
      ))}
    </Box>
  );
}

export function RunSheetsPage() {
  usePageTitle('Run sheets');
  const [params] = useSearchParams();
  const sampleId = params.get('sample');
  const sheets = useQuery({ ...sheetsQuery(sampleId), refetchInterval: 5000 });
  return (
    <Box sx={{ px: PAGE_SIDE, pt: 2.5, pb: 6 }}>
      <Stack direction="row" sx={{ mb: 2, alignItems: 'center', gap: 1 }}>
        <Typography variant="h1" sx={{ flex: 1 }}>
          Run sheets
        </Typography>
        {sampleId && (
          <Button component={Link} to="/run-sheets">
            Sheets of every sample
          </Button>
        )}
        <Button component={Link} to="/day" variant="outlined">
          Plan the bench day
        </Button>
      </Stack>
      <PlanForm sampleId={sampleId} />
      {sampleId && <SimulatedButton sampleId={sampleId} />}
      <QueryGate query={sheets} what="the run sheets">
        {({ items }) =>
          items.length === 0 ? (
            <Box sx={{ border: 1, borderColor: 'divider', borderRadius: 1, bgcolor: 'background.paper' }}>
              <GhostSheet />
            </Box>
          ) : (
            <Sheets items={items} />
          )
        }
      </QueryGate>
    </Box>
  );
}
