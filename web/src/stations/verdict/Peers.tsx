// The sample among its peers: the same kind and about the same power, each measure under one condition for all.
import type { ComparisonBody } from '@lastmark/contract/types';
import { EVERYTHING, rivalsOf } from '@lastmark/core/compare';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { NEW_COMPARISON, setQuery } from '../../compare/queries.ts';
import { Strips } from '../../compare/Strips.tsx';
import { type MeasureView, sampleTitle, viewsOf } from '../../compare/views.ts';
import { QueryGate } from '../../parts/QueryGate.tsx';
import { useSample } from '../../state/sample.tsx';

/** About the same power: from so much of it to so much. */
const [FROM, TO] = [0.7, 1.4];
const CABLE_MEASURES = ['resistance-per-metre', 'loop-resistance', 'price-per-metre', 'mass', 'proven-share'];
const MOST_NAMED = 3;

function peersOf(kind: string, watts: number | null): ComparisonBody {
  const charger = kind !== 'cable';
  return {
    ...NEW_COMPARISON,
    rule: {
      ...EVERYTHING,
      kinds: [kind],
      oneUnit: false,
      watts:
        charger && watts !== null ? { from: Math.floor(watts * FROM), to: Math.ceil(watts * TO) } : EVERYTHING.watts,
    },
    measures: charger ? NEW_COMPARISON.measures : CABLE_MEASURES.map((measure) => ({ measure, condition: null })),
  };
}

/** Keep what you have, or what would be better. */
function Advice({
  id,
  views,
  names,
}: {
  readonly id: string;
  readonly views: readonly MeasureView[];
  readonly names: ReadonlyMap<string, string>;
}) {
  const rivals = rivalsOf(
    id,
    views.map(({ title, better, byId }) => ({ title, better, values: byId })),
  );
  if (rivals.length === 0)
    return (
      <Typography sx={{ mb: 1 }}>
        Keep what you have: none of its peers is better in something, beyond the uncertainty, and worse in nothing.
      </Typography>
    );
  return (
    <Typography sx={{ mb: 1 }}>
      Better in something and worse in nothing:{' '}
      {rivals.slice(0, MOST_NAMED).map(({ id: other, better }, at) => (
        <span key={other}>
          {at > 0 && '; '}
          <Link to={`/samples/${other}/verdict`}>{names.get(other)}</Link> ({better.join(', ')})
        </span>
      ))}
      {rivals.length > MOST_NAMED && ` and ${rivals.length - MOST_NAMED} more`}.
    </Typography>
  );
}

export function Peers() {
  const { dossier, verdict } = useSample();
  const { sample } = dossier;
  const body = peersOf(sample.model.kind, verdict.figures.watts);
  const query = useQuery(setQuery(body.rule, body.measures));
  return (
    <Box component="section" aria-label="Among its peers" sx={{ mb: 2.5 }}>
      <Typography variant="h2" sx={{ mb: 0.5 }}>
        Among its peers
      </Typography>
      <QueryGate query={query} what="its peers">
        {(set) => {
          const views = viewsOf(body, set, []);
          const others = set.members.filter(({ id }) => id !== sample.id);
          if (others.length === 0 && !set.pending)
            return <Typography color="text.secondary">Nothing else on the shelf is of its kind and power.</Typography>;
          return (
            <>
              {set.pending ? (
                <Typography sx={{ mb: 1 }}>Figures of some are being worked out.</Typography>
              ) : (
                <Advice
                  id={sample.id}
                  views={views}
                  names={new Map(set.members.map((member) => [member.id, sampleTitle(member)]))}
                />
              )}
              <Strips views={views} members={set.members} marked={sample.id} stamp={query.dataUpdatedAt} />
            </>
          );
        }}
      </QueryGate>
    </Box>
  );
}
