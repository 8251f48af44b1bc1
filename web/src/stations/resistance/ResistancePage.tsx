// Resistance: drops at several currents, what is lost by them, and what is left at a device.
import type { StoredCableRun } from '@lastmark/contract/types';
import { fixed, formatMeasured, formatPlain } from '@lastmark/core/quantity';
import { SIDE_WORDS, type SideResult } from '@lastmark/core/resistance';
import { stateWord } from '@lastmark/core/station';
import { expandedUncertainty } from '@lastmark/core/uncertainty';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { lazy, useState } from 'react';
import { CableRunList } from '../../cables/CableRunList.tsx';
import { Caution } from '../../parts/Caution.tsx';
import { EmptyFigure } from '../../parts/EmptyFigure.tsx';
import { FindingList } from '../../parts/FindingList.tsx';
import { figureHeight } from '../../parts/heights.ts';
import { Later } from '../../parts/Later.tsx';
import { LimitBand } from '../../parts/LimitBand.tsx';
import { PageHead } from '../../parts/Page.tsx';
import { QuietTable } from '../../parts/QuietTable.tsx';
import { StateMark } from '../../parts/StateMark.tsx';
import { useSample } from '../../state/sample.tsx';
import { AtDevices } from './AtDevices.tsx';
import { ByLength } from './ByLength.tsx';
import { ResistanceDialog } from './ResistanceDialog.tsx';

const DropChart = lazy(async () => ({ default: (await import('./DropChart.tsx')).DropChart }));

const CHART = 300;

/** Each side at the rated current, against what it may drop. */
function Sides({ sides, amps }: { readonly sides: readonly SideResult[]; readonly amps: number }) {
  return (
    <QuietTable<SideResult>
      label={`Drop at ${amps} A`}
      rows={sides}
      rowKey={({ side }) => side}
      exception={({ outcome }) => outcome === 'short'}
      columns={[
        { head: 'Along', cell: ({ side }) => SIDE_WORDS[side] },
        {
          head: 'R, as read',
          unit: 'mΩ',
          number: true,
          cell: ({ series }) => formatMeasured(series.ohms.value, expandedUncertainty(series.ohms), 'resistance'),
        },
        {
          head: 'R at 20 °C',
          unit: 'mΩ',
          number: true,
          cell: ({ series }) =>
            series.at20 && formatMeasured(series.at20.value, expandedUncertainty(series.at20), 'resistance'),
          empty: 'no temperature',
        },
        {
          head: `Drop at ${amps} A`,
          unit: 'mV',
          number: true,
          cell: ({ drop }) => formatMeasured(drop.value, expandedUncertainty(drop), 'voltage', 'mV'),
        },
        {
          head: 'Limit',
          cell: ({ drop, limit, outcome }) => {
            const u = expandedUncertainty(drop);
            return (
              <Box sx={{ display: 'flex', gap: 1, alignItems: 'center' }}>
                <LimitBand
                  value={drop.value}
                  known={{ low: drop.value - u, high: drop.value + u }}
                  words={formatMeasured(drop.value, u, 'voltage', 'mV')}
                  limit={{ kind: 'at-most', high: limit }}
                  quantity="voltage"
                />
                <span>
                  {formatPlain(limit, 'voltage', 'mV')}
                  {outcome === 'proven' ? ', within' : ''}
                </span>
                {outcome !== 'proven' && <StateMark state={outcome} />}
              </Box>
            );
          },
        },
        {
          head: 'Plugged',
          cell: ({ series }) =>
            series.result.spread === null
              ? `${series.result.pluggings} ×`
              : `${series.result.pluggings} ×, ± ${formatPlain(Number(series.result.spread.toPrecision(2)), 'resistance')} from one to the next`,
        },
      ]}
    />
  );
}

export function ResistancePage() {
  const { verdict, dossier } = useSample();
  const { sides, series, losses, loop, rated, gauge, findings } = verdict.results.resistance;
  const [open, setOpen] = useState<StoredCableRun | 'new' | null>(null);
  const length = dossier.sample.model.cable?.length ?? null;
  const worst = sides.find(({ outcome }) => outcome === 'short') ?? sides.find(({ outcome }) => outcome !== 'proven');
  return (
    <Box sx={{ maxWidth: 1160 }}>
      <PageHead title="Resistance">
        <Button variant="contained" onClick={() => setOpen('new')}>
          Enter drops
        </Button>
      </PageHead>
      {loop ? (
        <Typography sx={{ fontSize: 22, fontWeight: 600, mb: 1 }}>
          {formatMeasured(loop.value, expandedUncertainty(loop), 'resistance')}
          <Box component="span" sx={{ fontSize: 15, fontWeight: 400, color: 'text.secondary' }}>
            {' '}
            there and back
            {gauge !== null && `, as ${fixed(gauge, 1)} AWG over ${length} m, contacts included`}; held against{' '}
            {rated.amps} A, {rated.by}
            {worst && worst.outcome !== 'proven' && `: ${stateWord(worst.outcome)}`}
          </Box>
        </Typography>
      ) : (
        <EmptyFigure says="Drop against current shows here: its slope is the resistance." height={200}>
          <Button variant="outlined" onClick={() => setOpen('new')}>
            Enter drops
          </Button>
        </EmptyFigure>
      )}
      {loop && (
        <Later what="the chart" height={figureHeight(CHART)}>
          <DropChart height={CHART} />
        </Later>
      )}
      <FindingList findings={findings} />
      {sides.length > 0 && <Sides sides={sides} amps={rated.amps} />}
      {sides.length > 0 && !sides.some(({ side }) => side !== 'loop') && (
        <Typography variant="body2" color="text.secondary" sx={{ mt: 0.5 }}>
          Both together within 750 mV is necessary and not sufficient: VBUS may drop 500 mV, ground 250 mV.
        </Typography>
      )}
      {losses.length > 0 && (
        <>
          <Typography variant="h2" sx={{ mt: 2, mb: 1 }}>
            What is lost
          </Typography>
          <QuietTable
            label="What is lost"
            rows={losses}
            rowKey={({ amps }) => String(amps)}
            columns={[
              { head: 'At', cell: ({ amps }) => `${amps} A` },
              {
                head: 'Drop',
                unit: 'mV',
                number: true,
                cell: ({ drop }) => formatPlain(Number(drop.toPrecision(3)), 'voltage', 'mV'),
              },
              {
                head: 'Warms it',
                unit: 'W',
                number: true,
                cell: ({ loss }) => formatPlain(Number(loss.toPrecision(3)), 'power'),
              },
              ...[5, 9, 20].map((level) => ({
                head: `Left of ${level} V`,
                cell: ({ at }: (typeof losses)[number]) => {
                  const own = at.find((one) => one.level === level);
                  return own ? `${fixed(own.left, 2)} V, ${fixed(own.part * 100, 1)} % lost` : null;
                },
              })),
            ]}
          />
        </>
      )}
      <AtDevices />
      {series.some(({ side }) => side === 'loop') && <ByLength />}
      <CableRunList title="Series" kind="resistance" onCorrect={setOpen} />
      <Caution
        line="48 V at 5 A arcs when it is pulled: turn the load off first. What gets warm burns; let it cool."
        more="Four wires: the voltage taps sit inside the current clamps, at the very plugs. Stop at smell, smoke or a plug too hot to hold. Mains stays closed."
      />
      {open && <ResistanceDialog run={open === 'new' ? null : open} onClose={() => setOpen(null)} />}
    </Box>
  );
}
