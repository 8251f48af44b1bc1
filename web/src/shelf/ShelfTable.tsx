// The shelf's table: only the rows in sight are drawn, further pages are fetched when their rows come near.
import type { SampleRow, ShelfOrder } from '@lastmark/contract/types';
import Box from '@mui/material/Box';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useLayoutEffect, useRef } from 'react';
import { Link } from 'react-router';
import { cellsOf } from './cells.tsx';

const ROW_HEIGHT = 62;
/** With a line of labels below the name; then all rows have room for one. */
const LABELLED_HEIGHT = 88;
const NEAR_END = 20;

const COLUMNS = '108px minmax(132px, 1.5fr) 78px minmax(122px, 0.8fr) minmax(146px, 0.8fr) 70px 68px 160px';
/** Least room for all of them, px: narrower, the table scrolls by itself. */
const LEAST_WIDTH = 960;

/** Heads, what each is sorted by, and whether the largest comes first at once. Prices are in several currencies. */
const HEADS: readonly { readonly title: string; readonly sort?: ShelfOrder; readonly down?: boolean }[] = [
  { title: 'Ports' },
  { title: 'Sample', sort: 'name' },
  { title: 'Nameplate', sort: 'watts', down: true },
  { title: 'Average efficiency', sort: 'efficiency', down: true },
  { title: 'Idle', sort: 'idle' },
  { title: 'Mass', sort: 'mass' },
  { title: 'Price' },
  { title: 'Claims', sort: 'short', down: true },
];

export interface Order {
  /** Empty for the last changed first. */
  readonly sort: string;
  readonly down: boolean;
}

/** What a press on a head asks for: its own way first, then the other, then the last changed again. */
function nextOrder(sort: ShelfOrder, down: boolean, now: Order): Order {
  if (now.sort !== sort) return { sort, down };
  return now.down === down ? { sort, down: !down } : { sort: '', down: false };
}

interface HeadProps {
  readonly head: (typeof HEADS)[number];
  readonly order: Order;
  readonly onOrder: (order: Order) => void;
}

function Head({ head, order, onOrder }: HeadProps) {
  const sorted = head.sort !== undefined && order.sort === head.sort;
  const direction = order.down ? 'descending' : 'ascending';
  return (
    <Box role="columnheader" aria-sort={sorted ? direction : undefined}>
      {head.sort ? (
        <Box
          component="button"
          type="button"
          onClick={() => onOrder(nextOrder(head.sort ?? 'name', head.down ?? false, order))}
          sx={{
            all: 'unset',
            cursor: 'pointer',
            color: sorted ? 'text.primary' : 'inherit',
            '&:hover': { textDecoration: 'underline' },
            '&:focus-visible': { outline: '3px solid', outlineColor: 'primary.main', outlineOffset: 1 },
          }}
        >
          {head.title}
          <Box component="span" aria-hidden sx={{ pl: 0.5, visibility: sorted ? 'visible' : 'hidden' }}>
            {order.down ? '↓' : '↑'}
          </Box>
        </Box>
      ) : (
        head.title
      )}
    </Box>
  );
}

/** Labels of a sample, each a way to all that have it; above the press that opens the row. */
function Labels({
  labels,
  onLabel,
}: {
  readonly labels: readonly string[];
  readonly onLabel: (label: string) => void;
}) {
  return (
    <Box sx={{ display: 'flex', gap: 0.5, overflow: 'hidden', position: 'relative', zIndex: 1 }}>
      {labels.slice(0, 3).map((label) => (
        <Box
          key={label}
          component="button"
          type="button"
          onClick={() => onLabel(label)}
          aria-label={`All labelled ${label}`}
          sx={{
            all: 'unset',
            cursor: 'pointer',
            fontSize: 12,
            lineHeight: '22px',
            minHeight: 24,
            px: 0.75,
            border: 1,
            borderColor: 'divider',
            borderRadius: 1,
            whiteSpace: 'nowrap',
            overflow: 'hidden',
            textOverflow: 'ellipsis',
            '&:focus-visible': { outline: '3px solid', outlineColor: 'primary.main' },
          }}
        >
          {label}
        </Box>
      ))}
    </Box>
  );
}

