// Bends: the plan, what each look showed, what it lost by them, and how the units of its model lived.
import type { StoredCableRun } from '@lastmark/contract/types';
import type { Wear } from '@lastmark/core/bends';
import type { BendRun } from '@lastmark/core/cable';
import { formatMeasured, formatPlain } from '@lastmark/core/quantity';
import { SIDE_WORDS } from '@lastmark/core/resistance';
import { expandedUncertainty } from '@lastmark/core/uncertainty';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { lazy, useState } from 'react';
import { CableRunList } from '../../cables/CableRunList.tsx';
import { Caution } from '../../parts/Caution.tsx';
import { FindingList } from '../../parts/FindingList.tsx';
import { figureHeight } from '../../parts/heights.ts';
import { Later } from '../../parts/Later.tsx';
import { PageHead } from '../../parts/Page.tsx';
import { QuietTable } from '../../parts/QuietTable.tsx';
import { useSample } from '../../state/sample.tsx';
import { BendDialog } from './BendDialog.tsx';
import { Units } from './Units.tsx';
import { WiggleTrace } from './WiggleTrace.tsx';

const WearChart = lazy(async () => ({ default: (await import('./WearChart.tsx')).WearChart }));

const CHART = 260;

/** How far the plan is: each look as a mark on the way. */
function Plan() {
  const { verdict } = useSample();
  const { plan, done, next, failed } = verdict.results.bends;
  const minutes = Math.round(plan.seconds / 60);
  return (
    <Box sx={{ mb: 1.5 }}>
      <Typography sx={{ fontSize: 22, fontWeight: 600 }}>
        {failed ? `Failed by ${failed.count} bends: ${failed.fault}` : `${done} of ${plan.count} bends`}
        <Box component="span" sx={{ fontSize: 15, fontWeight: 400, color: 'text.secondary' }}>
          {' '}
          {plan.why}; about {minutes < 120 ? `${minutes} min` : `${(minutes / 60).toFixed(1)} h`} of the bender
          {next !== null && `; next look at ${next}`}
        </Box>
      </Typography>
      <Box
        role="progressbar"
        aria-label="Bends"
        aria-valuenow={Math.min(done, plan.count)}
        aria-valuemin={0}
        aria-valuemax={plan.count}
        sx={{ position: 'relative', height: 26, mt: 0.5 }}
      >
        <Box
          sx={{
            position: 'absolute',
            top: 4,
            left: 0,
            right: 0,
            height: 8,
            border: 1,
            borderColor: 'soft',
            borderRadius: 1,
          }}
        />
        <Box
          sx={{
            position: 'absolute',
            top: 4,
            left: 0,
            height: 8,
            borderRadius: 1,
            bgcolor: failed ? 'error.main' : 'primary.main',
          }}
          style={{ width: `${Math.min(100, (done / plan.count) * 100)}%` }}
        />
        {plan.looks.map((look, at) => (
          <Box
            key={look}
            sx={{
              position: 'absolute',
              top: 0,
              fontSize: 12,
              color: 'text.secondary',
              transform: at === plan.looks.length - 1 ? 'translateX(-100%)' : 'translateX(-50%)',
              whiteSpace: 'nowrap',
              pt: '14px',
            }}
            style={{ left: `${(look / plan.count) * 100}%` }}
          >
            {look}
          </Box>
        ))}
      </Box>
    </Box>
  );
}

export function BendsPage() {
  const { verdict } = useSample();
  const { looks, wear, findings } = verdict.results.bends;
  const [open, setOpen] = useState<StoredCableRun | 'new' | null>(null);
  return (
    <Box sx={{ maxWidth: 1100 }}>
      <PageHead title="Bends">
        <Button variant="contained" onClick={() => setOpen('new')}>
          Enter a look
        </Button>
      </PageHead>
      <Plan />
      {wear.length > 0 && (
        <Later what="the chart" height={figureHeight(CHART)}>
          <WearChart height={CHART} />
        </Later>
      )}
      <FindingList findings={findings} />
      {wear.length > 0 && (
        <Box sx={{ mb: 2 }}>
          <QuietTable<Wear>
            label="What it lost"
            rows={wear}
            rowKey={({ side, bends }) => `${side} ${bends}`}
            exception={({ worn }) => worn === true}
            columns={[
              { head: 'After', cell: ({ bends }) => `${bends} bends` },
              { head: 'Along', cell: ({ side }) => SIDE_WORDS[side] },
              {
                head: 'R at 20 °C',
                unit: 'mΩ',
                number: true,
                cell: ({ ohms }) => formatMeasured(ohms.value, expandedUncertainty(ohms), 'resistance'),
              },
              {
                head: 'More by',
                unit: 'mΩ',
                number: true,
                cell: ({ delta }) => formatMeasured(delta.value, expandedUncertainty(delta), 'resistance'),
              },
              { head: 'Of what it was', unit: '%', number: true, cell: ({ part }) => (part * 100).toFixed(1) },
              { head: 'So', cell: ({ sentence }) => sentence.slice(sentence.lastIndexOf(': ') + 2) },
            ]}
          />
          <Typography variant="body2" color="text.secondary" sx={{ mt: 0.5 }}>
            Worn: more by a tenth, and by more than its own uncertainty.
          </Typography>
        </Box>
      )}
      {looks.length > 0 && (
        <QuietTable<BendRun>
          label="Looks"
          rows={looks}
          rowKey={({ id }) => id}
          exception={({ fault }) => fault !== 'none'}
          columns={[
            { head: 'Bends', number: true, cell: ({ count }) => String(count) },
            { head: 'Fault', cell: ({ fault }) => (fault === 'none' ? 'none' : fault) },
            { head: 'Charges', cell: ({ charging }) => charging },
            {
              head: 'Bent',
              cell: ({ angle, radius, tension, rate }) =>
                `${angle}° each way over ${formatPlain(radius, 'length')}${tension === null ? '' : `, ${Number(tension.toPrecision(2))} N`}, ${rate} a minute`,
            },
            {
              head: 'Wiggled',
              cell: ({ wiggle }) => wiggle && <WiggleTrace wiggle={wiggle} />,
              empty: '',
            },
            { head: 'Note', cell: ({ note }) => note, empty: '' },
          ]}
        />
      )}
      <Units />
      <CableRunList title="Every look" kind="bend" onCorrect={setOpen} />
      <Caution
        line="Bend it unplugged. Try it afterwards at 5 V first: a broken cable can short."
        more="Keep fingers and sleeves out of the bender. An intermittent cable under load arcs and gets hot at the break: loads off before you wiggle it."
      />
      {open && <BendDialog run={open === 'new' ? null : open} onClose={() => setOpen(null)} />}
    </Box>
  );
}
