// The limit sets: which ones judge, what each says at a nameplate, and those of the bench's own.
import type { StoredLimitSet, StoredProfile } from '@lastmark/contract/types';
import { limitAt, type Piece, QUANTITY_WORDS } from '@lastmark/core/limits';
import { procedureOf } from '@lastmark/core/procedure';
import { formatPlain, formatValue } from '@lastmark/core/quantity';
import { mainsLabel } from '@lastmark/core/reading';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useMutation, useQuery } from '@tanstack/react-query';
import { lazy, Suspense, useState } from 'react';
import { api, versionTag } from '../api/client.ts';
import { limitSetsQuery, refreshAll } from '../api/queries.ts';
import { Ask } from '../parts/Ask.tsx';
import { typedSi } from '../parts/fields.tsx';
import { QueryGate } from '../parts/QueryGate.tsx';
import { QuietTable } from '../parts/QuietTable.tsx';
import { useNotify } from '../state/notices.tsx';

const LimitSetDialog = lazy(async () => ({ default: (await import('./LimitSetDialog.tsx')).LimitSetDialog }));

/** A piece as a formula: `0.071·ln P − 0.0014·P + 0.67`. */
function formulaOf({ constant, perWatt, perLog }: Piece): string {
  const terms = [
    perLog === 0 ? '' : `${perLog}·ln P`,
    perWatt === 0 ? '' : `${perWatt}·P`,
    constant === 0 && (perLog !== 0 || perWatt !== 0) ? '' : String(constant),
  ].filter(Boolean);
  return terms.join(' + ').replaceAll('+ -', '− ');
}

/** The range of a piece; a formula of one endless piece holds everywhere. */
function rangeOf({ upTo, inclusive }: Piece, alone: boolean): string {
  if (upTo === null) return alone ? 'any' : 'above';
  return `${inclusive ? '≤' : '<'} ${upTo} W`;
}

function Formulas({ set, watts }: { readonly set: StoredLimitSet; readonly watts: number }) {
  return (
    <QuietTable
      label={set.title}
      rows={set.formulas}
      rowKey={({ quantity, nameplateClass }) => `${quantity} ${nameplateClass}`}
      columns={[
        { head: 'Quantity', cell: ({ quantity }) => QUANTITY_WORDS[quantity] },
        { head: 'Class', cell: ({ nameplateClass }) => nameplateClass },
        {
          head: 'By nameplate output P, W',
          cell: ({ pieces }) =>
            pieces.map((piece) => `${rangeOf(piece, pieces.length === 1)}: ${formulaOf(piece)}`).join(' · '),
        },
        {
          head: `At ${watts} W`,
          number: true,
          cell: ({ quantity, nameplateClass }) => {
            const at = limitAt(set, quantity, nameplateClass, watts);
            if (at === null) return null;
            return quantity === 'no-load-power' ? formatPlain(at, 'power') : formatValue(at, 'efficiency', 3);
          },
          empty: 'not covered',
        },
      ]}
    />
  );
}

interface CardProps {
  readonly set: StoredLimitSet;
  readonly watts: number;
  readonly judges: boolean;
  readonly busy: boolean;
  readonly onJudge: (on: boolean) => void;
  readonly onEdit: (change: boolean) => void;
  readonly onRemove: () => void;
}

