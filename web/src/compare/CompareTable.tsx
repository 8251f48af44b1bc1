// The set as a table: sorted, grouped, filtered by range, its first column pinned; only the rows in sight are drawn.
import type { SetMember } from '@lastmark/contract/types';
import { csvText, type Table } from '@lastmark/core/table';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { createColumnHelper, getCoreRowModel, type SortingState, useReactTable } from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useDeferredValue, useMemo, useRef, useState } from 'react';
import { Link } from 'react-router';
import { Choice } from '../parts/fields.tsx';
import { useNotify } from '../state/notices.tsx';
import { axisTitle, type MeasureView, sampleTitle, words } from './views.ts';

const ROW = 38;
const NAME = 250;
const CELL = 150;
const GROUPS = ['no groups', 'kind', 'maker', 'model'] as const;

type Range = readonly [from: string, to: string];
const number = (text: string): number | null => {
  const value = Number(text.trim().replace(',', '.'));
  return text.trim() === '' || !Number.isFinite(value) ? null : value;
};

/** A range a column is held to. */
interface Filter {
  readonly id: string;
  readonly range: Range;
}

function isInside({ id, range }: Filter, views: readonly MeasureView[], sample: string): boolean {
  const view = views.find((one) => one.id === id);
  const [low, high] = [number(range[0]), number(range[1])];
  if (!view || (low === null && high === null)) return true;
  const value = view.byId.get(sample)?.value;
  if (value === undefined) return false;
  const shown = value * view.factor;
  return (low === null || shown >= low) && (high === null || shown <= high);
}

const helper = createColumnHelper<SetMember>();
const NO_ROWS: SetMember[] = [];

/** Samples in the order of a column; those without a value come last, whichever way. */
function inOrder(
  members: readonly SetMember[],
  by: SortingState[number] | undefined,
  views: readonly MeasureView[],
): readonly SetMember[] {
  if (!by) return members;
  const down = by.desc ? -1 : 1;
  const view = views.find(({ id }) => id === by.id);
  if (!view)
    return [...members].sort((a, b) => down * sampleTitle(a).localeCompare(sampleTitle(b), 'en', { numeric: true }));
  const value = ({ id }: SetMember) => view.byId.get(id)?.value;
  return [...members].sort((a, b) => {
    const [one, other] = [value(a), value(b)];
    if (one === undefined || other === undefined) return one === other ? 0 : one === undefined ? 1 : -1;
    return down * (one - other);
  });
}

interface Line {
  /** Of a group; null for a sample. */
  readonly head: string | null;
  readonly member: SetMember | null;
}

function grouped(members: readonly SetMember[], group: (typeof GROUPS)[number]): readonly Line[] {
  if (group === 'no groups') return members.map((member) => ({ head: null, member }));
  const groups = new Map<string, SetMember[]>();
  for (const member of members) {
    const own = groups.get(member[group]);
    if (own) own.push(member);
    else groups.set(member[group], [member]);
  }
  return [...groups].flatMap(([name, all]): Line[] => [
    { head: `${name}: ${all.length}`, member: null },
    ...all.map((member) => ({ head: null, member })),
  ]);
}

interface Props {
  readonly views: readonly MeasureView[];
  readonly members: readonly SetMember[];
  readonly marked: string | null;
  readonly onMark: (id: string) => void;
}

