// Below every grid that is typed into: for when it counts, and what was corrected in it lately.

import { quantityOf } from '@lastmark/core/quantity';
import { type Correction, correctionsOf, mainsLabel, type Point } from '@lastmark/core/reading';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useMutation } from '@tanstack/react-query';
import { ulid } from 'ulid';
import { api } from '../api/client.ts';
import { refreshSample } from '../api/queries.ts';
import { useNotify } from '../state/notices.tsx';
import { useSample } from '../state/sample.tsx';
import { useSettings } from '../state/settings.tsx';
import { MoveReadings } from './MoveReadings.tsx';
import { parseTaken } from './taken.ts';

const DAYS_SHOWN = 14;
const DAY_MILLISECONDS = 86_400_000;

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

function Corrections({ points }: { readonly points: readonly Point[] }) {
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
            <Box component="li" key={now.id} sx={{ display: 'flex', gap: 1, alignItems: 'center' }}>
              <Box sx={{ flex: 1 }}>{says}</Box>
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

/** @param points those the grid shows */
export function GridFoot({ points }: { readonly points: readonly Point[] }) {
  const { typedAs, change } = useSettings();
  const read = parseTaken(typedAs, new Date());
  return (
    <Box
      sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 2, rowGap: 1, alignItems: 'start', mb: 1.5, fontSize: 14 }}
    >
      <Box sx={{ flex: '1 1 320px', pt: 1 }}>
        <Corrections points={points} />
        <MoveReadings points={points} />
      </Box>
      <TextField
        label="What is typed was taken"
        placeholder="now, or 2026-03-02 14:30"
        value={typedAs}
        error={'reason' in read}
        helperText={'reason' in read ? read.reason : undefined}
        onChange={(event) => change({ typedAs: event.target.value })}
        slotProps={{ inputLabel: { shrink: true }, htmlInput: { maxLength: 20, autoComplete: 'off' } }}
        sx={{ width: 230 }}
      />
    </Box>
  );
}