function SetCard({ set, watts, judges, busy, onJudge, onEdit, onRemove }: CardProps) {
  return (
    <Box sx={{ display: 'flex', alignItems: 'start', mb: 1, gap: 1 }}>
      <FormControlLabel
        label="judges"
        control={<Checkbox checked={judges} disabled={busy} onChange={(event) => onJudge(event.target.checked)} />}
        slotProps={{ typography: { sx: { fontSize: 14 } } }}
        aria-label={`${set.title} judges`}
        sx={{ width: 96, mr: 0 }}
      />
      <Box
        component="details"
        sx={{
          flex: 1,
          minWidth: 0,
          border: 1,
          borderColor: 'divider',
          borderRadius: 1,
          bgcolor: 'background.paper',
          '& > summary': { px: 2, py: 1, cursor: 'pointer' },
        }}
      >
        <summary>
          <Box component="span" sx={{ fontWeight: 600 }}>
            {set.title}
          </Box>{' '}
          <Box component="span" sx={{ color: 'text.secondary' }}>
            {set.jurisdiction}
            {set.jurisdiction ? ', ' : ''}verdict at {mainsLabel(set.mains)}, in force from {set.validFrom}
            {set.validTo ? ` until ${set.validTo}` : ''}
            {set.builtIn ? '' : ', ours'}
          </Box>
        </summary>
        <Box sx={{ px: 2, pb: 1.5 }}>
          <Typography variant="body2" color="text.secondary">
            {set.source}. Compared with the text {set.checked}. {set.note}
          </Typography>
          <Typography variant="body2" color="text.secondary">
            Procedure: {procedureOf(set.procedureId).title} ({procedureOf(set.procedureId).source}).
            {set.adaptiveLow
              ? ` An adaptive supply is loaded with ${set.adaptiveLow.amps} A at ${set.adaptiveLow.volts} V.`
              : ' An adaptive supply is loaded with its nameplate current at every level.'}
          </Typography>
          <Formulas set={set} watts={watts} />
          <Box sx={{ display: 'flex', gap: 1, mt: 1, alignItems: 'start' }}>
            <Button size="small" onClick={() => onEdit(false)}>
              Copy and change
            </Button>
            {!set.builtIn && (
              <>
                <Button size="small" onClick={() => onEdit(true)}>
                  Change
                </Button>
                {judges ? (
                  <Button size="small" disabled>
                    Remove
                  </Button>
                ) : (
                  <Ask
                    button="Remove"
                    size="small"
                    says={`${set.title} goes with its formulas. This cannot be undone.`}
                    yes="Remove it"
                    no="Keep it"
                    color="error"
                    onYes={onRemove}
                  />
                )}
              </>
            )}
          </Box>
        </Box>
      </Box>
    </Box>
  );
}

export function LimitSets({ profile }: { readonly profile: StoredProfile }) {
  const sets = useQuery(limitSetsQuery);
  const notify = useNotify();
  const [typed, setTyped] = useState('45');
  const [editing, setEditing] = useState<{ set: StoredLimitSet; change: boolean } | null>(null);
  const typedWatts = typedSi(typed, 'power');
  const watts = typedWatts && typedWatts > 0 ? typedWatts : 45;
  const judge = useMutation({
    mutationFn: async ({ id, on }: { id: string; on: boolean }) => {
      // Only this one choice changes, so it is laid over whatever the method is by now.
      const { version, ...settings } = await api<StoredProfile>('/profile');
      const others = settings.limitSetIds.filter((one) => one !== id);
      const body = { ...settings, limitSetIds: on ? [...others, id] : others };
      return api('/profile', { method: 'PUT', body, ifMatch: versionTag({ version }) });
    },
    onSuccess: () => notify('Every sample is judged anew. No reading changed.'),
    onError: (error) => notify(error.message),
    onSettled: refreshAll,
  });
  const remove = useMutation({
    mutationFn: (set: StoredLimitSet) =>
      api<void>(`/limit-sets/${set.id}`, { method: 'DELETE', ifMatch: versionTag(set) }),
    onError: (error) => notify(error.message),
    onSettled: refreshAll,
  });
  return (
    <>
      <Box sx={{ display: 'flex', alignItems: 'center', mt: 4, mb: 1 }}>
        <Typography variant="h2" sx={{ flex: 1 }}>
          Limit sets
        </Typography>
        <TextField
          label="Try a nameplate, W"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          sx={{ width: 170 }}
        />
      </Box>
      <QueryGate query={sets} what="the limit sets">
        {({ items }) => (
          <>
            {items.map((set) => (
              <SetCard
                key={set.id}
                set={set}
                watts={watts}
                judges={
                  judge.isPending && judge.variables.id === set.id
                    ? judge.variables.on
                    : profile.limitSetIds.includes(set.id)
                }
                busy={judge.isPending}
                onJudge={(on) => judge.mutate({ id: set.id, on })}
                onEdit={(change) => setEditing({ set, change })}
                onRemove={() => remove.mutate(set)}
              />
            ))}
          </>
        )}
      </QueryGate>
      <Typography variant="body2" color="text.secondary">
        Limits are data taken from the texts named. Confirm each against its current text before relying on it.
      </Typography>
      {editing && (
        <Suspense fallback={null}>
          <LimitSetDialog from={editing.set} change={editing.change} onClose={() => setEditing(null)} />
        </Suspense>
      )}
    </>
  );
}
