// A table that is quiet when normal: units in the head, numbers on their decimal point, the exception marked, and empty
// cells that say what would fill them.
import Box from '@mui/material/Box';
import type { SxProps, Theme } from '@mui/material/styles';
import { Fragment, type ReactNode } from 'react';
import { bare, cut, type Widths, widthsOf } from './aligned.ts';

export interface Column<Row> {
  readonly head: string;
  /** Said once, in the head; left off the cells. */
  readonly unit?: string;
  /** A text, or anything drawn. Null where nothing is known. */
  readonly cell: (row: Row) => ReactNode;
  /** Cells are numbers as text and stand on their decimal point. */
  readonly number?: boolean;
  /** What would fill an empty cell. */
  readonly empty?: string;
}

interface Props<Row> {
  readonly label: string;
  readonly columns: readonly Column<Row>[];
  readonly rows: readonly Row[];
  readonly rowKey: (row: Row) => string;
  /** Rows somebody must see. */
  readonly exception?: (row: Row) => boolean;
  /** More about a row, across the table below it; null where nothing is opened. */
  readonly below?: (row: Row) => ReactNode;
  /** Most height before it scrolls by itself, px. */
  readonly height?: number;
}

const FRAME = {
  border: 1,
  borderColor: 'divider',
  borderRadius: 1,
  bgcolor: 'background.paper',
  overflow: 'auto',
} as const;

const TABLE: SxProps<Theme> = {
  borderCollapse: 'collapse',
  width: '100%',
  fontSize: 14,
  '& th, & td': { px: 1.25, py: 0.6, textAlign: 'left', verticalAlign: 'baseline' },
  '& thead th': {
    position: 'sticky',
    top: 0,
    bgcolor: 'background.paper',
    color: 'text.secondary',
    fontWeight: 600,
    fontSize: 13,
    boxShadow: (theme) => `inset 0 -1px ${theme.palette.line}`,
  },
  '& tbody tr + tr > *': { borderTop: 1, borderColor: 'divider' },
  '& tbody th': { fontWeight: 600 },
  '& tr[data-exception=true]': {
    bgcolor: 'badGround',
    boxShadow: (theme) => `inset 4px 0 ${theme.palette.error.main}`,
  },
  '& a': { color: 'primary.main' },
  '& [data-empty]': { color: 'text.secondary', fontSize: 13 },
  '& [data-number] > span': { display: 'inline-block' },
};

/** A number with a unit of its own. */
const WITH_UNIT = /^[−-]?\d[\d.]*(?: ± \d[\d.]*)? \S{1,4}$/;

/** One number, each part as wide as the widest of its column. */
export function Aligned({ text, widths }: { readonly text: string; readonly widths: Widths }) {
  const parts = cut(text);
  if (!parts) return WITH_UNIT.test(text) ? <span style={{ whiteSpace: 'nowrap' }}>{text}</span> : text;
  const room = (characters: number, right: boolean) =>
    ({ minWidth: `${characters}ch`, textAlign: right ? 'right' : 'left' }) as const;
  return (
    <span data-number="" style={{ whiteSpace: 'nowrap' }}>
      <span style={room(widths.whole, true)}>{parts.whole}</span>
      <span style={room(widths.part, false)}>{parts.part}</span>
      {parts.uWhole !== '' && (
        <>
          {' ± '}
          <span style={room(widths.uWhole, true)}>{parts.uWhole}</span>
          <span style={room(widths.uPart, false)}>{parts.uPart}</span>
        </>
      )}
    </span>
  );
}

interface ContentProps {
  readonly shown: ReactNode;
  readonly empty: string | undefined;
  readonly widths: Widths | null;
}

function Content({ shown, empty = '', widths }: ContentProps) {
  if (shown === null || shown === '') return <span data-empty="">{empty}</span>;
  return widths && typeof shown === 'string' ? <Aligned text={shown} widths={widths} /> : shown;
}

export function QuietTable<Row>({ label, columns, rows, rowKey, exception, below, height }: Props<Row>) {
  const textOf = ({ cell, unit = '' }: Column<Row>, row: Row): ReactNode => {
    const shown = cell(row);
    return typeof shown === 'string' ? bare(shown, unit) : shown;
  };
  const widths = columns.map((column) =>
    column.number
      ? widthsOf(rows.flatMap((row) => textOf(column, row)).filter((text): text is string => typeof text === 'string'))
      : null,
  );
  return (
    <Box
      sx={FRAME}
      style={height === undefined ? undefined : { maxHeight: height }}
      tabIndex={0}
      role="region"
      aria-label={label}
    >
      <Box component="table" aria-label={label} sx={TABLE}>
        <thead>
          <tr>
            {columns.map(({ head, unit }) => (
              <th key={head} scope="col">
                {unit ? `${head}, ${unit}` : head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => {
            const more = below?.(row) ?? null;
            return (
              <Fragment key={rowKey(row)}>
                <tr data-exception={exception?.(row) ?? false}>
                  {columns.map((column, index) => (
                    <Box
                      key={column.head}
                      component={index === 0 ? 'th' : 'td'}
                      {...(index === 0 ? { scope: 'row' } : null)}
                    >
                      <Content shown={textOf(column, row)} empty={column.empty} widths={widths[index] ?? null} />
                    </Box>
                  ))}
                </tr>
                {more !== null && (
                  <tr>
                    <td colSpan={columns.length}>{more}</td>
                  </tr>
                )}
              </Fragment>
            );
          })}
        </tbody>
      </Box>
    </Box>
  );
}
