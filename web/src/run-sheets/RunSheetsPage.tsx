// All run sheets: plan one, open one, watch the one that is on.
import type { SheetRow } from '@lastmark/contract/plan';
import { methodOf } from '@lastmark/core/plan';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableRow from '@mui/material/TableRow';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { Link, useSearchParams } from 'react-router';
import { sheetsQuery } from '../api/queries.ts';
import { Heads } from '../bench/tables.tsx';
import { PAGE_SIDE } from '../parts/Page.tsx';
import { QueryGate } from '../parts/QueryGate.tsx';
import { PlanForm } from './PlanForm.tsx';
import { SimulatedButton } from './SimulatedButton.tsx';
import { howLong, RUN_WORDS } from './words.ts';

function Sheets({ items }: { readonly items: readonly SheetRow[] }) {
  return (
    <Table size="small" aria-label="Run sheets">
      <Heads heads={['Sample', 'Sheet', 'Steps', 'Takes about', 'Newest run', '']} />
      <TableBody>
        {items.map(({ id, sample, title, methodId, steps, seconds, createdAt, run }) => (
          <TableRow key={id}>
            <TableCell>
              <Box sx={{ fontWeight: 600, overflowWrap: 'anywhere' }}>
                {sample.maker} {sample.model}
              </Box>
              <Box sx={{ color: 'text.secondary', fontSize: 13 }}>
                {sample.serial || 'no serial'} · tag {sample.tag}
              </Box>
            </TableCell>
            <TableCell>
              {title}
              <Box sx={{ color: 'text.secondary', fontSize: 13 }}>
                {methodOf(methodId)?.title ?? methodId}, {createdAt.slice(0, 10)}
              </Box>
            </TableCell>
            <TableCell>{steps}</TableCell>
            <TableCell>{howLong(seconds)}</TableCell>
            <TableCell>
              {run ? (
                <>
                  {RUN_WORDS[run.state]}
                  <Box sx={{ color: 'text.secondary', fontSize: 13 }}>
                    {run.done} of {run.steps} steps, {run.person}
                  </Box>
                </>
              ) : (
                'never ran'
              )}
            </TableCell>
            <TableCell sx={{ whiteSpace: 'nowrap' }}>
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
            </TableCell>
          </TableRow>
        ))}
      </TableBody>
    </Table>
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
      </Stack>
      <PlanForm sampleId={sampleId} />
      {sampleId && <SimulatedButton sampleId={sampleId} />}
      <QueryGate query={sheets} what="the run sheets">
        {({ items }) => (
          <Box
            sx={{ border: 1, borderColor: 'divider', borderRadius: 1, bgcolor: 'background.paper', overflowX: 'auto' }}
          >
            {items.length === 0 ? <GhostSheet /> : <Sheets items={items} />}
          </Box>
        )}
      </QueryGate>
    </Box>
  );
}
