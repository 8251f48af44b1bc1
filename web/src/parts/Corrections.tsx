// What was corrected in a grid lately: what it was, what it is now, when and why; and a way back.
import { quantityOf } from '@lastmark/core/quantity';
import { type Correction, correctionsOf, mainsLabel, type Point } from '@lastmark/core/reading';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { ulid } from 'ulid';
import { api } from '../api/client.ts';
import { refreshSample } from '../api/queries.ts';
import { useNotify } from '../state/notices.tsx';
import { useSample } from '../state/sample.tsx';

const DAYS_SHOWN = 14;
const DAY_MILLISECONDS = 86_400_000;
const LONGEST = 200;

/** Puts what was corrected back, as a correction of its own. */
function usePutBack() {
  const { sample } = useSample().dossier;
  const notify = useNotify();
  return useMutation({
    mutationFn: ({ point, was, now }: Correction) =>
      api(`/samples/${sample.id}/readings`, {
        method: 'POST',
        body: {
          points: [
            {
              id: point.id,
              setupId: point.setupId,
              mains: point.mains,
              load: point.load,
              attached: point.attached,
              rigId: point.rigId,
              takenAt: new Date().toISOString(),
              readings: [
                {
                  id: ulid(),
                  quantity: was.quantity,
                  place: was.place,
                  port: was.port,
                  typed: was.typed,
                  supersedes: now.value === null ? null : now.id,
                  really: true,
                },
              ],
            },
          ],
        },
      }),
    onError: (error) => notify(error.message),
    onSettled: () => refreshSample(sample.id),
  });
}

const placeOf = ({ point, was }: Correction): string =>
  [
    mainsLabel(point.mains),
    point.load === 0 ? point.attached : `${Math.round(point.load * 100)} %`,
    was.port,
    quantityOf(was.quantity).label.toLowerCase(),
  ]
    .filter(Boolean)
    .join(', ');

/** Asks in place why; what is said stays. */
function Because({ readingId, of }: { readonly readingId: string; readonly of: string }) {
  const { sample } = useSample().dossier;
  const notify = useNotify();
  const [text, setText] = useState('');
  const say = useMutation({
    mutationFn: (because: string) =>
      api(`/samples/${sample.id}/readings/${readingId}/because`, { method: 'POST', body: { because } }),
    onError: (error) => notify(error.message),
    onSettled: () => refreshSample(sample.id),
  });
  return (
    <Box
      component="form"
      onSubmit={(event) => {
        event.preventDefault();
        if (text.trim() !== '') say.mutate(text.trim());
      }}
      sx={{ display: 'flex', gap: 0.5 }}
    >
      <TextField
        label="because"
        value={text}
        onChange={(event) => setText(event.target.value)}
        slotProps={{ htmlInput: { maxLength: LONGEST, 'aria-label': `Why: ${of}` } }}
        sx={{ width: 200 }}
      />
      <Button type="submit" size="small" disabled={text.trim() === '' || say.isPending}>
        Say why
      </Button>
    </Box>
  );
}

export function Corrections({ points }: { readonly points: readonly Point[] }) {
  const putBack = usePutBack();
  const since = new Date(Date.now() - DAYS_SHOWN * DAY_MILLISECONDS).toISOString();
  const changes = correctionsOf(points, since).filter(({ standing, was }) => standing && was.value !== null);
  if (changes.length === 0) return null;
  return (
    <Box component="details">
      <Box component="summary" sx={{ cursor: 'pointer' }}>
        Corrected in the last {DAYS_SHOWN} days: {changes.length}
      </Box>
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {changes.map((change) => {
          const { was, now } = change;
          const says = `${placeOf(change)}: was ${was.typed}, now ${now.value === null ? 'struck out' : now.typed}, on ${now.takenAt.slice(0, 16).replace('T', ' ')} UTC`;
          return (
            <Box
              component="li"
              key={now.id}
              sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, alignItems: 'center', mb: 0.5 }}
            >
              <Box sx={{ flex: '1 1 100%' }}>
                {says}
                {now.because ? `, because ${now.because}` : ''}
              </Box>
              {!now.because && <Because readingId={now.id} of={placeOf(change)} />}
              <Button
                size="small"
                disabled={putBack.isPending}
                aria-label={`Put back ${was.typed}, ${placeOf(change)}`}
                onClick={() => putBack.mutate(change)}
              >
                Put {was.typed} back
              </Button>
            </Box>
          );
        })}
      </Box>
    </Box>
  );
}
