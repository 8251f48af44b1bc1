// The page one opens in the morning: what runs, what is next, what is overdue, what was left borderline.
import type { SampleName, Today } from '@lastmark/contract/plan';
import type { OpenRemark } from '@lastmark/contract/together';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { queryOptions, useQuery } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { api } from '../api/client.ts';
import { openRemarksQuery } from '../api/remarks.ts';
import { PRACTISING } from '../api/world.ts';
import { Page } from '../parts/Page.tsx';
import { QueryGate } from '../parts/QueryGate.tsx';
import { howLong, RUN_WORDS } from '../run-sheets/words.ts';

/** Runs move on by themselves while somebody looks. */
const EVERY_MILLISECONDS = 10_000;

const todayQuery = queryOptions({
  queryKey: ['today'],
  queryFn: ({ signal }) => api<Today>('/today', { signal }),
  refetchInterval: EVERY_MILLISECONDS,
});

const nameOf = ({ maker, model, serial, tag }: SampleName): string => `${maker} ${model}, ${serial || tag}`;

interface PartProps {
  readonly title: string;
  /** What is said where there is nothing. */
  readonly none: string;
  readonly children: readonly ReactNode[];
}

function Part({ title, none, children }: PartProps) {
  return (
    <Box
      component="section"
      aria-label={title}
      sx={{ p: 2, border: 1, borderColor: 'divider', borderRadius: 1, bgcolor: 'background.paper', minWidth: 0 }}
    >
      <Typography variant="h2" sx={{ mb: 1 }}>
        {title}
      </Typography>
      {children.length === 0 ? (
        <Typography color="text.secondary">{none}</Typography>
      ) : (
        <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0, display: 'grid', gap: 1 }}>
          {children}
        </Box>
      )}
    </Box>
  );
}

interface LineProps {
  readonly head: ReactNode;
  readonly says: string;
  readonly loud?: boolean;
  readonly action?: ReactNode;
}

function Line({ head, says, loud = false, action }: LineProps) {
  return (
    <Box component="li" sx={{ display: 'flex', gap: 1.5, alignItems: 'center', minWidth: 0 }}>
      <Box sx={{ flex: 1, minWidth: 0, overflowWrap: 'anywhere' }}>
        <Box sx={{ fontWeight: 600 }}>{head}</Box>
        <Box sx={{ fontSize: 14, color: loud ? 'error.main' : 'text.secondary', fontWeight: loud ? 600 : 400 }}>
          {loud ? '▼ ' : ''}
          {says}
        </Box>
      </Box>
      {action}
    </Box>
  );
}

const sampleLink = (sample: SampleName, to = 'verdict') => (
  <Box component={Link} to={`/samples/${sample.id}/${to}`} sx={{ color: 'text.primary' }}>
    {nameOf(sample)}
  </Box>
);

/** `in 12 days`, `today`, `3 days ago`. */
const dueWords = (days: number): string =>
  days === 0
    ? 'today'
    : days > 0
      ? `in ${days === 1 ? 'one day' : `${days} days`}`
      : `${days === -1 ? 'one day' : `${-days} days`} ago`;

function Parts({ today, remarks }: { readonly today: Today; readonly remarks: readonly OpenRemark[] }) {
  const waiting = today.runs.filter(({ state }) => state !== 'running');
  const running = today.runs.filter(({ state }) => state === 'running');
  const run = ({ id, sample, title, state, person, says }: Today['runs'][number]) => (
    <Line
      key={id}
      head={`${nameOf(sample)}: ${title}`}
      says={`${RUN_WORDS[state]}, ${person}${says ? `. ${says}` : ''}`}
      loud={state === 'interrupted'}
      action={
        <Button size="small" component={Link} to={`/runs/${id}`} aria-label={`Console of ${nameOf(sample)}`}>
          Console
        </Button>
      }
    />
  );
  return (
    <Box
      sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fit, minmax(360px, 1fr))', gap: 2, alignItems: 'start' }}
    >
      <Part title="Waits for somebody" none="Nothing waits.">
        {waiting.map(run)}
      </Part>
      <Part title="Runs now" none="Nothing runs.">
        {running.map(run)}
      </Part>
      <Part title="What is next" none="Every promise on the shelf is settled, or none can be measured.">
        {today.next.map(({ sample, title, seconds, expected, open }) => (
          <Line
            key={sample.id}
            head={sampleLink(sample, 'verdict#next')}
            says={`${title}: ${howLong(seconds)}, about ${expected.toFixed(1)} of ${open} open`}
          />
        ))}
      </Part>
      <Part title="Overdue, or soon" none="No calibration, loan or follow-up is due.">
        {[
          ...today.calibration.map(({ id, name, due, days }) => (
            <Line
              key={id}
              head={
                <Box component={Link} to="/bench" sx={{ color: 'text.primary' }}>
                  {name}
                </Box>
              }
              says={`calibration ${days < 0 ? 'ended' : 'ends'} ${dueWords(days)}, ${due}`}
              loud={days < 0}
            />
          )),
          ...today.loans.map(({ sample, by, days }) => (
            <Line
              key={`loan ${sample.id}`}
              head={sampleLink(sample, 'intake')}
              says={`${days < 0 ? 'was to go' : 'goes'} back ${dueWords(days)}, ${by}`}
              loud={days < 0}
            />
          )),
          ...today.followUps.map(({ sample, code, issued }) => (
            <Line
              key={code}
              head={sampleLink(sample)}
              says={`report ${code} of ${issued}: is it still well? Amend it with what became of it.`}
            />
          )),
        ]}
      </Part>
      <Part title="Asked and said" none="No question is open, and nothing was said to you.">
        {remarks.map(({ id, sampleId, sample, who, text, kind }) => (
          <Line
            key={id}
            head={
              <Box component={Link} to={`/samples/${sampleId}/verdict`} sx={{ color: 'text.primary' }}>
                {sample}
              </Box>
            }
            says={`${who} ${kind === 'question' ? 'asks' : 'says'}: ${text}`}
          />
        ))}
      </Part>
      <Part title="Left borderline" none="Nothing was left borderline.">
        {today.borderline.map(({ sample, claims }) => (
          <Line
            key={sample.id}
            head={sampleLink(sample, 'verdict#next')}
            says={claims === 1 ? 'one promise' : `${claims} promises`}
          />
        ))}
      </Part>
    </Box>
  );
}

export function TodayPage() {
  const query = useQuery(todayQuery);
  const remarks = useQuery(openRemarksQuery);
  return (
    <Page
      title="Today"
      actions={
        <>
          {!PRACTISING && (
            <Button component={Link} to="/drills">
              Drills
            </Button>
          )}
          <Button component={Link} to="/day" variant="outlined">
            Plan the bench day
          </Button>
        </>
      }
    >
      <QueryGate query={query} what="what is due">
        {(today) => (
          <QueryGate query={remarks} what="what was said">
            {({ items }) => <Parts today={today} remarks={items} />}
          </QueryGate>
        )}
      </QueryGate>
    </Page>
  );
}
