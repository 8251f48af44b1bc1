// Who is first in each measure, only where the lead is more than the uncertainty; who was before, and how the field moved.
import type { SetMember } from '@lastmark/contract/types';
import { type First, reignsOf, yearsOf } from '@lastmark/core/compare';
import { formatProbability } from '@lastmark/core/quantity';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';
import { useCompareWork } from './useCompareWork.ts';
import { type MeasureView, plainWords, sampleTitle, words } from './views.ts';

/** So many of those it is level with are named. */
const MOST_NAMED = 4;

interface Props {
  readonly views: readonly MeasureView[];
  readonly members: readonly SetMember[];
  /** Changes with what was fetched. */
  readonly stamp: number;
}

function Name({ id, names }: { readonly id: string; readonly names: ReadonlyMap<string, string> }) {
  return (
    <Box component={Link} to={`/samples/${id}/verdict`} sx={{ color: 'text.primary' }}>
      {names.get(id) ?? id}
    </Box>
  );
}

function Lead({
  first,
  view,
  names,
}: {
  readonly first: First;
  readonly view: MeasureView;
  readonly names: ReadonlyMap<string, string>;
}) {
  const { leader, called, level, unknown, chances } = first;
  if (leader === null)
    return <Typography color="text.secondary">Nobody: no uncertainty is stated, so no lead can be told.</Typography>;
  const value = view.byId.get(leader);
  const chance = formatProbability(chances.get(leader) ?? 0);
  return (
    <>
      <Typography>
        <strong>{called ? '▲ First: ' : '≈ '}</strong>
        <Name id={leader} names={names} /> {value && words(view, value)}
        {called ? `, first with ${chance}` : level.length > 0 ? ', level with ' : `, first with ${chance}`}
        {!called &&
          level.slice(0, MOST_NAMED).map((id, at) => (
            <span key={id}>
              {at > 0 && ', '}
              <Name id={id} names={names} />
            </span>
          ))}
        {!called && level.length > MOST_NAMED && ` and ${level.length - MOST_NAMED} more`}.
      </Typography>
      {unknown.length > 0 && (
        <Typography variant="body2" color="text.secondary">
          Not called: the uncertainty of{' '}
          {unknown.length === 1 ? names.get(unknown[0] ?? '') : `${unknown.length} of them`} is not stated.
        </Typography>
      )}
    </>
  );
}

/** Former winners and the years. */
function Past({ view, names }: { readonly view: MeasureView; readonly names: ReadonlyMap<string, string> }) {
  const reigns = reignsOf(view.values, view.better);
  const years = yearsOf(view.values, view.better);
  const plain = (value: number) => plainWords(view, value);
  if (reigns.length < 2 && years.length < 2) return null;
  return (
    <Box component="details" sx={{ fontSize: 14 }}>
      <Box component="summary" sx={{ cursor: 'pointer', minHeight: 24 }}>
        Before
      </Box>
      {reigns.length > 1 && (
        <Box component="ol" sx={{ m: 0, pl: 2.5 }}>
          {reigns.map(({ id, from, until, value, certainty }, at) => (
            <li key={id}>
              {names.get(id)} {plain(value)}, from {from}
              {until ? ` to ${until}` : ' on'}
              {at > 0 &&
                certainty !== null &&
                `; ousted ${names.get(reigns[at - 1]?.id ?? '')} (${formatProbability(certainty)})`}
            </li>
          ))}
        </Box>
      )}
      {years.length > 1 && (
        <Typography variant="body2">
          {years.map(({ year, median, count }) => `${year}: median ${plain(median)} of ${count}`).join(' · ')}
        </Typography>
      )}
    </Box>
  );
}

export function Firsts({ views, members, stamp }: Props) {
  const judged = views.filter(({ better, count }) => better !== null && count > 0);
  const names = new Map(members.map((member) => [member.id, sampleTitle(member)]));
  const firsts = useCompareWork(['firsts', stamp, judged.map(({ key }) => key).join()], (work) =>
    work.firsts(judged.map(({ better, values }) => ({ better, values }))),
  );
  return (
    <>
      <Box component="ul" aria-label="Firsts" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {judged.map((view, at) => (
          <Box component="li" key={view.id} sx={{ borderBottom: 1, borderColor: 'divider', py: 1, minHeight: 92 }}>
            <Typography sx={{ fontWeight: 600 }}>
              {view.title}
              <Box component="span" sx={{ fontWeight: 400, color: 'text.secondary' }}>
                {view.condition && ` · ${view.condition}`} · {view.count} of {members.length}
              </Box>
            </Typography>
            {firsts?.[at] ? (
              <Lead first={firsts[at]} view={view} names={names} />
            ) : (
              <Typography>Being drawn…</Typography>
            )}
            <Past view={view} names={names} />
          </Box>
        ))}
      </Box>
      <Typography variant="body2" color="text.secondary" sx={{ mt: 1 }}>
        A lead is called where the probability of being first, by draws from the uncertainties, is 95 % or more. Samples
        read by the same meters share their error; what nobody gave an uncertainty, such as mass and price, counts as it
        stands.
      </Typography>
    </>
  );
}
