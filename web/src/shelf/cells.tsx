// What the row of a sample says, a cell a column: figures with their conditions, claims by state, the spine in small.
import type { SampleRow } from '@lastmark/contract/types';
import type { ClaimState } from '@lastmark/core/claim';
import { formatPlain } from '@lastmark/core/quantity';
import { STATIONS_ABOUT } from '@lastmark/core/station';
import type { KeyFigures } from '@lastmark/core/verdict';
import Box from '@mui/material/Box';
import type { ReactNode } from 'react';
import { PortFace } from '../parts/PortFace.tsx';
import { isLoud, StateMark } from '../parts/StateMark.tsx';
import { StationMark } from '../parts/StationMark.tsx';

/** A figure with its condition under it; both in full where the column is too narrow for them. */
function Figure({ text, condition }: { readonly text: string; readonly condition?: string }) {
  return (
    <Box sx={{ minWidth: 0 }}>
      <Box sx={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }} title={text}>
        {text}
      </Box>
      {condition && (
        <Box
          title={condition}
          sx={{
            fontSize: 12,
            color: 'text.secondary',
            overflow: 'hidden',
            textOverflow: 'ellipsis',
            whiteSpace: 'nowrap',
          }}
        >
          {condition}
        </Box>
      )}
    </Box>
  );
}

/** What would stand there is named by its head. */
const NONE = <Box sx={{ color: 'text.secondary', fontSize: 13 }}>not measured</Box>;
/** Of what sits in the line there is no such thing. */
const OF_CHARGERS = (
  <Box role="img" aria-label="of chargers only" title="of chargers only" sx={{ color: 'text.secondary' }}>
    –
  </Box>
);
/** Nobody has worked it out yet: that it was not measured would be a guess. */
const NOT_YET = (
  <Box role="img" aria-label="not worked out yet" title="not worked out yet" sx={{ color: 'text.secondary' }}>
    …
  </Box>
);
const NOT_ENTERED = <Box sx={{ color: 'text.secondary', fontSize: 13 }}>not entered</Box>;

/** Worst first; words that promise nothing are not counted. */
const SHOWN_STATES = [
  'short',
  'unreachable',
  'borderline',
  'cannot be decided',
  'proven',
  'assumed',
  'at least',
  'advertised only',
  'not visible',
  'not tested',
] as const satisfies readonly ClaimState[];

function ClaimCounts({ claims }: Pick<KeyFigures, 'claims'>) {
  const states = SHOWN_STATES.filter((state) => claims[state]);
  if (states.length === 0) return <Box sx={{ color: 'text.secondary', fontSize: 13 }}>none entered</Box>;
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 0.75, fontSize: 14, lineHeight: 1.3 }}>
      {states.map((state) => (
        <Box
          key={state}
          component="span"
          sx={{
            display: 'inline-flex',
            gap: 0.5,
            alignItems: 'center',
            ...(isLoud(state) ? { fontWeight: 700, color: 'error.main' } : { color: 'text.secondary' }),
          }}
        >
          <StateMark state={state} bare />
          {claims[state]}
        </Box>
      ))}
    </Box>
  );
}

/** The spine in small. */
function Stations({ stations }: Pick<KeyFigures, 'stations'>) {
  return (
    <Box sx={{ display: 'flex', gap: '1.5px', mt: 0.4 }}>
      {stations.map(({ id, look }) => (
        <StationMark
          key={id}
          look={look}
          size={12}
          label={`${STATIONS_ABOUT.find((one) => one.id === id)?.title ?? id}: ${look}`}
        />
      ))}
    </Box>
  );
}

/** In the order of the heads. */
export function cellsOf({
  ports,
  maker,
  model,
  serial,
  tag,
  kind,
  figures,
  unjudged,
  pending,
}: SampleRow): ReactNode[] {
  const { watts, efficiency, idle, massPerWatt, pricePerWatt, claims, stations } = figures;
  const known = stations.length > 0;
  const without = (what: ReactNode) => (kind === 'cable' ? OF_CHARGERS : known ? what : NOT_YET);
  const none = without(NONE);
  const perWatt = without(NOT_ENTERED);
  return [
    kind === 'cable' ? (
      <Box key="ports" sx={{ color: 'text.secondary', fontSize: 13 }}>
        in the line
      </Box>
    ) : (
      <PortFace key="ports" ports={ports} width={Math.min(108, ports.length * 32 + 14)} />
    ),
    <Figure key="name" text={model} condition={`${maker} · ${serial || tag}`} />,
    <Figure
      key="watts"
      text={watts !== null ? formatPlain(watts, 'power') : known ? 'not known' : '…'}
      condition={kind}
    />,
    efficiency ? <Figure key="eff" text={efficiency.words} condition={efficiency.condition} /> : none,
    idle ? <Figure key="idle" text={idle.words} condition={idle.condition} /> : none,
    massPerWatt === null ? perWatt : `${(massPerWatt * 1000).toFixed(2)} g/W`,
    pricePerWatt === null ? (
      perWatt
    ) : (
      <Figure
        key="price"
        text={`${pricePerWatt.value.toFixed(2)}/W`}
        condition={`${pricePerWatt.currency}, ${pricePerWatt.basis}`}
      />
    ),
    unjudged ? (
      <Box key="claims" sx={{ color: 'error.main', fontWeight: 600, fontSize: 13 }}>
        ▼ Cannot be worked out: look for an impossible reading
      </Box>
    ) : (
      <Box key="claims">
        {known && <ClaimCounts claims={claims} />}
        {pending ? (
          <Box sx={{ fontSize: 12, color: 'text.secondary' }}>being worked out</Box>
        ) : (
          <Stations stations={stations} />
        )}
      </Box>
    ),
  ];
}
