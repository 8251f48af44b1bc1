// The load steps of one port as a grid: what to set, the meters' readings, and the judgement beside them.
import { shownTest } from '@lastmark/core/claim';
import { type StepResult, stepKey, stepTitle } from '@lastmark/core/proof';
import { formatPlain } from '@lastmark/core/quantity';
import { lineRefusal, mainsLabel, SUPPLY_WORDS } from '@lastmark/core/reading';
import { unstatedOf } from '@lastmark/core/uncertainty';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useReducer } from 'react';
import { type CellSpec, EntryGrid, type RowSpec } from '../../parts/EntryGrid.tsx';
import { NotStated } from '../../parts/NotStated.tsx';
import { RepeatButton } from '../../parts/RepeatButton.tsx';
import { StateMark } from '../../parts/StateMark.tsx';
import { TestBand } from '../../parts/TestBand.tsx';
import { type PointKey, type Target, useEntry } from '../../parts/useEntry.ts';
import { useSample } from '../../state/sample.tsx';
import type { ProofPlace } from './useProofPlace.ts';

interface Column extends Omit<Target, 'port'> {
  readonly head: string;
  readonly name: string;
}

const column = (place: Target['place'], head: string, name: string): readonly Column[] => [
  { head: `${head} V`, name: `${name} volts`, quantity: 'voltage', place },
  { head: `${head} A`, name: `${name} amps`, quantity: 'current', place },
];

function columnsOf({ rig }: ProofPlace, display: boolean): readonly Column[] {
  const atPort = rig?.outputPlace !== 'load-end';
  // A rig that reads at the socket only has nothing to type at the output.
  const atOutput = rig?.meters.outputVolts !== null;
  return [
    ...(atPort && atOutput ? column('port', 'Port', 'port') : []),
    ...((!atPort && atOutput) || rig?.meters.loadEnd ? column('load-end', 'Load end', 'load end') : []),
    ...(display ? column('display', 'Display', 'display') : []),
    { head: 'Mains W', name: 'mains watts', quantity: 'power', place: 'mains' },
  ];
}

/** The judged value with its band: volts of the worst port, or the power where only the socket was read. */
function Judged({ result }: { readonly result: StepResult }) {
  const test =
    result.tests.find(({ state, quantity }) => state === result.state && quantity === 'voltage') ??
    result.tests.find(({ state }) => state === result.state) ??
    result.tests[0];
  if (!test) return null;
  return (
    <Box>
      <Box component="span" sx={{ fontSize: 14, fontWeight: 600 }}>
        {shownTest(test)}
      </Box>
      <TestBand test={test} />
    </Box>
  );
}

interface Props {
  readonly title: string;
  readonly results: readonly StepResult[];
  readonly place: ProofPlace;
  readonly display: boolean;
  /** Reasons given for going beyond the line, by step. */
  readonly overrides: Readonly<Record<string, string>>;
  readonly onOverride: (result: StepResult, refusal: string) => void;
}

