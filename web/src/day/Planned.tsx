// The plan of a day: when it is over, what holds it up, the bars, and the day in order.
import { gapOf } from '@lastmark/core/schedule';
import type { Table } from '@lastmark/core/table';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useChartStyle } from '../parts/chartStyle.ts';
import { saveFile, saveTable } from '../parts/saveFile.ts';
import { howLong } from '../run-sheets/words.ts';
import { Bars } from './Bars.tsx';
import { calendarOf, stretchesOf } from './calendar.ts';
import type { DayForm } from './dayForm.ts';
import { clockWords } from './dayText.ts';
import type { Day } from './useDay.ts';

function planTable({ problem, plan }: Day): Table {
  const byId = new Map(problem.tasks.map((task) => [task.id, task]));
  const who = new Map(problem.people.map(({ id, title }) => [id, title]));
  return [
    ['start', 'end', 'step', 'attended', 'person', 'set_up_min'],
    ...plan.placed.map(({ id, start, end, personId, setUp }) => [
      clockWords(start),
      clockWords(end),
      byId.get(id)?.title ?? id,
      byId.get(id)?.attended ? 'yes' : 'no',
      personId ? (who.get(personId) ?? '') : '',
      Math.round(setUp / 60),
    ]),
  ];
}

interface PlannedProps {
  readonly day: Day;
  readonly date: string;
  readonly pins: DayForm['pins'];
  readonly onPins: (pins: DayForm['pins']) => void;
}

export function Planned({ day, date, pins, onPins }: PlannedProps) {
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
              gridTemplateColumns: '170px 1fr',
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
