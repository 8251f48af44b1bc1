// What is wrong with what, and what that rests on: stated once, then the truth is shown.
import type { DrillState } from '@lastmark/contract/practice';
import { BASES, type Basis, DRILL_FAULTS } from '@lastmark/core/drill';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import Typography from '@mui/material/Typography';
import { useMutation, useQuery } from '@tanstack/react-query';
import { api } from '../api/client.ts';
import { Choice } from '../parts/fields.tsx';
import { Page } from '../parts/Page.tsx';
import { QueryGate } from '../parts/QueryGate.tsx';
import { useDraft } from '../parts/useDraft.ts';
import { drillNowQuery } from './queries.ts';
import { BASIS_WORDS } from './words.ts';

/** By part, by fault: what it rests on. */
type Said = Readonly<Record<string, Readonly<Record<string, Basis>>>>;

interface PartProps {
  readonly part: DrillState['parts'][number];
  readonly said: Said[string];
  readonly onSaid: (said: Said[string]) => void;
}

function Part({ part, said, onSaid }: PartProps) {
  const set = (id: string, basis: Basis | null) => {
    const { [id]: _gone, ...others } = said;
    onSaid(basis === null ? others : { ...others, [id]: basis });
  };
  const named = Object.keys(said).length;
  return (
    <Box
      component="fieldset"
      sx={{ border: 1, borderColor: 'divider', borderRadius: 1, bgcolor: 'background.paper', m: 0, mb: 2, p: 2 }}
    >
      <Typography component="legend" variant="h2" sx={{ px: 0.5 }}>
        {part.name}: {named === 0 ? 'nothing is wrong with it' : named === 1 ? 'one fault' : `${named} faults`}
      </Typography>
      <Box
        sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(min(100%, 420px), 1fr))', columnGap: 3 }}
      >
        {DRILL_FAULTS.filter(({ of }) => of === part.of).map(({ id, title }) => {
          const basis = said[id];
          return (
            <Box key={id} sx={{ display: 'flex', alignItems: 'center', gap: 1, minHeight: 48 }}>
              <FormControlLabel
                sx={{ flex: 1, mr: 0 }}
                control={
                  <Checkbox checked={basis !== undefined} onChange={(_event, on) => set(id, on ? 'measured' : null)} />
                }
                label={title}
              />
              {basis !== undefined && (
                <Choice
                  label="Rests on"
                  value={basis}
                  options={BASES.map((value) => ({ value, label: BASIS_WORDS[value] }))}
                  onChange={(value) => set(id, value)}
                  more={{
                    size: 'small',
                    sx: { width: 150 },
                    slotProps: { htmlInput: { 'aria-label': `${title} rests on` } },
                  }}
                />
              )}
            </Box>
          );
        })}
      </Box>
    </Box>
  );
}

function Verdict({ drill }: { readonly drill: DrillState }) {
  const key = `drill.${drill.id}`;
  const { value: said, set: setSaid, clear } = useDraft<Said>(key, {});
  const state = useMutation({
    mutationFn: () =>
      api<DrillState>(`/drills/${drill.id}/verdict`, {
        method: 'POST',
        real: true,
        body: {
          parts: drill.parts.map(({ id }) => ({
            partId: id,
            faults: Object.entries(said[id] ?? {}).map(([fault, basis]) => ({ id: fault, basis })),
          })),
        },
      }),
    onSuccess: () => {
      clear();
      window.location.assign(`/drills/${drill.id}`);
    },
  });
  return (
    <>
      <Typography sx={{ maxWidth: 720, mb: 2 }}>
        Say what is wrong with each, and what that rests on. A sound sample is an answer too, and a fault nobody
        measured is a guess. Once stated it cannot be changed.
      </Typography>
      {drill.parts.map((part) => (
        <Part
          key={part.id}
          part={part}
          said={said[part.id] ?? {}}
          onSaid={(own) => setSaid({ ...said, [part.id]: own })}
        />
      ))}
      {state.error && (
        <Alert severity="error" sx={{ mb: 2 }}>
          {state.error.message}
        </Alert>
      )}
      <Button variant="contained" disabled={state.isPending} onClick={() => state.mutate()}>
        State it, and see the truth
      </Button>
    </>
  );
}

export function StatePage() {
  const query = useQuery(drillNowQuery);
  return (
    <Page title="Verdict of the drill">
      <QueryGate query={query} what="the drill">
        {({ drill }) =>
          drill ? (
            <Verdict drill={drill} />
          ) : (
            <Alert severity="info" icon={false}>
              No drill is under way.
            </Alert>
          )
        }
      </QueryGate>
    </Page>
  );
}
