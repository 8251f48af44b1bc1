// Idle: what it draws with nothing to do, at each mains, and what that costs a year.
import { powerBudget } from '@lastmark/core/efficiency';
import { drawWords, type IdleResult, yearWords } from '@lastmark/core/idle';
import { tooCoarse } from '@lastmark/core/procedure';
import { formatUncertainty } from '@lastmark/core/quantity';
import { ATTACHED, type Attached, type Mains, mainsLabel } from '@lastmark/core/reading';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { lazy, useReducer, useState } from 'react';
import { Link } from 'react-router';
import { CaptureList } from '../../captures/CaptureList.tsx';
import { BudgetLines } from '../../parts/BudgetLines.tsx';
import { type CellSpec, EntryGrid, type RowSpec } from '../../parts/EntryGrid.tsx';
import { Choice } from '../../parts/fields.tsx';
import { GridFoot } from '../../parts/GridFoot.tsx';
import { barsHeight, figureHeight } from '../../parts/heights.ts';
import { Later } from '../../parts/Later.tsx';
import { PageHead } from '../../parts/Page.tsx';
import { Panel } from '../../parts/Panel.tsx';
import { RepeatButton } from '../../parts/RepeatButton.tsx';
import { type PointKey, useEntry } from '../../parts/useEntry.ts';
import { useSample, useSupplies } from '../../state/sample.tsx';
import { IdleLimits } from './IdleLimits.tsx';
import { UsePanel } from './UsePanel.tsx';

const IdleBars = lazy(async () => ({ default: (await import('./IdleBars.tsx')).IdleBars }));

/** A screen or a pad is read only where the charger has one, or was read with one. */
const EXTRAS: readonly Attached[] = ['screen on', 'wireless pad on'];
const ATTACHMENTS = ATTACHED.filter((one) => !EXTRAS.includes(one));

const COLUMNS = [
  { head: 'Energy, Wh', name: 'energy', quantity: 'energy' },
  { head: 'over, min', name: 'minutes', quantity: 'duration' },
  { head: 'or watts', name: 'watts', quantity: 'power' },
] as const;

/** Where the picture will be, px. */
const IDLE_EMPTY = 170;

/** Room for draw, year and the button, px. */
const RESULT_WIDTHS: readonly number[] = [154, 80, 62];

/** Energy and cost of a year plugged in. */
function Year({ result }: { readonly result: IdleResult }) {
  const { tariff, currency } = useSample().dossier.profile;
  const { energy, cost } = yearWords(result, tariff, currency);
  return (
    <Box component="span" sx={{ display: 'block', lineHeight: 1.2 }}>
      {energy}
      <Box component="span" sx={{ display: 'block', fontSize: 13, color: 'text.secondary' }}>
        {cost}
      </Box>
    </Box>
  );
}

