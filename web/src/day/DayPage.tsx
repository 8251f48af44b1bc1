// A bench day: the sheets that are to be done, who is there, and when each step begins; replanned with what has run meanwhile.
import type { SheetRow } from '@lastmark/contract/plan';
import { gapOf } from '@lastmark/core/schedule';
import type { Table } from '@lastmark/core/table';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { sheetsQuery } from '../api/queries.ts';
import { useChartStyle } from '../parts/chartStyle.ts';
import { typedMinutes } from '../parts/fields.tsx';
import { Page } from '../parts/Page.tsx';
import { QueryGate } from '../parts/QueryGate.tsx';
import { saveFile, saveTable } from '../parts/saveFile.ts';
import { useDraft } from '../parts/useDraft.ts';
import { howLong } from '../run-sheets/words.ts';
import { Bars } from './Bars.tsx';
import { calendarOf, stretchesOf } from './calendar.ts';
import { clockOf, clockWords, peopleOf } from './dayText.ts';
import { type Day, useDay } from './useDay.ts';

interface Form {
  readonly day: string;
  readonly from: string;
  readonly people: string;
  readonly setUp: string;
  readonly chosen: readonly string[];
  readonly pins: Readonly<Record<string, number>>;
}

const TODAY = (): string => {
  const now = new Date();
  return `${now.getFullYear()}-${String(now.getMonth() + 1).padStart(2, '0')}-${String(now.getDate()).padStart(2, '0')}`;
};
const isDay = (text: string): boolean => /^\d{4}-\d{2}-\d{2}$/.test(text) && !Number.isNaN(Date.parse(text));
const MOST_SHEETS = 12;

const nameOf = ({ sample }: SheetRow): string => `${sample.maker} ${sample.model}, ${sample.serial || sample.tag}`;

/** A sheet that was run to its end needs no day any more. */
const isOpen = ({ run }: SheetRow): boolean => run === null || (run.state !== 'done' && run.state !== 'stopped');

function planTable({ problem, plan }: Day): Table {
  const byId = new Map(problem.tasks.map((task) => [task.id, task]));
  const who = new Map(problem.people.map(({ id, title }) => [id, title]));
  return [
    ['start', 'end', 'step', 'person', 'set_up_min'],
    ...plan.placed.map(({ id, start, end, personId, setUp }) => [
      clockWords(start),
      clockWords(end),
      byId.get(id)?.title ?? id,
      personId ? (who.get(personId) ?? '') : '',
      Math.round(setUp / 60),
    ]),
  ];
}

interface PlannedProps {
  readonly day: Day;
  readonly date: string;
  readonly pins: Form['pins'];
  readonly onPins: (pins: Form['pins']) => void;
}

