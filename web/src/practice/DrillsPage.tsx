// Drills: levels to begin, the one under way, how far each person is, and what there was.
import type { DrillRow, DrillState } from '@lastmark/contract/practice';
import { DRILL_LEVELS, drillLevel } from '@lastmark/core/drill';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { api } from '../api/client.ts';
import { PRACTICE_HOME } from '../api/world.ts';
import { Page } from '../parts/Page.tsx';
import { QueryGate } from '../parts/QueryGate.tsx';
import { QuietTable } from '../parts/QuietTable.tsx';
import { useSettings } from '../state/settings.tsx';
import { drillNowQuery, drillsQuery, refreshDrills } from './queries.ts';
import { benchTime, drillWords, type Progress, progressOf } from './words.ts';

const titleOf = (levelId: string): string => drillLevel(levelId)?.title ?? levelId;

function UnderWay({ drill }: { readonly drill: DrillState }) {
  const leave = useMutation({
    mutationFn: () => api(`/drills/${drill.id}`, { method: 'DELETE' }),
    onSuccess: refreshDrills,
  });
  return (
    <Alert
      severity="info"
      icon={false}
      sx={{ mb: 2 }}
      action={
        <Box sx={{ display: 'flex', gap: 1 }}>
          <Button color="inherit" disabled={leave.isPending} onClick={() => leave.mutate()}>
            Leave it
          </Button>
          <Button variant="contained" href={PRACTICE_HOME}>
            Go on
          </Button>
        </Box>
      }
    >
      {titleOf(drill.levelId)}, {drill.person}: {benchTime(drill.used.seconds)} of {benchTime(drill.budget)} bench time
      used.{leave.error && ` ${leave.error.message}`}
    </Alert>
  );
}

function Levels({ busy }: { readonly busy: boolean }) {
  const { person, change } = useSettings();
  const [seed, setSeed] = useState('');
  const [asked, setAsked] = useState(false);
  const begin = useMutation({
    mutationFn: (levelId: string) =>
      api<DrillState>('/drills', {
        method: 'POST',
        body: { person: person.trim(), levelId, seed: seed.trim() === '' ? null : Number(seed) },
      }),
    onSuccess: () => window.location.assign(PRACTICE_HOME),
  });
  const strange = seed.trim() !== '' && !/^\d{1,9}$/.test(seed.trim());
  const nobody = person.trim() === '';
  return (
    <Box component="section" aria-label="Levels">
      <Box sx={{ display: 'flex', gap: 1.5, flexWrap: 'wrap', mb: 2 }}>
        <TextField
          label="Who practises"
          required
          value={person}
          error={asked && nobody}
          helperText={asked && nobody ? 'Say who practises: progress is kept by name.' : ' '}
          onChange={({ target }) => change({ person: target.value })}
          sx={{ width: 260 }}
          slotProps={{ htmlInput: { maxLength: 60 } }}
        />
        <TextField
          label="Number of the drill"
          value={seed}
          error={strange}
          helperText={
            strange ? 'A whole number of up to nine digits.' : 'The same number hides the same; empty draws one.'
          }
          onChange={({ target }) => setSeed(target.value)}
          sx={{ width: 360 }}
          slotProps={{ htmlInput: { inputMode: 'numeric', maxLength: 12 } }}
        />
      </Box>
      {begin.error && (
        <Alert severity="error" sx={{ mb: 2 }}>
          {begin.error.message}
        </Alert>
      )}
      <Box
        component="ol"
        sx={{
          listStyle: 'none',
          m: 0,
          p: 0,
          display: 'grid',
          gap: 1.5,
          gridTemplateColumns: 'repeat(auto-fill, minmax(min(100%, 280px), 1fr))',
        }}
      >
        {DRILL_LEVELS.map(({ id, title, says }, at) => (
          <Box
            component="li"
            key={id}
            sx={{
              display: 'flex',
              flexDirection: 'column',
              gap: 1,
              p: 2,
              border: 1,
              borderColor: 'divider',
              borderRadius: 1,
              bgcolor: 'background.paper',
            }}
          >
            <Typography variant="h2">
              {at + 1} · {title}
            </Typography>
            <Box sx={{ flex: 1 }}>{says}</Box>
            <Box>
              <Button
                variant="outlined"
                disabled={busy || begin.isPending}
                aria-label={`Begin ${title}`}
                onClick={() => {
                  setAsked(true);
                  if (!nobody && !strange) begin.mutate(id);
                }}
              >
                {begin.isPending && begin.variables === id ? 'Being set up …' : 'Begin'}
              </Button>
            </Box>
          </Box>
        ))}
      </Box>
    </Box>
  );
}

function People({ rows }: { readonly rows: readonly DrillRow[] }) {
  const people = progressOf(rows);
  if (people.length === 0) return null;
  return (
    <Box component="section" aria-labelledby="progress" sx={{ mt: 3 }}>
      <Typography variant="h2" id="progress" sx={{ mb: 1 }}>
        How far
      </Typography>
      <QuietTable<Progress>
        label="Progress of each person"
        rows={people}
        rowKey={({ person }) => person}
        columns={[
          { head: 'Person', cell: ({ person }) => person },
          { head: 'Verdicts stated', cell: ({ tried }) => String(tried), number: true },
          { head: 'Passed', cell: ({ passed }) => String(passed), number: true },
          {
            head: 'Levels passed',
            cell: ({ levels }) =>
              DRILL_LEVELS.filter(({ id }) => levels.has(id))
                .map(({ title }) => title)
                .join(', ') || 'none yet',
          },
        ]}
      />
    </Box>
  );
}

function Past({ rows }: { readonly rows: readonly DrillRow[] }) {
  const over = rows.filter(({ state }) => state !== 'under way');
  if (over.length === 0) return null;
  return (
    <Box component="section" aria-labelledby="past" sx={{ mt: 3 }}>
      <Typography variant="h2" id="past" sx={{ mb: 1 }}>
        What there was
      </Typography>
      <QuietTable<DrillRow>
        label="Drills there were"
        rows={over}
        rowKey={({ id }) => id}
        height={360}
        columns={[
          { head: 'Begun', cell: ({ startedAt }) => startedAt.slice(0, 16).replace('T', ' ') },
          { head: 'Person', cell: ({ person }) => person },
          {
            head: 'Drill',
            cell: ({ id, levelId, seed }) => (
              <Box component={Link} to={`/drills/${id}`} sx={{ color: 'text.primary' }}>
                {titleOf(levelId)}, number {seed}
              </Box>
            ),
          },
          { head: 'How it went', cell: drillWords },
          {
            head: 'Bench time',
            cell: ({ result }) => (result ? `${benchTime(result.used.seconds)} of ${benchTime(result.budget)}` : null),
            empty: 'no verdict',
          },
        ]}
      />
    </Box>
  );
}

export function DrillsPage() {
  const list = useQuery(drillsQuery);
  const now = useQuery(drillNowQuery);
  const drill = now.data?.drill ?? null;
  return (
    <Page title="Drills">
      <Typography sx={{ maxWidth: 720, mb: 2 }}>
        Practice on simulated samples with hidden faults, on a bench sixty times as fast. Measure with the screens of
        every day, state what is wrong and what it rests on; then the truth is shown. Nothing of it comes onto your
        shelf.
      </Typography>
      {drill && <UnderWay drill={drill} />}
      <Levels busy={drill !== null} />
      <QueryGate query={list} what="drills there were">
        {({ items }) => (
          <>
            <People rows={items} />
            <Past rows={items} />
          </>
        )}
      </QueryGate>
    </Page>
  );
}
