// The load points of one loading at every mains, typed from left to right and downwards.
import type { StoredSetup } from '@lastmark/contract/types';
import { LOAD_POINTS } from '@lastmark/core/efficiency';
import { type Mains, mainsLabel } from '@lastmark/core/reading';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { memo } from 'react';
import { EntryGrid } from '../../parts/EntryGrid.tsx';
import { GridFoot } from '../../parts/GridFoot.tsx';
import { Panel } from '../../parts/Panel.tsx';
import { Term } from '../../parts/Term.tsx';
import { useSample, useSeriesNow, useSupplies } from '../../state/sample.tsx';
import { LOAD_RESULT_WIDTHS, setting, useLoadRows } from './loadRows.tsx';

interface Props {
  readonly setup: StoredSetup;
}

/** Follows what is concluded, so that what is typed need not wait for it. */
const Foot = memo(function Foot({ setup }: Props) {
  const { points } = useSample().dossier;
  return <GridFoot points={points.filter(({ setupId }) => setupId === setup.id)} />;
});

export function LoadGrid({ setup }: Props) {
  const series = useSeriesNow(setup);
  const { dossier } = useSample();
  const supplies = useSupplies();
  const { heads, rowOf } = useLoadRows(setup, series);
  const rig = dossier.rigs.find(({ id }) => id === setup.rigId);
  const headOf = (load: number) => (
    <>
      {Math.round(load * 100)} % <small>{load === 0 ? 'idle' : setting(setup, load)}</small>
    </>
  );
  // What was measured stands first; where nothing was, the supplies keep their order.
  const measured = (mains: Mains) => series.byMains.some((one) => mainsLabel(one.mains) === mainsLabel(mains));
  const inOrder = [...supplies].sort((a, b) => Number(measured(b)) - Number(measured(a)));
  const findings = series.byMains.flatMap(({ mains, loads }) =>
    loads.flatMap((one) => one.findings.map((finding) => `${mainsLabel(mains)}: ${finding}`)),
  );
  return (
    <Box data-entry-area="">
      {inOrder.map((mains) => (
        <Panel key={mainsLabel(mains)}>
          <Typography variant="h3" sx={{ px: 0.75 }}>
            {mainsLabel(mains)}
          </Typography>
          <EntryGrid
            label={`Readings at ${mainsLabel(mains)}`}
            heads={['Load', ...heads]}
            rows={LOAD_POINTS.map((load) => rowOf(mains, load, headOf(load)))}
            draftKey={`cell-${dossier.sample.id}`}
            resultWidths={LOAD_RESULT_WIDTHS}
            fixed
          />
        </Panel>
      ))}
      <Foot setup={setup} />
      {findings.map((finding) => (
        <Typography key={finding} variant="body2" color="warning.main">
          {finding}
        </Typography>
      ))}
      <Typography variant="body2" color="text.secondary">
        <Term of="rig">Rig</Term>: {rig?.name ?? 'missing'}. Warm up 30 min at 100 %, then downwards. Type a number, or
        with its unit (3250 mA), then Enter. A second value corrects the first; both are kept.
      </Typography>
    </Box>
  );
}
