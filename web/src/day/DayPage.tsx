// A bench day: the sheets that are to be done, who is there, and when each step begins; replanned with what has run meanwhile.
import type { SheetRow } from '@lastmark/contract/plan';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { sheetsQuery } from '../api/queries.ts';
import { Page } from '../parts/Page.tsx';
import { Loading, QueryGate } from '../parts/QueryGate.tsx';
import { readForm } from './dayForm.ts';
import { Planned } from './Planned.tsx';
import { nameOfRow, SheetsOfDay } from './SheetsOfDay.tsx';
import { useBenchDay } from './useBenchDay.ts';
import { useDay } from './useDay.ts';

const TODAY = (): string => {
  const now = new Date();
  return `${now.getFullYear()}-${String(now.getMonth() + 1).padStart(2, '0')}-${String(now.getDate()).padStart(2, '0')}`;
};
const isDay = (text: string): boolean => /^\d{4}-\d{2}-\d{2}$/.test(text) && !Number.isNaN(Date.parse(text));

/** A sheet that was run to its end needs no day any more. */
const isOpen = ({ run }: SheetRow): boolean => run === null || (run.state !== 'done' && run.state !== 'stopped');

interface PlannerProps {
  readonly rows: readonly SheetRow[];
  readonly day: string;
}

function Planner({ rows, day: date }: PlannerProps) {
  const open = useMemo(() => rows.filter(isOpen), [rows]);
  const nameOf = (sheetId: string) => {
    const row = rows.find(({ id }) => id === sheetId);
    return row ? nameOfRow(row) : 'A sheet';
  };
  const { form, change, says, takeTheirs } = useBenchDay(date, nameOf);
  const read = form ? readForm(form, nameOf) : null;
  // The same sheets are the same list: the plan is made anew only where something changed.
  const chosen = JSON.stringify(read?.body?.sheets ?? []);
  const sheets = useMemo(() => {
    const wanted = JSON.parse(chosen) as NonNullable<NonNullable<typeof read>['body']>['sheets'];
    return wanted.flatMap(({ sheetId, ...more }) => {
      const row = open.find(({ id }) => id === sheetId);
      return row ? [{ row, ...more }] : [];
    });
  }, [open, chosen]);
  const typedPeople = JSON.stringify(read?.people ?? []);
  const people = useMemo(() => JSON.parse(typedPeople) as NonNullable<typeof read>['people'], [typedPeople]);
  const day = useDay({
    sheets,
    day: date,
    from: read?.body?.from ?? 0,
    people,
    setUp: read?.body?.setUp ?? 0,
    pins: form?.pins ?? NONE,
  });
  if (!form || !read) return <Loading what="the day" />;
  return (
    <>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: 'minmax(300px, 3fr) minmax(280px, 2fr)',
          gap: 2,
          mb: 2,
          '@media print': { display: 'none' },
        }}
      >
        <SheetsOfDay rows={open} day={date} chosen={form.sheets} onChosen={(next) => change({ sheets: next })} />
        <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5, alignContent: 'start' }}>
          <TextField label="From" value={form.from} onChange={(event) => change({ from: event.target.value })} />
          <TextField
            label="Set-up, min"
            value={form.setUp}
            onChange={(event) => change({ setUp: event.target.value })}
          />
          <TextField
            label="Who is there, a line each"
            multiline
            minRows={3}
            value={form.people}
            onChange={(event) => change({ people: event.target.value })}
            sx={{ gridColumn: '1 / -1' }}
          />
          <Box role="alert" sx={{ gridColumn: '1 / -1', color: 'error.main', minHeight: 24 }}>
            {read.problems.join(' ')}
          </Box>
          <Box role="status" sx={{ gridColumn: '1 / -1', fontSize: 14, color: 'text.secondary', minHeight: 21 }}>
            {takeTheirs ? '' : says}
          </Box>
        </Box>
      </Box>
      {takeTheirs && (
        <Alert
          severity="warning"
          sx={{ mb: 2 }}
          action={
            <Button color="inherit" onClick={takeTheirs}>
              Take theirs
            </Button>
          }
        >
          {says}
        </Alert>
      )}
      {sheets.length === 0 ? (
        <Typography color="text.secondary">Choose the sheets of the day.</Typography>
      ) : (
        day && read.body && <Planned day={day} date={date} pins={form.pins} onPins={(pins) => change({ pins })} />
      )}
    </>
  );
}
const NONE: Readonly<Record<string, number>> = {};

/** Runs move on meanwhile: the plan follows. */
const EVERY_MILLISECONDS = 20_000;

export function DayPage() {
  const query = useQuery({ ...sheetsQuery(null), refetchInterval: EVERY_MILLISECONDS });
  const [search, setSearch] = useSearchParams();
  const asked = search.get('day') ?? '';
  const day = isDay(asked) ? asked : TODAY();
  const [typed, setTyped] = useState(day);
  return (
    <Page
      title="Bench day"
      actions={
        <TextField
          label="Day"
          value={typed}
          error={!isDay(typed)}
          onChange={({ target }) => {
            setTyped(target.value);
            if (isDay(target.value)) setSearch({ day: target.value }, { replace: true });
          }}
          slotProps={{ htmlInput: { 'aria-describedby': 'day-form', maxLength: 10 } }}
          sx={{ width: 150 }}
        />
      }
    >
      <Box id="day-form" role="alert" sx={{ color: 'error.main', textAlign: 'right', minHeight: 24 }}>
        {!isDay(typed) && 'Write the day as 2026-11-30.'}
      </Box>
      <QueryGate query={query} what="the run sheets">
        {({ items }) => <Planner key={day} rows={items} day={day} />}
      </QueryGate>
    </Page>
  );
}
