// A comparison: its set and who fell out, its pictures, its table, who is first, and what is kept of it.
import type { ComparisonBody, SetAnswer } from '@lastmark/contract/types';
import { ruleWords } from '@lastmark/core/compare';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense, useEffect, useMemo, useState } from 'react';
import { useLocation, useParams, useSearchParams } from 'react-router';
import { apiUrl, PRACTISING } from '../api/world.ts';
import { Ask } from '../parts/Ask.tsx';
import { Choice } from '../parts/fields.tsx';
import { Page } from '../parts/Page.tsx';
import { QueryGate } from '../parts/QueryGate.tsx';
import { comparisonQuery, NEW_COMPARISON } from './queries.ts';
import { SetDialog } from './SetDialog.tsx';
import { useKeepComparison } from './useKeepComparison.ts';
import { useOwnMeasures } from './useOwnMeasures.ts';
import { soonestOf, useSet } from './useSet.ts';
import { emptyMeasures, type MeasureView, sampleTitle, viewsOf, wantedOf } from './views.ts';

const bringPicture = async () => ({ default: (await import('./Picture.tsx')).Picture });
const Picture = lazy(bringPicture);
const Strips = lazy(async () => ({ default: (await import('./Strips.tsx')).Strips }));
const CompareTable = lazy(async () => ({ default: (await import('./CompareTable.tsx')).CompareTable }));
const Firsts = lazy(async () => ({ default: (await import('./Firsts.tsx')).Firsts }));
const Ranking = lazy(async () => ({ default: (await import('./Ranking.tsx')).Ranking }));
const OneAgainstOne = lazy(async () => ({ default: (await import('./OneAgainstOne.tsx')).OneAgainstOne }));
const Units = lazy(async () => ({ default: (await import('./Units.tsx')).Units }));
const Kit = lazy(async () => ({ default: (await import('./Kit.tsx')).Kit }));

const VIEWS = ['Picture', 'Strips', 'Table', 'First', 'Weights', 'One against one', 'Units', 'Kit'] as const;
type View = (typeof VIEWS)[number];

/** Who is not in it, and why. */
function Outside({ set }: { readonly set: SetAnswer }) {
  if (set.outCount === 0) return null;
  return (
    <Box component="details" sx={{ fontSize: 14 }}>
      <Box component="summary" sx={{ cursor: 'pointer', minHeight: 24 }}>
        {set.outCount} outside, and why
      </Box>
      <Box component="ul" aria-label="Outside" sx={{ m: 0, pl: 2.5, maxHeight: 220, overflow: 'auto' }} tabIndex={0}>
        {set.out.map(({ id, title, reason }) => (
          <li key={id}>
            {title}: {reason}
          </li>
        ))}
        {set.outCount > set.out.length && <li>and {set.outCount - set.out.length} more</li>}
      </Box>
    </Box>
  );
}

/** Whether the set is another than when it was kept. */
function Grown({ set, kept }: { readonly set: SetAnswer; readonly kept: readonly string[] | null }) {
  if (kept === null) return null;
  const known = new Set(kept);
  const now = new Set(set.members.map(({ id }) => id));
  const added = set.members.filter(({ id }) => !known.has(id)).length;
  const gone = kept.filter((id) => !now.has(id)).length;
  if (added === 0 && gone === 0) return null;
  return (
    <Typography role="status" sx={{ fontWeight: 600 }}>
      The shelf changed since it was kept:{' '}
      {[added > 0 && `${added} more`, gone > 0 && `${gone} gone`].filter(Boolean).join(', ')}. Keep it to take that in.
    </Typography>
  );
}

interface WorkProps {
  readonly body: ComparisonBody;
  readonly set: SetAnswer;
  readonly views: readonly MeasureView[];
  readonly stamp: number;
  readonly onChange: (part: Partial<ComparisonBody>) => void;
}

function WorkOf({ body, set, views, stamp, onChange }: WorkProps) {
  const [params, setParams] = useSearchParams();
  const put = (part: Record<string, string | null>) => {
    const next = new URLSearchParams(params);
    for (const [name, value] of Object.entries(part)) {
      if (value === null) next.delete(name);
      else next.set(name, value);
    }
    setParams(next, { replace: true });
  };
  const view = (VIEWS.find((one) => one === params.get('view')) ?? 'Picture') as View;
  const marked = params.get('sample');
  const { members } = set;
  const filled = views.filter(({ count }) => count > 0);
  const common = { views, members, stamp };
  return (
    <>
      <Box role="group" aria-label="View" sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5, mb: 1.5 }}>
        {VIEWS.map((one) => (
          <Button
            key={one}
            aria-pressed={view === one}
            onClick={() => put({ view: one })}
            sx={{
              color: 'text.primary',
              border: 1,
              borderColor: 'divider',
              bgcolor: 'background.paper',
              '&[aria-pressed=true]': { bgcolor: 'primary.main', color: 'primary.contrastText' },
            }}
          >
            {one}
          </Button>
        ))}
      </Box>
      <Suspense fallback={<Box sx={{ minHeight: 420 }} />}>
        {view === 'Picture' && <Picture views={filled} members={members} marked={marked} params={params} onPut={put} />}
        {view === 'Strips' && (
          <>
            <Choice
              label="Sample"
              value={marked ?? ''}
              options={[
                { value: '', label: 'none marked' },
                ...members.slice(0, 400).map((member) => ({ value: member.id, label: sampleTitle(member) })),
              ]}
              onChange={(id) => put({ sample: id === '' ? null : id })}
              more={{ sx: { minWidth: 320, mb: 1 } }}
            />
            <Strips {...common} marked={marked} />
          </>
        )}
        {view === 'Table' && (
          <CompareTable views={views} members={members} marked={marked} onMark={(id) => put({ sample: id })} />
        )}
        {view === 'First' && <Firsts {...common} />}
        {view === 'Weights' && (
          <Ranking {...common} weights={body.weights} onWeights={(weights) => onChange({ weights })} />
        )}
        {view === 'One against one' && (
          <OneAgainstOne
            views={views}
            members={members}
            first={marked}
            second={params.get('against')}
            onPick={({ first, second }) =>
              put({ ...(first ? { sample: first } : {}), ...(second ? { against: second } : {}) })
            }
          />
        )}
        {view === 'Units' && (
          <Units
            fates={set.fates}
            views={views}
            members={members}
            modelId={params.get('model')}
            onModel={(id) => put({ model: id })}
          />
        )}
        {view === 'Kit' && <Kit body={body} members={members} />}
      </Suspense>
    </>
  );
}

