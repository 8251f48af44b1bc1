// Readings typed with number keys and Enter alone: a grid that keeps what is typed until the server has it.
import Box from '@mui/material/Box';
import type { SxProps, Theme } from '@mui/material/styles';
import { type ReactNode, useCallback, useRef, useState } from 'react';
import { Cell, type CellSpec, type Put, type Report, type Spread } from './EntryCell.tsx';
import { cellsOf, placed } from './spread.ts';
import { UnitHead } from './UnitHead.tsx';

export type { CellSpec } from './EntryCell.tsx';

export interface RowSpec {
  readonly id: string;
  readonly head: ReactNode;
  /** Null leaves a place empty. */
  readonly cells: readonly (CellSpec | null)[];
  /** What follows from the row. */
  readonly results: readonly ReactNode[];
}

interface Props {
  readonly label: string;
  readonly heads: readonly ReactNode[];
  readonly rows: readonly RowSpec[];
  /** Key under which unsaved text is kept. */
  readonly draftKey: string;
  /** Room kept for each result, px, so that nothing moves when the first appears. */
  readonly resultWidths?: readonly number[];
  /** Grids one above the other share their columns. */
  readonly fixed?: boolean;
}
interface RowProps {
  readonly row: RowSpec;
  readonly spread: Spread;
  /** Unit of each column of cells. */
  readonly units: readonly string[];
  /** Room its fields need, px; empty where the grid sees to it. */
  readonly rooms: readonly number[];
  readonly draftKey: string;
  readonly width: number;
  readonly resultWidths: readonly number[];
}

function Row({ row, draftKey, width, resultWidths, spread, units, rooms }: RowProps) {
  const [problems, setProblems] = useState<Readonly<Record<string, string>>>({});
  const report = useRef<Report>((cellId, problem) =>
    setProblems(({ [cellId]: _old, ...rest }) => (problem === null ? rest : { ...rest, [cellId]: problem })),
  );
  const cells = useRef(row.cells);
  cells.current = row.cells;
  const store = useRef((column: number, typed: string, really: boolean) => {
    const cell = cells.current[column];
    return cell ? cell.commit(typed, really) : Promise.resolve();
  });
  const sentences = row.cells.flatMap((cell) =>
    cell && problems[cell.id] ? [`${cell.label}: ${problems[cell.id]}`] : [],
  );
  return (
    <>
      <tr>
        <th scope="row">{row.head}</th>
        {row.cells.map((cell, column) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: columns never move
          <td key={column} style={rooms[column] === undefined ? undefined : { minWidth: rooms[column] }}>
            {cell && (
              <Cell
                key={cell.id}
                cell={cell}
                column={column}
                draftKey={draftKey}
                report={report.current}
                store={store.current}
                spread={spread}
                unit={units[column] ?? ''}
              />
            )}
          </td>
        ))}
        {row.results.map((result, index) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: columns never move
          <td key={index} style={{ minWidth: resultWidths[index] }}>
            {result}
          </td>
        ))}
      </tr>
      {sentences.length > 0 && (
        <tr>
          <td colSpan={width}>
            <Box role="alert" sx={{ color: 'error.main', fontSize: 13, maxWidth: 640, whiteSpace: 'normal' }}>
              {sentences.join(' ')}
            </Box>
          </td>
        </tr>
      )}
    </>
  );
}

const NO_WIDTHS: readonly number[] = [];

/** One style for the whole grid: many cells with styles of their own take long to draw. */
const TABLE: SxProps<Theme> = {
  borderCollapse: 'collapse',
  width: '100%',
  '& th, & td': { px: 0.45, py: 0.4, textAlign: 'left', fontWeight: 400, whiteSpace: 'nowrap' },
  '& thead th': { color: 'text.secondary', fontWeight: 600, fontSize: 13, verticalAlign: 'bottom' },
  '& tbody th': { fontWeight: 600, pr: 1 },
  '& small': { fontWeight: 400, fontSize: 12, color: 'text.secondary' },
  '& tbody th small': { display: 'block', lineHeight: 1.1 },
  '& td strong': { fontWeight: 600, fontSize: 16 },
  '& input[data-entry]': {
    width: '100%',
    minWidth: 62,
    height: 32,
    px: 0.5,
    font: 'inherit',
    fontSize: 15,
    textAlign: 'right',
    color: 'text.primary',
    bgcolor: 'background.default',
    border: '1px solid',
    borderColor: 'soft',
    borderRadius: 0.75,
  },
  '& input[data-state=saving]': { borderStyle: 'dashed' },
  '& input[data-state=refused]': { borderColor: 'error.main', borderWidth: 2 },
};

