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
import { Choice } from '../parts/fields.tsx';
import { useNotify } from '../state/notices.tsx';
import { ColumnsMenu, type Shown, viewsShown } from './ColumnsMenu.tsx';
import { CompareRow, NAME, ROW, rowStyle } from './CompareRow.tsx';
import { type Filter, GROUPS, type Group, grouped, inOrder, insideAll, type Range } from './tableRows.ts';
import { axisTitle, type MeasureView, sampleTitle } from './views.ts';

const CELL = 150;
const helper = createColumnHelper<SetMember>();
const NO_ROWS: SetMember[] = [];

interface Props {
  readonly views: readonly MeasureView[];
  readonly members: readonly SetMember[];
  readonly marked: string | null;
  readonly onMark: (id: string) => void;
}

export function CompareTable({ views: all, members, marked, onMark }: Props) {
  const notify = useNotify();
  const [shown, setShown] = useState<Shown>({ hidden: [], pinned: null });
  const views = useMemo(() => viewsShown(all, shown), [all, shown]);
  const [sorting, setSorting] = useState<SortingState>([]);
  const [filters, setFilters] = useState<readonly Filter[]>([]);
  const [group, setGroup] = useState<Group>('no groups');
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
    () => inOrder(insideAll(members, asked, all), sorting[0], views),
    [members, asked, sorting, views, all],
  );
  const rows = useMemo(() => grouped(sorted, group), [sorted, group]);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 6,
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
        <Choice
          label="Group by"
          value={group}
          options={GROUPS}
          onChange={setGroup}
          more={{ fullWidth: false, sx: { width: 160 } }}
        />
        <Typography color="text.secondary" role="status" sx={{ flex: 1 }}>
          {sorted.length} of {members.length} samples
        </Typography>
        <ColumnsMenu views={all} shown={shown} onChange={setShown} />
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
                  ...(at === 0 || header.id === shown.pinned
                    ? { position: 'sticky', left: at === 0 ? 0 : NAME, bgcolor: 'background.paper', zIndex: 1 }
                    : null),
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
        <Box
          role="rowgroup"
          sx={{ position: 'relative', minWidth: least, ...rowStyle(template) }}
          style={{ height: virtual.getTotalSize() }}
        >
          {virtual.getVirtualItems().map(({ index, start }) => {
            const one = rows[index];
            if (!one) return null;
            const { member } = one;
            if (!member)
              return (
                <Box key={one.head} role="row" className="head" style={{ transform: `translateY(${start}px)` }}>
                  <Box role="cell">{one.head}</Box>
                </Box>
              );
            return (
              <CompareRow
                key={member.id}
                member={member}
                views={views}
                row={index + 2}
                top={start}
                marked={member.id === marked}
                pinned={shown.pinned}
                onMark={onMark}
              />
            );
          })}
        </Box>
      </Box>
    </>
  );
}