interface OpenProps {
  readonly id: string | null;
  readonly stored: ComparisonBody;
  readonly version: number;
  readonly kept: readonly string[] | null;
}

function Open({ id, stored, version, kept }: OpenProps) {
  const [body, setBody] = useState<ComparisonBody>(stored);
  const [editing, setEditing] = useState(id === null && stored.rule.kind === 'rule');
  const own = useOwnMeasures(body.own);
  const wanted = useMemo(() => own && wantedOf(body, own), [body, own]);
  const [params] = useSearchParams();
  // What the address named first: what is asked for later comes with everything.
  const [soonest] = useState(() => soonestOf(stored, params));
  const { query, complete } = useSet(body.rule, wanted, soonest);
  const { keep, remove } = useKeepComparison(id, version);
  const changed = JSON.stringify(body) !== JSON.stringify(stored);
  const views = useMemo(() => (query.data ? viewsOf(body, query.data, own ?? []) : []), [body, query.data, own]);
  const change = (part: Partial<ComparisonBody>) => setBody((before) => ({ ...before, ...part }));
  return (
    <Page
      title={body.title}
      actions={
        <>
          <Button variant="outlined" onClick={() => setEditing(true)}>
            Set and measures
          </Button>
          {id !== null && !PRACTISING && (
            <Button component="a" href={apiUrl(`/study.zip?comparison=${id}`)}>
              Package
            </Button>
          )}
          {id !== null && (
            <Ask
              button="Remove"
              says="The comparison goes, its samples stay. This cannot be undone."
              yes="Remove it"
              no="Keep it"
              color="error"
              onYes={() => remove.mutate()}
            />
          )}
          <Button variant="contained" disabled={!changed && id !== null} onClick={() => keep.mutate(body)}>
            Keep
          </Button>
        </>
      }
    >
      <QueryGate query={query} what="the set">
        {(set) => (
          <>
            <Box sx={{ mb: 1.5, minHeight: 48 }}>
              <Typography role="status">
                <strong>{set.members.length === 1 ? 'One sample' : `${set.members.length} samples`}</strong> ·{' '}
                {ruleWords(body.rule)}
                {set.pending && ' · some are being worked out'}
              </Typography>
              <Grown set={set} kept={kept} />
              <Outside set={set} />
              {complete && emptyMeasures(body, views).length > 0 && (
                <Typography variant="body2" color="text.secondary">
                  Nobody of the set has: {emptyMeasures(body, views).join(', ')}.
                </Typography>
              )}
              {body.note && <Typography color="text.secondary">{body.note}</Typography>}
            </Box>
            {set.members.length === 0 ? (
              <Typography color="text.secondary">
                No sample is what the rule asks for. Change the set, or take samples in.
              </Typography>
            ) : (
              <WorkOf body={body} set={set} views={views} stamp={query.dataUpdatedAt} onChange={change} />
            )}
            {editing && (
              <SetDialog body={body} set={set} onClose={() => setEditing(false)} onChange={(next) => setBody(next)} />
            )}
          </>
        )}
      </QueryGate>
    </Page>
  );
}

function Stored({ id }: { readonly id: string }) {
  const query = useQuery(comparisonQuery(id));
  return (
    <QueryGate query={query} what="the comparison">
      {({ id: _id, version, members, updatedAt: _at, ...body }) => (
        <Open key={version} id={id} stored={body} version={version} kept={members} />
      )}
    </QueryGate>
  );
}

export function ComparePage() {
  const { comparisonId = 'new' } = useParams();
  // What most come for is on its way while the set is asked for.
  useEffect(() => void bringPicture(), []);
  const { state } = useLocation();
  // Kept from its first moment: what is pressed on the page changes its address, which then carries nothing more.
  const [picks] = useState((state as { picks?: readonly string[] } | null)?.picks);
  if (comparisonId !== 'new') return <Stored id={comparisonId} />;
  const begun: ComparisonBody = picks
    ? { ...NEW_COMPARISON, rule: { kind: 'picked', picks: picks.map((id) => ({ id, reason: '' })) } }
    : NEW_COMPARISON;
  return <Open id={null} stored={begun} version={0} kept={null} />;
}
