// One row of load readings, typed from left to right: the cells of a loading and what follows from them.
import type { StoredSetup } from '@lastmark/contract/types';
import type { LoadResult, SeriesResult } from '@lastmark/core/efficiency';
import { fixed, formatMeasured, formatPlain } from '@lastmark/core/quantity';
import { type Mains, mainsLabel } from '@lastmark/core/reading';
import { expandedUncertainty } from '@lastmark/core/uncertainty';
import { type ReactNode, useReducer } from 'react';
import type { CellSpec, RowSpec } from '../../parts/EntryGrid.tsx';
import { RepeatButton } from '../../parts/RepeatButton.tsx';
import { type PointKey, type Target, useEntry } from '../../parts/useEntry.ts';
import { useSample } from '../../state/sample.tsx';

interface Column extends Target {
  readonly head: string;
  readonly name: string;
}

const INPUT: readonly Column[] = [
  { head: 'Input, W', name: 'input watts', quantity: 'power', place: 'mains', port: null },
  { head: 'PF', name: 'power factor', quantity: 'power-factor', place: 'mains', port: null },
];

function columnsOf({ outputs }: StoredSetup, place: 'port' | 'load-end', dc: boolean): readonly Column[] {
  const many = outputs.length > 1;
  return [
    // A DC supply has no power factor.
    ...INPUT.filter(({ quantity }) => !dc || quantity !== 'power-factor'),
    ...outputs.flatMap(({ port }): Column[] => [
      { head: many ? `${port}, V` : 'Output, V', name: `${port} volts`, quantity: 'voltage', place, port },
      { head: many ? `${port}, A` : 'Output, A', name: `${port} amps`, quantity: 'current', place, port },
    ]),
  ];
}

function Result({ result }: { readonly result: LoadResult | undefined }) {
  if (!result) return null;
  return (
    <>
      <strong>{formatMeasured(result.efficiency.value, expandedUncertainty(result.efficiency), 'efficiency')}</strong>
      {result.runs > 1 && <small> {result.runs} runs</small>}
    </>
  );
}

/** Current to set at a load point, so that nobody has to work it out. */
export const setting = (setup: StoredSetup, load: number): string =>
  setup.outputs.map(({ amps }) => formatPlain(amps * load, 'current')).join(' + ');

/** Room for efficiency, output, loss and the button, px. */
export const LOAD_RESULT_WIDTHS: readonly number[] = [124, 72, 62, 70];

export interface LoadRows {
  /** Heads after the first column. */
  readonly heads: readonly string[];
  readonly rowOf: (mains: Mains, load: number, head: ReactNode) => RowSpec;
}

/** Rows of one loading at any supply and load. */
export function useLoadRows(setup: StoredSetup, series: SeriesResult): LoadRows {
  const { dossier } = useSample();
  const { typedAt, commit, repeat, pointOf } = useEntry();
  const [, redraw] = useReducer((count: number) => count + 1, 0);
  const rig = dossier.rigs.find(({ id }) => id === setup.rigId);
  const columns = columnsOf(setup, rig?.outputPlace ?? 'port', dossier.sample.model.kind === 'car');
  const heads = [...columns.map(({ head }) => head), 'Efficiency', 'Output, W', 'Loss, W', ''];

  const rowOf = (mains: Mains, load: number, head: ReactNode): RowSpec => {
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
            commit: (typed, really) =>
              commit(key, { quantity: target.quantity, place: target.place, port: target.port }, typed, really),
          },
    );
    return {
      id: `${mainsLabel(mains)} ${load}`,
      head,
      cells,
      results: [
        <Result key="eff" result={result} />,
        result ? fixed(result.output.value, 2) : '',
        result ? fixed(result.loss.value, 2) : '',
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

  return { heads, rowOf };
}