export function StepGrid({ title, results, place, display, overrides, onOverride }: Props) {
  const { dossier } = useSample();
  const { typedAt, commit, repeat, pointOf } = useEntry();
  const [, redraw] = useReducer((count: number) => count + 1, 0);
  const { rig, mains } = place;
  const columns = columnsOf(place, display);
  if (!rig) return null;

  const rowOf = (result: StepResult): RowSpec => {
    const { step } = result;
    const key: PointKey = {
      setupId: null,
      outputs: step.outputs,
      override: overrides[stepKey(step)] ?? null,
      mains,
      load: step.load,
      attached: 'nothing',
      rigId: rig.id,
    };
    const name = stepTitle(step);
    const refusal =
      step.load === 0 || overrides[stepKey(step)] || pointOf(key)
        ? null
        : (step.outputs.map(({ volts, amps }) => lineRefusal(rig.elements, volts, amps)).find(Boolean) ?? null);
    const targets = step.outputs.flatMap(({ port }) =>
      columns.filter(({ place: at }) => at !== 'mains').map((one) => ({ ...one, port })),
    );
    const all = [...targets, { quantity: 'power' as const, place: 'mains' as const, port: null, name: 'mains watts' }];
    const cellOf = ({ quantity, place: at, port, name: what }: (typeof all)[number]): CellSpec | null => {
      const target: Target = { quantity, place: at, port };
      const unloaded = step.load === 0 && quantity === 'current';
      return refusal || unloaded
        ? null
        : {
            id: `${stepKey(step)}|${rig.id}|${mainsLabel(mains)}|${quantity}|${at}|${port}`,
            label: `${name}, ${step.outputs.length > 1 && port ? `${port} ` : ''}${what}`,
            quantity,
            typed: typedAt(key, target),
            commit: (typed, really) => commit(key, target, typed, really),
          };
    };
    return {
      id: stepKey(step),
      head: (
        <Box sx={{ whiteSpace: 'normal', minWidth: 104, lineHeight: 1.2 }}>
          {step.outputs.map(({ port, volts, amps, supply }) => (
            <Box key={port}>
              {step.outputs.length > 1 && `${port} `}
              {supply && `${SUPPLY_WORDS[supply]} `}
              {formatPlain(volts, 'voltage')} {step.load === 0 ? 'no load' : formatPlain(amps, 'current')}
            </Box>
          ))}
          <Box component="span" sx={{ fontWeight: 400, fontSize: 12, color: 'text.secondary' }}>
            {step.reason === 'offered' ? 'offered' : step.from}
          </Box>
        </Box>
      ),
      cells: all.map(cellOf),
      results: refusal
        ? [
            <Box key="refused" sx={{ whiteSpace: 'normal', fontSize: 13, width: 208 }}>
              <StateMark state="unreachable" bare /> {refusal}
              <Button size="small" onClick={() => onOverride(result, refusal)} aria-label={`Go beyond for ${name}`}>
                Go beyond
              </Button>
            </Box>,
          ]
        : [
            <Box key="judged" sx={{ display: 'grid', gridTemplateColumns: '84px 120px', gap: 0.5, minHeight: 42 }}>
              <Box sx={{ display: 'grid', justifyItems: 'start', alignContent: 'start' }}>
                {result.delivered.length > 0 && <StateMark state={result.state} />}
                {pointOf(key) && (
                  <RepeatButton
                    of={name}
                    onRepeat={() => {
                      repeat(key);
                      redraw();
                    }}
                  />
                )}
              </Box>
              <Judged result={result} />
            </Box>,
          ],
    };
  };

  const notes = results.flatMap(({ step, notes: own }) => own.map((note) => `${stepTitle(step)}: ${note}`));
  const many = Math.max(...results.map(({ step }) => step.outputs.length));
  const heads =
    many > 1
      ? [
          'Step',
          ...(results[0]?.step.outputs ?? []).flatMap(({ port }) =>
            columns.filter(({ place: at }) => at !== 'mains').map(({ head }) => `${port} ${head}`),
          ),
          'Mains W',
          'Judged',
        ]
      : ['Step', ...columns.map(({ head }) => head), 'Judged'];
  return (
    <Box
      component="section"
      aria-label={title}
      sx={{
        p: 1.5,
        mb: 1.5,
        border: 1,
        borderColor: 'divider',
        borderRadius: 1,
        bgcolor: 'background.paper',
        overflowX: 'auto',
        // The judgement stays in sight while the meters scroll under it, and never covers the field being typed in.
        scrollPaddingRight: 230,
        '& tr > :last-child:not([colspan])': {
          position: 'sticky',
          right: 0,
          bgcolor: 'background.paper',
          pl: 1,
        },
      }}
    >
      <Box component="h3" sx={{ m: 0, mb: 0.5, px: 0.75, fontSize: 16 }}>
        {title}
      </Box>
      <EntryGrid
        label={`Steps of ${title}`}
        heads={heads}
        rows={results.map(rowOf)}
        draftKey={`proof-${dossier.sample.id}`}
      />
      <NotStated unstated={unstatedOf(results.flatMap(({ tests }) => tests))} />
      {[...new Set(notes)].map((note) => (
        <Box key={note} sx={{ px: 0.75, fontSize: 13, color: 'text.secondary' }}>
          {note}
        </Box>
      ))}
    </Box>
  );
}