function Planned({ day, date, pins, onPins }: PlannedProps) {
  const { colourOf } = useChartStyle();
  const { problem, plan } = day;
  const samples = [...new Set(problem.tasks.map(({ sampleId }) => sampleId))];
  const nameBySample = new Map(problem.tasks.map(({ sampleId, title }) => [sampleId, title.split(': ')[0] ?? '']));
  const gap = gapOf(plan, problem.now);
  const held = Object.keys(pins).filter((id) => problem.tasks.some((task) => task.id === id));
  const pin = (id: string, at: number | null) => {
    const { [id]: _gone, ...others } = pins;
    onPins(at === null ? others : { ...others, [id]: at });
  };
  const stretches = stretchesOf(problem, plan);
  const colour = (sampleId: string) => colourOf(samples.indexOf(sampleId));
  return (
    <Box component="section" aria-label="The plan">
      <Box sx={{ display: 'flex', gap: 3, flexWrap: 'wrap', alignItems: 'baseline', mb: 1 }}>
        <Typography role="status" sx={{ fontSize: 20, fontWeight: 600 }}>
          Over at {clockWords(plan.finish)}
        </Typography>
        <Typography>somebody there for {howLong(plan.attended)}</Typography>
        <Typography color="text.secondary">
          no plan is over before {clockWords(plan.bound)}:{' '}
          {gap < 0.001 ? 'it is the best there is' : `at most ${(100 * gap).toFixed(1)} % longer than need be`}
        </Typography>
        <Box sx={{ ml: 'auto', display: 'flex', gap: 1, '@media print': { display: 'none' } }}>
          <Button size="small" onClick={() => window.print()}>
            Print
          </Button>
          <Button size="small" onClick={() => saveTable(`bench-day-${date}`, planTable(day))}>
            Save as CSV
          </Button>
          <Button
            size="small"
            onClick={async () =>
              saveFile(
                `bench-day-${date}.ics`,
                new Blob([await calendarOf(stretches, date)], { type: 'text/calendar' }),
              )
            }
          >
            Calendar file
          </Button>
        </Box>
      </Box>
      <Typography sx={{ mb: 1 }}>{plan.holdsUp}</Typography>
      {plan.left.length > 0 && (
        <Alert severity="warning" icon={false} sx={{ mb: 1 }}>
          {plan.left.length === 1 ? 'One step' : `${plan.left.length} steps`} cannot be placed:
          <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
            {plan.left.slice(0, 8).map(({ id, why }) => (
              <li key={id}>
                {problem.tasks.find((task) => task.id === id)?.title}: {why}
              </li>
            ))}
            {plan.left.length > 8 && <li>and {plan.left.length - 8} more</li>}
          </Box>
        </Alert>
      )}
      <Box
        component="ul"
        aria-label="Samples"
        sx={{ listStyle: 'none', m: 0, mb: 1, p: 0, display: 'flex', gap: 2, flexWrap: 'wrap' }}
      >
        {samples.map((sampleId) => (
          <Box component="li" key={sampleId} sx={{ display: 'flex', gap: 0.75, alignItems: 'center', fontSize: 14 }}>
            <Box aria-hidden sx={{ width: 14, height: 14, borderRadius: 0.5, bgcolor: colour(sampleId) }} />
            {nameBySample.get(sampleId)}
          </Box>
        ))}
      </Box>
      <Bars problem={problem} plan={plan} colourOf={colour} pins={pins} onPin={pin} />
      <Box sx={{ minHeight: 40, mt: 0.5, display: 'flex', gap: 1, flexWrap: 'wrap', alignItems: 'center' }}>
        <Typography variant="body2" color="text.secondary">
          Drag a bar, or move it with ← and →, to hold it there; Delete lets it go.
        </Typography>
        {held.map((id) => (
          <Button key={id} size="small" variant="outlined" onClick={() => pin(id, null)}>
            Let go: {problem.tasks.find((task) => task.id === id)?.title}
          </Button>
        ))}
      </Box>
      <Typography variant="h2" sx={{ mt: 2, mb: 1 }}>
        The day in order
      </Typography>
      <Box component="ol" aria-label="The day in order" sx={{ m: 0, pl: 0, listStyle: 'none' }}>
        {stretches.map(({ id, title, steps, from, to, who }) => (
          <Box
            component="li"
            key={id}
            sx={{
              display: 'grid',
              gridTemplateColumns: '130px 1fr',
              gap: 1,
              py: 0.5,
              borderBottom: 1,
              borderColor: 'divider',
            }}
          >
            <span>
              {clockWords(from)} – {clockWords(to)}
            </span>
            <span>
              <strong>{title}</strong>, {who ?? 'runs by itself'}: {steps.slice(0, 3).join(' · ')}
              {steps.length > 3 && ` · and ${steps.length - 3} more`}
            </span>
          </Box>
        ))}
      </Box>
    </Box>
  );
}

