// The load points of one loading at every mains, typed from left to right and downwards.
import type { StoredSetup } from '@lastmark/contract/types';
import { LOAD_POINTS, type LoadResult, type SeriesResult } from '@lastmark/core/efficiency';
import { formatMeasured, formatPlain, formatValue } from '@lastmark/core/quantity';
import { type Mains, mainsLabel } from '@lastmark/core/reading';
import { expandedUncertainty } from '@lastmark/core/uncertainty';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useReducer } from 'react';
import { useOnBench } from '../../app/bench.tsx';
import { type CellSpec, EntryGrid, type RowSpec } from '../../parts/EntryGrid.tsx';
import { RepeatButton } from '../../parts/RepeatButton.tsx';
import { type PointKey, type Target, useEntry } from '../../parts/useEntry.ts';

interface Column extends Target {
  readonly head: string;
  readonly name: string;
}

const INPUT: readonly Column[] = [
  { head: 'Input, W', name: 'input watts', quantity: 'power', place: 'mains', port: null },
  { head: 'PF', name: 'power factor', quantity: 'power-factor', place: 'mains', port: null },
];

function columnsOf({ outputs }: StoredSetup, place: 'port' | 'load-end'): readonly Column[] {
  const many = outputs.length > 1;
  return [
    ...INPUT,
    ...outputs.flatMap(({ port }): Column[] => [
      { head: many ? `${port}, V` : 'Output, V', name: `${port} volts`, quantity: 'voltage', place, port },
      { head: many ? `${port}, A` : 'Output, A', name: `${port} amps`, quantity: 'current', place, port },
    ]),
  ];
}

function Result({ result }: { readonly result: LoadResult | undefined }) {
  if (!result) return null;
  return (
    <Box component="span" sx={{ fontWeight: 600, fontSize: 16 }}>
      {formatMeasured(result.efficiency.value, expandedUncertainty(result.efficiency), 'efficiency')}
      {result.runs > 1 && (
        <Box component="span" sx={{ fontWeight: 400, fontSize: 12, color: 'text.secondary', ml: 0.5 }}>
          {result.runs} runs
        </Box>
      )}
    </Box>
  );
}

/** Current to set at a load point, so that nobody has to work it out. */
const setting = (setup: StoredSetup, load: number): string =>
  setup.outputs.map(({ amps }) => formatPlain(amps * load, 'current')).join(' + ');

interface Props {
  readonly setup: StoredSetup;
  readonly series: SeriesResult;
}

export function LoadGrid({ setup, series }: Props) {
  const { dossier } = useOnBench();
  const { typedAt, commit, repeat, pointOf } = useEntry();
  const [, redraw] = useReducer((count: number) => count + 1, 0);
  const rig = dossier.rigs.find(({ id }) => id === setup.rigId);
  const columns = columnsOf(setup, rig?.outputPlace ?? 'port');
  const heads = ['Load', ...columns.map(({ head }) => head), 'Efficiency', 'Output', 'Loss', ''];

  const rowOf = (mains: Mains, load: number): RowSpec => {
    const idle = load === 0;
    const key: PointKey = { setupId: idle ? null : setup.id, mains, load, attached: 'nothing', rigId: setup.rigId };
    const result = series.byMains
      .find((one) => mainsLabel(one.mains) === mainsLabel(mains))
      ?.loads.find((one) => one.load === load);
    const cells = columns.map((target): CellSpec | null =>
      idle && target.place !== 'mains'
        ? null
        : {
            id: `${setup.id}|${mainsLabel(mains)}|${load}|${target.quantity}|${target.port}`,
            label: `${mainsLabel(mains)}, ${Math.round(load * 100)} %, ${target.name}`,
            quantity: target.quantity,
            typed: typedAt(key, target),
            commit: (typed) =>
              commit(key, { quantity: target.quantity, place: target.place, port: target.port }, typed),
          },
    );
    return {
      id: `${mainsLabel(mains)} ${load}`,
      head: (
        <>
          {Math.round(load * 100)} %
          <Box
            component="span"
            sx={{ display: 'block', fontWeight: 400, fontSize: 12, color: 'text.secondary', lineHeight: 1.1 }}
          >
            {idle ? 'idle' : setting(setup, load)}
          </Box>
        </>
      ),
      cells,
      results: [
        <Result key="eff" result={result} />,
        result ? formatValue(result.output.value, 'power', 2) : '',
        result ? formatValue(result.loss.value, 'power', 2) : '',
        result && pointOf(key) ? (
          <RepeatButton
            key="repeat"
            of={`${mainsLabel(mains)}, ${Math.round(load * 100)} %`}
            onRepeat={() => {
              repeat(key);
              redraw();
            }}
          />
        ) : null,
      ],
    };
  };

  const findings = series.byMains.flatMap(({ mains, loads }) =>
    loads.flatMap((one) => one.findings.map((finding) => `${mainsLabel(mains)}: ${finding}`)),
  );
  return (
    <Box data-entry-area="">
      {dossier.profile.mains.map((mains) => (
        <Box
          key={mainsLabel(mains)}
          sx={{
            p: 1.5,
            mb: 1.5,
            border: 1,
            borderColor: 'divider',
            borderRadius: 1,
            bgcolor: 'background.paper',
            overflowX: 'auto',
          }}
        >
          <Typography variant="h3" sx={{ px: 0.75 }}>
            {mainsLabel(mains)}
          </Typography>
          <EntryGrid
            label={`Readings at ${mainsLabel(mains)}`}
            heads={heads}
            rows={LOAD_POINTS.map((load) => rowOf(mains, load))}
            draftKey={`cell-${dossier.sample.id}`}
          />
        </Box>
      ))}
      {findings.map((finding) => (
        <Typography key={finding} variant="body2" color="warning.main">
          {finding}
        </Typography>
      ))}
      <Typography variant="body2" color="text.secondary">
        Rig: {rig?.name ?? 'missing'}. Warm up 30 min at 100 %, then downwards. Type a number, or with its unit (3250
        mA), then Enter. A second value corrects the first; both are kept.
      </Typography>
    </Box>
  );
}
