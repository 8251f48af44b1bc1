// A car charger on its supply: efficiency from the lowest to the highest voltage, where output goes, and what a dip does.
import type { StoredSetup } from '@lastmark/contract/types';
import type { SeriesResult } from '@lastmark/core/efficiency';
import { CAR_STOPS } from '@lastmark/core/reading';
import Box from '@mui/material/Box';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import { lazy, useState } from 'react';
import { CaptureList } from '../../captures/CaptureList.tsx';
import { Caution } from '../../parts/Caution.tsx';
import { EntryGrid } from '../../parts/EntryGrid.tsx';
import { Choice } from '../../parts/fields.tsx';
import { figureHeight } from '../../parts/heights.ts';
import { Later } from '../../parts/Later.tsx';
import { Panel } from '../../parts/Panel.tsx';
import { useSample, useSupplies } from '../../state/sample.tsx';
import { LOAD_RESULT_WIDTHS, setting, useLoadRows } from './loadRows.tsx';

const SupplyChart = lazy(async () => ({ default: (await import('./SupplyChart.tsx')).SupplyChart }));

type Store = keyof typeof CAR_STOPS;
const LOADS = ['100 %', '50 %'] as const;

function Sweep({ setup, series }: { readonly setup: StoredSetup; readonly series: SeriesResult }) {
  const { dossier } = useSample();
  const { heads, rowOf } = useLoadRows(setup, series);
  const [store, setStore] = useState<Store>('12 V');
  const [at, setAt] = useState<(typeof LOADS)[number]>('100 %');
  const load = at === '100 %' ? 1 : 0.5;
  return (
    <Box data-entry-area="">
      <Box sx={{ display: 'flex', gap: 2, mb: 1, alignItems: 'center' }}>
        <ToggleButtonGroup
          exclusive
          size="small"
          value={store}
          aria-label="Vehicle"
          onChange={(_event, chosen: Store | null) => chosen && setStore(chosen)}
        >
          {(Object.keys(CAR_STOPS) as Store[]).map((one) => (
            <ToggleButton key={one} value={one}>
              {one} vehicle
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <Choice label="Load" value={at} options={LOADS} onChange={setAt} more={{ size: 'small', sx: { width: 120 } }} />
        <Typography variant="body2" color="text.secondary">
          {setup.name}: {setting(setup, load)}
        </Typography>
      </Box>
      <Panel>
        <EntryGrid
          label={`Supply of a ${store} vehicle, ${at} load`}
          heads={['Supply', ...heads]}
          rows={CAR_STOPS[store].map((volts) => rowOf({ kind: 'dc', volts }, load, `${volts} V`))}
          draftKey={`cell-${dossier.sample.id}`}
          resultWidths={LOAD_RESULT_WIDTHS}
        />
      </Panel>
    </Box>
  );
}

export function CarSupply({ setup }: { readonly setup: StoredSetup }) {
  const { verdict } = useSample();
  const series = verdict.results.efficiency.series.find((one) => one.setup.id === setup.id);
  const supplies = useSupplies();
  if (!series) return null;
  return (
    <>
      <Typography variant="h2" sx={{ mb: 1 }}>
        Efficiency over the supply
      </Typography>
      <Sweep key={setup.id} setup={setup} series={series} />
      <Later what="the chart" height={figureHeight(320)}>
        <SupplyChart series={series} />
      </Later>
      <Typography variant="h2" sx={{ mt: 3, mb: 1 }}>
        Cut-out, restart and dips
      </Typography>
      <Caution line="A vehicle battery can deliver hundreds of amps: fuse the lead, and try dips on a bench supply, not in the vehicle." />
      <CaptureList
        kinds={['sweep', 'dip']}
        supplies={supplies}
        empty="None yet. A run sheet by the car method lowers and dips the supply by itself; or take in a record of supply and output."
      />
    </>
  );
}
