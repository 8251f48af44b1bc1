// A sample's pages: the station in the middle, the ledger at the right.
import type { SampleDossier } from '@lastmark/contract/types';
import { stationsOf } from '@lastmark/core/station';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { memo, useMemo } from 'react';
import { Link, Outlet, useMatch, useNavigate, useParams } from 'react-router';
import { isMissing } from '../api/client.ts';
import { dossierQuery } from '../api/queries.ts';
import { focusFirstEmpty } from '../parts/focusEntry.ts';
import { PAGE_SIDE } from '../parts/Page.tsx';
import { QueryGate } from '../parts/QueryGate.tsx';
import { sampleName } from '../parts/sampleName.ts';
import { usePageTitle } from '../parts/usePageTitle.ts';
import { NowContext, SampleContext, useVerdict } from '../state/sample.tsx';
import { useAfterPaint } from '../state/useAfterPaint.ts';
import { useKeys } from '../state/useKeys.ts';
import { STATIONS } from '../stations/registry.ts';
import { NothingHere } from './FailedPage.tsx';
import { Ledger } from './Ledger.tsx';

/** A station that this kind of sample does not have: an address typed, or a link kept. */
function Strange({ title, dossier }: { readonly title: string; readonly dossier: SampleDossier }) {
  const { id, model } = dossier.sample;
  return (
    <>
      <Typography variant="h1" sx={{ mb: 1 }}>
        {title}
      </Typography>
      <Typography sx={{ mb: 2 }}>
        {model.kind === 'cable'
          ? 'This sits in the line: only chargers have it.'
          : 'This is a charger: only cables have it.'}
      </Typography>
      <Button component={Link} to={`/samples/${id}/intake`} variant="outlined">
        Go to Intake
      </Button>
    </>
  );
}

/** Pages and ledger, with what is concluded: drawn when what was typed stands on screen. */
const Concluded = memo(function Concluded({ dossier }: { readonly dossier: SampleDossier }) {
  const verdict = useVerdict(dossier);
  const navigate = useNavigate();
  const { id } = dossier.sample;
  useKeys({
    ...Object.fromEntries(
      stationsOf(STATIONS, dossier.sample.model.kind)
        .slice(0, STATION_KEYS.length)
        .map((station, index) => [`alt+${STATION_KEYS[index]}`, () => void navigate(`/samples/${id}/${station.id}`)]),
    ),
    'alt+g': focusFirstEmpty,
  });
  const at = useMatch('/samples/:sampleId/:station')?.params.station;
  const own = stationsOf(STATIONS, dossier.sample.model.kind);
  const strange = STATIONS.find((station) => station.id === at && !own.includes(station));
  const { model, unit, tag } = dossier.sample;
  const name = sampleName({ ...model, serial: unit.serial, tag });
  usePageTitle([...STATIONS.filter((station) => station.id === at).map(({ title }) => title), name].join(' · '));
  const value = useMemo(() => ({ dossier, verdict }), [dossier, verdict]);
  return (
    <SampleContext.Provider value={value}>
      {/* The ledger stands beside the work, or above it where it is short or there is no room. */}
      <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr) auto', gridTemplateRows: 'auto 1fr' }}>
        {/* Keyed by unit: no field of one sample may survive into another. */}
        <Box key={id} sx={{ gridColumn: 1, gridRow: 2, px: PAGE_SIDE, pt: 2.5, pb: 6 }}>
          {strange ? <Strange title={strange.title} dossier={dossier} /> : <Outlet />}
        </Box>
        <Ledger />
      </Box>
    </SampleContext.Provider>
  );
});

function SampleAtHand({ dossier }: { readonly dossier: SampleDossier }) {
  const soon = useAfterPaint(dossier);
  return (
    <NowContext.Provider value={dossier}>
      {/* Another sample is shown at once: nothing of the last one may stay. */}
      <Concluded dossier={soon.sample.id === dossier.sample.id ? soon : dossier} />
    </NowContext.Provider>
  );
}

/** Keys of the stations, as they lie side by side. */
const STATION_KEYS = '1234567890-=';

export function SampleLayout() {
  const { sampleId = '' } = useParams();
  const query = useQuery(dossierQuery(sampleId));
  const { data, error } = query;
  if (!data && isMissing(error)) return <NothingHere says={error.message} />;
  return (
    <QueryGate query={query} what="the sample">
      {(dossier) => <SampleAtHand dossier={dossier} />}
    </QueryGate>
  );
}
