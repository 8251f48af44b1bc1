// The band over every page of practice: that it is practice, the bench time, what stands on the bench, and the way out.
import type { DrillState } from '@lastmark/contract/practice';
import { drillLevel } from '@lastmark/core/drill';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import NativeSelect from '@mui/material/NativeSelect';
import { useMutation, useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { api } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { realUrl } from '../api/world.ts';
import { useNotify } from '../state/notices.tsx';
import { drillNowQuery } from './queries.ts';
import { benchTime } from './words.ts';

const BAND = {
  position: 'sticky',
  top: 0,
  zIndex: 6,
  display: 'flex',
  flexWrap: 'wrap',
  alignItems: 'center',
  columnGap: 1.5,
  rowGap: 0.5,
  px: 2,
  py: 0.5,
  minHeight: 52,
  boxSizing: 'border-box',
  bgcolor: 'background.paper',
  borderBottom: '4px solid',
  borderColor: 'warning.main',
} as const;
const STRIPES = 'repeating-linear-gradient(135deg, currentColor 0 6px, transparent 6px 12px)';

const take = (drill: DrillState) => queryClient.setQueryData(drillNowQuery.queryKey, { drill });

function Running({ drill }: { readonly drill: DrillState }) {
  const notify = useNotify();
  const { id, parts, budget, used, onBench, display } = drill;
  const place = useMutation({
    mutationFn: (sampleId: string) =>
      api<DrillState>(`/drills/${id}/bench`, { method: 'POST', body: { sampleId }, real: true }),
    onSuccess: take,
    onError: (error) => notify(error.message),
  });
  const restart = useMutation({
    mutationFn: () => api<DrillState>(`/drills/${id}/restart`, { method: 'POST', body: {}, real: true }),
    onSuccess: (next) => {
      take(next);
      notify('Every meter was switched off and on.');
    },
    onError: (error) => notify(error.message),
  });
  const left = budget - used.seconds;
  return (
    <>
      <Box sx={{ flex: 1, fontSize: 14, lineHeight: 1.3, whiteSpace: 'nowrap' }}>
        <Box>
          {drillLevel(drill.levelId)?.title ?? drill.levelId}, {benchTime(budget)}
        </Box>
        <Box sx={{ fontWeight: left < 0 ? 600 : 400, color: left < 0 ? 'error.main' : 'text.secondary' }}>
          {left < 0 ? `▼ ${benchTime(-left)} too much` : `${benchTime(left)} left`}
        </Box>
      </Box>
      <Box component="label" htmlFor="on-the-bench" sx={{ whiteSpace: 'nowrap' }}>
        On the bench
      </Box>
      <NativeSelect
        id="on-the-bench"
        value={onBench ?? ''}
        disabled={place.isPending}
        onChange={({ target }) => place.mutate(target.value)}
        sx={{ minWidth: 120, maxWidth: 170 }}
      >
        {onBench === null && <option value="">nothing</option>}
        {parts
          .filter(({ of }) => of !== 'rig')
          .map((part) => (
            <option key={part.id} value={part.id}>
              {part.name}
            </option>
          ))}
      </NativeSelect>
      {display !== null && <Box sx={{ whiteSpace: 'nowrap' }}>its display {display.toFixed(1)} W</Box>}
      <Button size="small" disabled={restart.isPending} onClick={() => restart.mutate()}>
        Restart meters
      </Button>
      <Button size="small" variant="contained" component={Link} to="/state">
        State the verdict
      </Button>
    </>
  );
}

export function Band() {
  const { data, error } = useQuery(drillNowQuery);
  return (
    <Box component="section" aria-label="Practice" sx={BAND}>
      <Box aria-hidden sx={{ width: 28, height: 28, color: 'warning.main', backgroundImage: STRIPES }} />
      <Box sx={{ fontWeight: 700, letterSpacing: 1 }}>PRACTICE</Box>
      {data?.drill ? (
        <Running drill={data.drill} />
      ) : (
        <Box sx={{ flex: 1 }}>
          {error
            ? error.message
            : data
              ? 'No drill is under way. What was measured in the last one stays to be looked at until another begins.'
              : ''}
        </Box>
      )}
      <Button size="small" href={realUrl('').replace(/\/api$/, '/drills')}>
        Leave practice
      </Button>
    </Box>
  );
}