export function CompareTable({ views, members, marked, onMark }: Props) {
  const notify = useNotify();
  const [sorting, setSorting] = useState<SortingState>([]);
  const [filters, setFilters] = useState<readonly Filter[]>([]);
  const [group, setGroup] = useState<(typeof GROUPS)[number]>('no groups');
  const scroller = useRef<HTMLDivElement>(null);
  const asked = useDeferredValue(filters);
  const columns = useMemo(
    () => [
      helper.display({ id: 'sample', enableSorting: true }),
      ...views.map((view) =>
        helper.display({ id: view.id, enableSorting: true, sortDescFirst: view.better === 'more' }),
      ),
    ],
    [views],
  );
  // Columns and their order are the table's; ten thousand rows would be ten thousand objects of its own.
  const table = useReactTable({
    data: NO_ROWS,
    columns,
    state: { sorting },
    onSortingChange: setSorting,
    manualSorting: true,
    getCoreRowModel: getCoreRowModel(),
  });
  const sorted = useMemo(
    () =>
      inOrder(
        members.filter(({ id }) => asked.every((one) => isInside(one, views, id))),
        sorting[0],
        views,
      ),
    [members, asked, sorting, views],
  );
  const rows = useMemo(() => grouped(sorted, group), [sorted, group]);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 12,
  });
  const template = `${NAME}px repeat(${views.length}, minmax(${CELL}px, 1fr))`;
  const least = NAME + views.length * CELL;
  const copy = async () => {
    const heads: Table[number] = ['sample', ...views.flatMap((view) => [axisTitle(view), `u of ${view.title}`])];
    const body = sorted.map((member) => [
      sampleTitle(member),
      ...views.flatMap((view) => {
        const value = view.byId.get(member.id);
        return value ? [value.value * view.factor, value.u === null ? '' : value.u * Math.abs(view.factor)] : ['', ''];
      }),
    ]);
    await navigator.clipboard.writeText(csvText([heads, ...body]));
    notify(`${sorted.length} rows are copied as CSV.`);
  };
  const rangeOf = (id: string): Range => filters.find((one) => one.id === id)?.range ?? ['', ''];
  const setRange = (id: string, range: Range) =>
    setFilters([...filters.filter((one) => one.id !== id), ...(range.join('') === '' ? [] : [{ id, range }])]);
  return (
    <>
      <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center', mb: 1, flexWrap: 'wrap' }}>
        <Choice label="Group by" value={group} options={GROUPS} onChange={setGroup} more={{ sx: { minWidth: 140 } }} />
        <Typography color="text.secondary" role="status" sx={{ flex: 1 }}>
          {sorted.length} of {members.length} samples
        </Typography>
        <Button onClick={copy}>Copy as CSV</Button>
      </Box>
      <Box
        ref={scroller}
        role="table"
        aria-label="Samples of the set"
        aria-rowcount={rows.length + 1}
        tabIndex={0}
        sx={{
          height: Math.min(560, 130 + rows.length * ROW),
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
            gridTemplateColumns: template,
            minWidth: least,
            position: 'sticky',
            top: 0,
            zIndex: 2,
            bgcolor: 'background.paper',
            borderBottom: 1,
            borderColor: 'divider',
          }}
        >
          {table.getFlatHeaders().map((header, at) => {
            const view = views[at - 1];
            const direction = header.column.getIsSorted();
            return (
              <Box
                key={header.id}
                role="columnheader"
                aria-sort={direction === 'asc' ? 'ascending' : direction === 'desc' ? 'descending' : undefined}
                sx={{
                  p: 1,
                  minWidth: 0,
                  fontSize: 13,
                  ...(at === 0 ? { position: 'sticky', left: 0, bgcolor: 'background.paper', zIndex: 1 } : null),
                }}
              >
                <Button
                  size="small"
                  onClick={header.column.getToggleSortingHandler()}
                  sx={{ p: 0, minWidth: 0, minHeight: 24, textAlign: 'left', fontSize: 13, lineHeight: 1.2 }}
                >
                  {view ? axisTitle(view).split(' · ')[0] : 'Sample'}
                  <Box component="span" aria-hidden sx={{ pl: 0.5, visibility: direction ? 'visible' : 'hidden' }}>
                    {direction === 'desc' ? '↓' : '↑'}
                  </Box>
                </Button>
                {view && (
                  <>
                    <Box sx={{ color: 'text.secondary', fontSize: 12, minHeight: 18 }}>{view.condition}</Box>
                    <Box sx={{ display: 'flex', gap: 0.5 }}>
                      {(['from', 'to'] as const).map((end, side) => (
                        <TextField
                          key={end}
                          value={rangeOf(view.id)[side]}
                          onChange={(event) => {
                            const [from, to] = rangeOf(view.id);
                            setRange(view.id, side === 0 ? [event.target.value, to] : [from, event.target.value]);
                          }}
                          placeholder={end}
                          slotProps={{
                            htmlInput: {
                              'aria-label': `${view.title} ${end}`,
                              inputMode: 'decimal',
                              style: { padding: '2px 6px', fontSize: 13 },
                            },
                          }}
                        />
                      ))}
                    </Box>
                  </>
                )}
              </Box>
            );
          })}
        </Box>
        <Box role="rowgroup" sx={{ position: 'relative', height: virtual.getTotalSize(), minWidth: least }}>
          {virtual.getVirtualItems().map(({ index, start }) => {
            const one = rows[index];
            if (!one) return null;
            const at = {
              position: 'absolute',
              left: 0,
              right: 0,
              height: ROW,
              transform: `translateY(${start}px)`,
            } as const;
            const { member } = one;
            if (!member)
              return (
                <Box key={one.head} role="row" sx={{ ...at, px: 1, pt: 1, fontWeight: 700, bgcolor: 'ground' }}>
                  <Box role="cell">{one.head}</Box>
                </Box>
              );
            return (
              <Box
                key={member.id}
                role="row"
                aria-rowindex={index + 2}
                aria-selected={member.id === marked}
                onClick={() => onMark(member.id)}
                sx={{
                  ...at,
                  display: 'grid',
                  gridTemplateColumns: template,
                  alignItems: 'center',
                  borderBottom: 1,
                  borderColor: 'divider',
                  fontSize: 14,
                  cursor: 'pointer',
                  bgcolor: member.id === marked ? 'ground' : 'background.paper',
                }}
              >
                <Box
                  role="cell"
                  sx={{
                    px: 1,
                    position: 'sticky',
                    left: 0,
                    bgcolor: 'inherit',
                    overflow: 'hidden',
                    textOverflow: 'ellipsis',
                    whiteSpace: 'nowrap',
                  }}
                >
                  <Box
                    component={Link}
                    to={`/samples/${member.id}/verdict`}
                    title={sampleTitle(member)}
                    sx={{ color: 'text.primary', display: 'inline-block', minHeight: 24, lineHeight: '24px' }}
                  >
                    {sampleTitle(member)}
                  </Box>
                </Box>
                {views.map((view) => {
                  const value = view.byId.get(member.id);
                  return (
                    <Box key={view.id} role="cell" sx={{ px: 1, whiteSpace: 'nowrap', overflow: 'hidden' }}>
                      {value ? (
                        words(view, value)
                      ) : (
                        <Box sx={{ color: 'text.secondary', fontSize: 13 }}>not measured</Box>
                      )}
                    </Box>
                  );
                })}
              </Box>
            );
          })}
        </Box>
      </Box>
    </>
  );
}