/** Widths, px: a sign of a number, what surrounds it in its field, the narrowest field, the column of heads. */
const SIGN = 9;
const FIELD_EDGE = 20;
const LEAST_FIELD = 66;
const FIRST_COLUMN = 92;

const sum = (of: readonly number[]): number => of.reduce((all, one) => all + one, 0);

/** Same columns in every grid of a page: heads and fields share what room there is, results have theirs. */
const FIXED: SxProps<Theme> = {
  '& table': { tableLayout: 'fixed' },
  '& thead th': { whiteSpace: 'normal' },
};

export function EntryGrid({ label, heads, rows, draftKey, resultWidths = NO_WIDTHS, fixed = false }: Props) {
  const latest = useRef(rows);
  latest.current = rows;
  const [spread] = useState((): Spread => {
    const puts = new Map<string, Put>();
    return {
      puts,
      paste: (cellId, text) => {
        const block = cellsOf(text);
        if (block.length === 1 && block[0]?.length === 1) return false;
        for (const [id, one] of placed(
          latest.current.map(({ cells }) => cells.map((cell) => cell?.id ?? null)),
          cellId,
          block,
        ))
          puts.get(id)?.(one);
        return true;
      },
    };
  });
  const quantities =
    (rows.find(({ cells }) => cells.every(Boolean)) ?? rows[0])?.cells.map((cell) => cell?.quantity ?? null) ?? [];
  const [units, setUnits] = useState<Readonly<Record<number, string>>>({});
  const setUnit = useCallback(
    (column: number, unit: string) => setUnits((before) => ({ ...before, [column]: unit })),
    [],
  );
  const first = heads.length - quantities.length - (rows[0]?.results.length ?? 0);
  const unitOf = (column: number) => units[column] ?? '';
  /** Room a column of fields needs for the longest that stands in it, px. */
  const rooms = quantities.map((_quantity, column) =>
    rows.reduce(
      (most, { cells }) => Math.max(most, (cells[column]?.typed.length ?? 0) * SIGN + FIELD_EDGE),
      LEAST_FIELD,
    ),
  );
  return (
    <Box
      component="table"
      aria-label={label}
      sx={fixed ? [TABLE as object, FIXED as object] : TABLE}
      style={fixed ? { tableLayout: 'fixed', minWidth: sum(rooms) + sum(resultWidths) + FIRST_COLUMN } : undefined}
    >
      {fixed && (
        <colgroup>
          {heads.map((_head, index) => {
            const room = rooms[index - first] ?? resultWidths[index - first - quantities.length];
            // biome-ignore lint/suspicious/noArrayIndexKey: columns never move
            return <col key={index} style={{ width: index < first ? FIRST_COLUMN : room }} />;
          })}
        </colgroup>
      )}
      <thead>
        <tr>
          {heads.map((head, index) => {
            const quantity = quantities[index - first];
            return (
              // biome-ignore lint/suspicious/noArrayIndexKey: columns never move
              <th key={index} scope="col">
                {quantity && typeof head === 'string' ? (
                  <UnitHead
                    head={head}
                    quantity={quantity}
                    unit={unitOf(index - first)}
                    column={index - first}
                    onUnit={setUnit}
                  />
                ) : (
                  head
                )}
              </th>
            );
          })}
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <Row
            key={row.id}
            row={row}
            draftKey={draftKey}
            width={heads.length}
            resultWidths={resultWidths}
            spread={spread}
            units={quantities.map((_quantity, column) => unitOf(column))}
            rooms={fixed ? NO_WIDTHS : rooms}
          />
        ))}
      </tbody>
    </Box>
  );
}
