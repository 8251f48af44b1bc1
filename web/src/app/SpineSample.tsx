// The sample on the bench: its port face, its units, and its stations with progress and worst finding.
import type { Here } from '@lastmark/contract/together';
import type { SampleDossier } from '@lastmark/contract/types';
import type { StationState } from '@lastmark/core/verdict';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { memo } from 'react';
import { NavLink, useMatch } from 'react-router';
import { dossierQuery } from '../api/queries.ts';
import { PlaceMark } from '../collections/PlaceField.tsx';
import { CableFace } from '../parts/CableFace.tsx';
import { PortFace } from '../parts/PortFace.tsx';
import { isLoud, isOpen } from '../parts/StateMark.tsx';
import { StationMark } from '../parts/StationMark.tsx';
import { useVerdict } from '../state/sample.tsx';
import { useAfterPaint } from '../state/useAfterPaint.ts';
import { STATIONS } from '../stations/registry.ts';
import { useHere } from '../together/useNews.ts';
import { spineLink } from './Spine.tsx';

/** What a station's row says at its end: the exception in a word, or how far it is. */
function End({ state }: { readonly state: StationState }) {
  const { done, total, worst, look } = state;
  if (worst && (isLoud(worst) || isOpen(worst))) {
    return (
      <Box
        component="span"
        sx={{ color: isLoud(worst) ? 'error.main' : 'warning.main', fontWeight: 700, fontSize: 13 }}
      >
        {worst === 'cannot be decided' ? 'undecided' : worst}
      </Box>
    );
  }
  if (look !== 'under way') return null;
  return (
    <Box component="span" sx={{ color: 'text.secondary', fontSize: 13 }}>
      {done}/{total}
    </Box>
  );
}

/** `Brook Tarn` is `BT`. */
const initialsOf = (name: string): string =>
  name
    .split(/\s+/)
    .slice(0, 2)
    .map((word) => [...word][0]?.toUpperCase() ?? '')
    .join('');

const MOST_FACES = 2;

/** Who else is at a station, by their initials. */
function Faces({ here }: { readonly here: readonly Here[] }) {
  if (here.length === 0) return null;
  return (
    <Box component="span" title={here.map(({ name }) => name).join(', ')} sx={FACES} aria-hidden>
      {here.slice(0, MOST_FACES).map(({ personId, name }) => (
        <span key={personId}>{initialsOf(name)}</span>
      ))}
      {here.length > MOST_FACES && `+${here.length - MOST_FACES}`}
    </Box>
  );
}

const FACES = {
  display: 'flex',
  gap: 0.5,
  fontSize: 11,
  fontWeight: 600,
  '& > span': { border: 1, borderColor: 'primary.main', borderRadius: 2, px: 0.5, lineHeight: '16px' },
} as const;

function StationLink({
  sampleId,
  title,
  state,
  here,
}: {
  readonly sampleId: string;
  readonly title: string;
  readonly state: StationState;
  /** Who else has it open now. */
  readonly here: readonly Here[];
}) {
  const { id, done, total, worst, look } = state;
  return (
    <Box
      component={NavLink}
      to={`/samples/${sampleId}/${id}`}
      data-look={look}
      sx={STATION_LINK}
      aria-label={`${title}, ${look}, ${done} of ${total} done${worst ? `, worst: ${worst}` : ''}${here.length > 0 ? `, here now: ${here.map(({ name }) => name).join(', ')}` : ''}`}
    >
      <StationMark look={look} />
      <Box component="span" sx={{ flex: 1 }}>
        {title}
      </Box>
      <Faces here={here} />
      <End state={state} />
    </Box>
  );
}

/** What is done recedes, what was found wanting stands out, what nobody touched is faint. */
const STATION_LINK = {
  ...spineLink,
  '&[data-look="found wanting"]': { bgcolor: 'badGround', fontWeight: 700 },
  '&[data-look=untouched]': { color: 'text.secondary' },
  '&[data-look="found wanting"].active': { borderColor: 'error.main' },
} as const;

const Loaded = memo(function Loaded({ dossier }: { readonly dossier: SampleDossier }) {
  const { sample } = dossier;
  const verdict = useVerdict(dossier);
  const station = useMatch('/samples/:sampleId/:station')?.params.station ?? 'intake';
  const here = useHere(sample.id);
  return (
    <>
      <Box sx={{ px: 2, pt: 1.5, pb: 1, borderTop: 1, borderColor: 'divider' }}>
        {sample.model.cable ? <CableFace cable={sample.model.cable} /> : <PortFace ports={sample.model.ports} />}
        <Typography sx={{ mt: 1, fontWeight: 600, lineHeight: 1.25, overflowWrap: 'anywhere' }}>
          {sample.model.maker} {sample.model.model}
        </Typography>
        <Box component="ul" aria-label="Units" sx={{ listStyle: 'none', m: 0, mt: 0.5, p: 0 }}>
          {sample.units.map((unit) => (
            <Box component="li" key={unit.id} sx={{ fontSize: 13 }}>
              {unit.id === sample.id ? (
                <span aria-current="true">● {unit.serial || unit.tag}</span>
              ) : (
                <Box
                  component={NavLink}
                  to={`/samples/${unit.id}/${station}`}
                  sx={{ color: 'text.secondary', display: 'inline-block', lineHeight: '24px' }}
                >
                  ○ {unit.serial || unit.tag}
                </Box>
              )}
            </Box>
          ))}
        </Box>
        <PlaceMark collectionId={sample.collectionId} />
      </Box>
      {STATIONS.map(({ id, title }) => {
        const state = verdict.stations.find((one) => one.id === id);
        return (
          state && (
            <StationLink
              key={id}
              sampleId={sample.id}
              title={title}
              state={state}
              here={here.filter(
                ({ place }, at) =>
                  place === title &&
                  here.findIndex((one) => one.personId === here[at]?.personId && one.place === title) === at,
              )}
            />
          )
        );
      })}
    </>
  );
});

export function SpineSample({ sampleId }: { readonly sampleId: string }) {
  const { data: now } = useQuery(dossierQuery(sampleId));
  const soon = useAfterPaint(now);
  const data = soon?.sample.id === now?.sample.id ? soon : now;
  return data ? <Loaded dossier={data} /> : null;
}