interface Props {
  readonly rows: readonly SampleRow[];
  readonly total: number;
  readonly onEnd: () => void;
  readonly order: Order;
  readonly onOrder: (order: Order) => void;
  /** Samples that are selected; null while a press opens one. */
  readonly selected: ReadonlyMap<string, SampleRow> | null;
  readonly onSelect: (row: SampleRow) => void;
  readonly onLabel: (label: string) => void;
}

/** The name of a row: a press anywhere on the row is one on it. */
const ROW_NAME = {
  fontWeight: 600,
  display: 'block',
  '&::after': { content: '""', position: 'absolute', inset: 0 },
} as const;

export function ShelfTable({ rows, total, onEnd, order, onOrder, selected, onSelect, onLabel }: Props) {
  const scroller = useRef<HTMLDivElement>(null);
  const height = rows.some(({ labels }) => labels.length > 0) ? LABELLED_HEIGHT : ROW_HEIGHT;
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => height,
    overscan: 8,
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: rows of another height are measured anew
  useLayoutEffect(() => virtual.measure(), [height]);
  const items = virtual.getVirtualItems();
  const last = items.at(-1)?.index ?? 0;
  useEffect(() => {
    if (last >= rows.length - NEAR_END && rows.length < total) onEnd();
  }, [last, rows.length, total, onEnd]);
  return (
    <Box
      ref={scroller}
      role="table"
      aria-label="Samples"
      aria-rowcount={total + 1}
      tabIndex={0}
      sx={{
        flex: 1,
        minHeight: 0,
        overflow: 'auto',
        border: 1,
        borderColor: 'divider',
        borderRadius: 1,
        bgcolor: 'background.paper',
      }}
    >
      <Box
        role="row"
        sx={{
          display: 'grid',
          gridTemplateColumns: COLUMNS,
          columnGap: 1.5,
          minWidth: LEAST_WIDTH,
          px: 2,
          py: 1,
          position: 'sticky',
          top: 0,
          zIndex: 1,
          bgcolor: 'background.paper',
          borderBottom: 1,
          borderColor: 'divider',
          color: 'text.secondary',
          fontWeight: 600,
          fontSize: 13,
        }}
      >
        {HEADS.map((head) => (
          <Head key={head.title} head={head} order={order} onOrder={onOrder} />
        ))}
      </Box>
      <Box role="rowgroup" sx={{ position: 'relative', height: virtual.getTotalSize(), minWidth: LEAST_WIDTH }}>
        {items.map(({ index, start }) => {
          const row = rows[index];
          if (!row) return null;
          return (
            <Box
              key={row.id}
              role="row"
              aria-rowindex={index + 2}
              sx={{
                position: 'absolute',
                top: 0,
                left: 0,
                right: 0,
                height,
                transform: `translateY(${start}px)`,
                display: 'grid',
                gridTemplateColumns: COLUMNS,
                columnGap: 1.5,
                px: 2,
                alignItems: 'center',
                borderBottom: 1,
                borderColor: 'divider',
                '&:hover': { bgcolor: 'ground' },
                ...(selected?.has(row.id)
                  ? { bgcolor: 'ground', boxShadow: (theme) => `inset 4px 0 ${theme.palette.primary.main}` }
                  : null),
              }}
            >
              {cellsOf(row).map((cell, at) => (
                <Box key={HEADS[at]?.title} role="cell" sx={{ minWidth: 0 }}>
                  {at === 1 ? (
                    <Box sx={{ minWidth: 0 }}>
                      {selected ? (
                        <Box
                          component="button"
                          type="button"
                          aria-pressed={selected.has(row.id)}
                          onClick={() => onSelect(row)}
                          sx={{ all: 'unset', cursor: 'pointer', ...ROW_NAME }}
                        >
                          {cell}
                        </Box>
                      ) : (
                        <Box
                          component={Link}
                          to={`/samples/${row.id}/verdict`}
                          sx={{ color: 'inherit', textDecoration: 'none', ...ROW_NAME }}
                        >
                          {cell}
                        </Box>
                      )}
                      {row.labels.length > 0 && <Labels labels={row.labels} onLabel={onLabel} />}
                    </Box>
                  ) : (
                    cell
                  )}
                </Box>
              ))}
            </Box>
          );
        })}
      </Box>
    </Box>
  );
}