export function IdlePage() {
  const { dossier, verdict } = useSample();
  const { profile, rigs, points, sample } = dossier;
  const supplies = useSupplies();
  const lastRig = points.findLast(({ load, setupId }) => load === 0 && setupId === null)?.rigId;
  const [rigId, setRigId] = useState(lastRig ?? rigs[0]?.id ?? '');
  const { typedAt, commit, repeat } = useEntry();
  const [, redraw] = useReducer((count: number) => count + 1, 0);

  const rowOf = (mains: Mains, attached: Attached): RowSpec => {
    const key: PointKey = { setupId: null, mains, load: 0, attached, rigId };
    const result = verdict.results.idle.draws.find(
      (one) => one.attached === attached && mainsLabel(one.mains) === mainsLabel(mains),
    );
    const label = `${mainsLabel(mains)}, ${attached} attached`;
    const cells = COLUMNS.map(({ name, quantity }): CellSpec => {
      const target = { quantity, place: 'mains', port: null } as const;
      return {
        id: `idle|${mainsLabel(mains)}|${attached}|${quantity}`,
        label: `${label}, ${name}`,
        quantity,
        typed: typedAt(key, target),
        commit: (typed, really) => commit(key, target, typed, really),
      };
    });
    return {
      id: label,
      head: attached,
      cells,
      results: [
        result && (
          <Box component="span" key="draw" sx={{ fontWeight: 600, fontSize: 16 }}>
            {drawWords(result)}
            {result.runs > 1 && ` (${result.runs} runs)`}
          </Box>
        ),
        result && <Year key="year" result={result} />,
        result && (
          <RepeatButton
            key="repeat"
            of={label}
            onRepeat={() => {
              repeat(key);
              redraw();
            }}
          />
        ),
      ],
    };
  };

  const [extrasOn, setExtrasOn] = useState(false);
  const extras = EXTRAS.filter(
    (one) => extrasOn || verdict.results.idle.draws.some(({ attached }) => attached === one),
  );
  const rig = rigs.find(({ id }) => id === rigId);
  const meter = dossier.instruments.find(({ id }) => id === rig?.meters.mains);
  const promised = dossier.claims.flatMap(({ promise }) => (promise.kind === 'idle' ? [promise.watts] : []));
  // The strictest figure idle will be held against; 0.1 W is what the strictest limit set asks of a small charger.
  const decides = promised.length > 0 ? Math.min(...promised) : 0.1;
  const coarse = meter ? tooCoarse(meter.name, meter.specs.power, decides) : null;
  const findings = verdict.results.idle.draws.flatMap(({ mains, attached, findings: averaged, doubts, notes }) =>
    [...doubts, ...averaged, ...notes].map((finding) => `${mainsLabel(mains)}, ${attached}: ${finding}`),
  );
  return (
    <>
      <PageHead title="Idle">
        <Choice
          label="Rig"
          value={rigId}
          options={rigs.map(({ id, name }) => ({ value: id, label: name }))}
          onChange={setRigId}
          more={{ sx: { width: 220 } }}
        />
      </PageHead>
      {rigs.length === 0 ? (
        <Alert severity="warning">
          No rig yet: readings need to know their meters. <Link to="/bench">Add instruments and a rig at Bench</Link>.
        </Alert>
      ) : (
        <Box data-entry-area="">
          <Box sx={{ mb: 1.5 }}>
            <Later
              what="the chart"
              height={
                verdict.results.idle.draws.length > 0
                  ? figureHeight(barsHeight(verdict.results.idle.draws.length))
                  : IDLE_EMPTY
              }
            >
              <IdleBars />
            </Later>
          </Box>
          {supplies.map((mains) => (
            <Panel key={mainsLabel(mains)}>
              <Typography variant="h3" sx={{ px: 0.75 }}>
                {mainsLabel(mains)}
              </Typography>
              <EntryGrid
                label={`Idle at ${mainsLabel(mains)}`}
                heads={['Attached', ...COLUMNS.map(({ head }) => head), 'Draw', 'A year', '']}
                rows={[...ATTACHMENTS, ...extras].map((attached) => rowOf(mains, attached))}
                draftKey={`cell-${sample.id}`}
                resultWidths={RESULT_WIDTHS}
              />
            </Panel>
          ))}
          <GridFoot points={points.filter(({ setupId, load }) => setupId === null && load === 0)} />
        </Box>
      )}
      <BudgetLines
        rows={verdict.results.idle.draws.flatMap(({ mains, attached, watts, below }) => {
          const budget = powerBudget(watts);
          if (below !== null) return [];
          return {
            title: `${mainsLabel(mains)}, ${attached}`,
            budget,
            expanded: formatUncertainty(budget.expanded, 'power', 'mW'),
          };
        })}
      />
      {!extrasOn && (
        <Button size="small" onClick={() => setExtrasOn(true)} sx={{ mb: 1 }}>
          It has a screen or a wireless pad
        </Button>
      )}
      {coarse && (
        <Alert severity="info" sx={{ mb: 1.5 }}>
          {coarse}
        </Alert>
      )}
      {findings.map((finding) => (
        <Typography key={finding} variant="body2" color="warning.main">
          {finding}
        </Typography>
      ))}
      <Typography variant="body2" color="text.secondary">
        Best by energy over 10 min or more: idle comes in bursts. Meter’s voltage tap on the supply side. Cost at{' '}
        {profile.tariff} {profile.currency} a kWh, left plugged in all year.
      </Typography>
      <Typography variant="h2" sx={{ mt: 3, mb: 1 }}>
        Over time, and after unplugging
      </Typography>
      <CaptureList
        kinds={['idle', 'fading']}
        supplies={supplies}
        empty="None yet. A record of idle power shows its bursts; the output after the mains go off shows how long it stays charged."
      />
      <IdleLimits />
      <UsePanel />
    </>
  );
}