function Planner({ rows }: { readonly rows: readonly SheetRow[] }) {
  const { value: form, set: keep } = useDraft<Form>('bench-day', {
    day: TODAY(),
    from: '8:00',
    people: 'Warden 8:00–12:00, 13:00–17:00',
    setUp: '10',
    chosen: [],
    pins: {},
  });
  const set = (part: Partial<Form>) => keep({ ...form, ...part });
  const open = useMemo(() => rows.filter(isOpen), [rows]);
  const sheets = useMemo(
    () => open.filter(({ id }) => form.chosen.includes(id)).slice(0, MOST_SHEETS),
    [open, form.chosen],
  );
  const read = useMemo(() => peopleOf(form.people), [form.people]);
  const people = useMemo(() => (read.ok ? read.people : []), [read]);
  const from = clockOf(form.from);
  const setUp = typedMinutes(form.setUp);
  const problems = [
    ...(isDay(form.day) ? [] : ['Day: write it as 2026-11-30.']),
    ...(from === null ? ['From: write a time such as 8:00.'] : []),
    ...(setUp === null || !(setUp >= 0 && setUp <= 7200)
      ? ['Set-up: write the minutes another sample takes, such as 10.']
      : []),
    ...(read.ok ? [] : read.problems),
  ];
  const day = useDay({
    sheets: problems.length === 0 ? sheets : [],
    day: isDay(form.day) ? form.day : TODAY(),
    from: from ?? 0,
    people,
    setUp: setUp ?? 0,
    pins: form.pins,
  });
  return (
    <>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: 'minmax(260px, 1fr) minmax(280px, 1fr)',
          gap: 2,
          mb: 2,
          '@media print': { display: 'none' },
        }}
      >
        <Box
          component="fieldset"
          sx={{ border: 1, borderColor: 'divider', borderRadius: 1, p: 1.5, m: 0, maxHeight: 260, overflow: 'auto' }}
        >
          <Typography component="legend" variant="body2" sx={{ fontWeight: 600 }}>
            Run sheets to be done
          </Typography>
          {open.length === 0 && (
            <Typography color="text.secondary">No run sheet is open. Make one at Run sheets, or at Verdict.</Typography>
          )}
          {open.map((row) => (
            <FormControlLabel
              key={row.id}
              sx={{ display: 'flex' }}
              label={`${nameOf(row)}: ${row.title}, ${howLong(row.seconds)}`}
              control={
                <Checkbox
                  size="small"
                  checked={form.chosen.includes(row.id)}
                  onChange={(event) =>
                    set({
                      chosen: event.target.checked
                        ? [...form.chosen, row.id].slice(0, MOST_SHEETS)
                        : form.chosen.filter((id) => id !== row.id),
                    })
                  }
                />
              }
            />
          ))}
        </Box>
        <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr 1fr', gap: 1.5, alignContent: 'start' }}>
          <TextField label="Day" value={form.day} onChange={(event) => set({ day: event.target.value })} />
          <TextField label="From" value={form.from} onChange={(event) => set({ from: event.target.value })} />
          <TextField label="Set-up, min" value={form.setUp} onChange={(event) => set({ setUp: event.target.value })} />
          <TextField
            label="Who is there, a line each"
            multiline
            minRows={3}
            value={form.people}
            onChange={(event) => set({ people: event.target.value })}
            sx={{ gridColumn: '1 / -1' }}
          />
          <Box role="alert" sx={{ gridColumn: '1 / -1', color: 'error.main', minHeight: 24 }}>
            {problems.join(' ')}
          </Box>
        </Box>
      </Box>
      {sheets.length === 0 ? (
        <Typography color="text.secondary">Choose the sheets of the day.</Typography>
      ) : (
        day &&
        problems.length === 0 && <Planned day={day} date={form.day} pins={form.pins} onPins={(pins) => set({ pins })} />
      )}
    </>
  );
}

/** Runs move on meanwhile: the plan follows. */
const EVERY_MILLISECONDS = 20_000;

export function DayPage() {
  const query = useQuery({ ...sheetsQuery(null), refetchInterval: EVERY_MILLISECONDS });
  return (
    <Page title="Bench day">
      <QueryGate query={query} what="the run sheets">
        {({ items }) => <Planner rows={items} />}
      </QueryGate>
    </Page>
  );
}
