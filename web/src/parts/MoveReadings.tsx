// Readings typed in the wrong row, loading or station: said where they belong, they are moved there.
import { LOAD_POINTS } from '@lastmark/core/efficiency';
import { ATTACHED, type Attached, currentReadings, mainsLabel, type Point } from '@lastmark/core/reading';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { ulid } from 'ulid';
import { api } from '../api/client.ts';
import { refreshSample } from '../api/queries.ts';
import { useNotify } from '../state/notices.tsx';
import { useSample, useSupplies } from '../state/sample.tsx';
import { Choice } from './fields.tsx';
import { moved } from './move.ts';

const IDLE = 'idle';
const percent = (load: number): string => `${Math.round(load * 100)} %`;

/** @param points those the grid shows */
export function MoveReadings({ points }: { readonly points: readonly Point[] }) {
  const { sample, setups } = useSample().dossier;
  const supplies = useSupplies();
  const notify = useNotify();
  const filled = points.filter(({ readings }) => currentReadings(readings).length > 0);
  const [from, setFrom] = useState('');
  const [setupId, setSetupId] = useState(IDLE);
  const [mains, setMains] = useState('');
  const [load, setLoad] = useState('100 %');
  const [attached, setAttached] = useState<Attached>('nothing');
  const point = filled.find(({ id }) => id === from) ?? filled.at(-1);
  const supply = supplies.find((one) => mainsLabel(one) === mains) ?? point?.mains ?? supplies[0];
  const setup = setups.find(({ id }) => id === setupId);
  const loads = setup?.purpose === 'proof' ? [1, 0] : LOAD_POINTS.filter((one) => one > 0);
  const move = useMutation({
    mutationFn: async () => {
      if (!point || !supply) return;
      const to = {
        setupId: setup?.id ?? null,
        mains: supply,
        load: setup ? (loads.find((one) => percent(one) === load) ?? 1) : 0,
        attached: setup ? ('nothing' as const) : attached,
      };
      await api(`/samples/${sample.id}/readings`, { method: 'POST', body: { points: moved(point, to, ulid) } });
    },
    onSuccess: () => notify(`Moved to ${setup?.name ?? 'Idle'}.`),
    onSettled: () => refreshSample(sample.id),
  });
  if (!point) return null;
  return (
    <Box component="details">
      <Box component="summary" sx={{ cursor: 'pointer' }}>
        Typed in the wrong place?
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(170px, 1fr))', gap: 1.5, mt: 1.5 }}>
        <Choice
          label="Move"
          value={point.id}
          options={filled.map((one) => ({
            value: one.id,
            label: `${mainsLabel(one.mains)}, ${one.load === 0 ? one.attached : percent(one.load)}, ${one.takenAt.slice(0, 10)}`,
          }))}
          onChange={setFrom}
        />
        <Choice
          label="to"
          value={setup?.id ?? IDLE}
          options={[{ value: IDLE, label: 'Idle' }, ...setups.map(({ id, name }) => ({ value: id, label: name }))]}
          onChange={setSetupId}
        />
        <Choice
          label="at"
          value={supply ? mainsLabel(supply) : ''}
          options={supplies.map(mainsLabel)}
          onChange={setMains}
        />
        {setup ? (
          <Choice
            label="load"
            value={loads.some((one) => percent(one) === load) ? load : percent(loads[0] ?? 1)}
            options={loads.map(percent)}
            onChange={setLoad}
          />
        ) : (
          <Choice label="with attached" value={attached} options={ATTACHED} onChange={setAttached} />
        )}
        <Button variant="outlined" disabled={move.isPending} onClick={() => move.mutate()} sx={{ height: 40 }}>
          Move it there
        </Button>
      </Box>
      {move.error && (
        <Alert severity="error" sx={{ mt: 1 }}>
          Nothing was moved. {move.error.message}
        </Alert>
      )}
    </Box>
  );
}
