// The verdict: each claim's state with the readings behind it, and the ways to take it along.

import { pricePerMetre } from '@lastmark/core/cable';
import { CLAIM_STATES, type ClaimState, describeDuration, describePromise } from '@lastmark/core/claim';
import { formatMeasured, formatPlain } from '@lastmark/core/quantity';
import { STATIONS_ABOUT, stateWord } from '@lastmark/core/station';
import { expandedUncertainty } from '@lastmark/core/uncertainty';
import type { KeyFigures } from '@lastmark/core/verdict';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Link } from 'react-router';
import { EvidenceList } from '../../parts/EvidenceList.tsx';
import { PageHead } from '../../parts/Page.tsx';
import { isLoud, StateMark } from '../../parts/StateMark.tsx';
import { Term } from '../../parts/Term.tsx';
import { type SampleAtHand, useSample } from '../../state/sample.tsx';
import { TrialsOfSample } from './TrialsOfSample.tsx';

type Item = readonly [name: string, value: string, condition: string];

/** What a cable is known by. */
function cableItems({ dossier, verdict }: SampleAtHand): readonly Item[] {
  const { cable, prices, mass } = dossier.sample.model;
  const { rating } = verdict.results.marker;
  const { loop } = verdict.results.resistance;
  const { done, failed } = verdict.results.bends;
  const paid = prices.findLast(({ kind }) => kind === 'paid');
  const metre = paid && cable ? pricePerMetre({ amount: paid.amount, pack: cable.pack, length: cable.length }) : null;
  return [
    [
      'May carry',
      rating ? formatPlain(rating.amps * rating.volts, 'power') : 'nobody asked',
      rating ? `${rating.amps} A at ${rating.volts} V` : '',
    ],
    [
      'Resistance',
      loop ? formatMeasured(loop.value, expandedUncertainty(loop), 'resistance') : 'not measured',
      loop ? 'there and back' : '',
    ],
    ['Bends', failed ? `failed by ${failed.count}` : done > 0 ? String(done) : 'not bent', failed?.fault ?? ''],
    ['Mass', mass === null ? 'not weighed' : formatPlain(mass, 'mass'), cable?.length ? `${cable.length} m` : ''],
    [
      'Price',
      metre === null || !paid ? 'not entered' : `${metre.toFixed(2)} ${paid.currency}/m`,
      metre === null ? '' : 'paid',
    ],
  ];
}

function Figures({ figures }: { readonly figures: KeyFigures }) {
  const at = useSample();
  const { watts, efficiency, idle, massPerWatt, pricePerWatt } = figures;
  const items: readonly Item[] =
    at.dossier.sample.model.kind === 'cable'
      ? cableItems(at)
      : [
          ['Nameplate', watts === null ? 'not known' : formatPlain(watts, 'power'), ''],
          ['Average efficiency', efficiency?.words ?? 'not measured', efficiency?.condition ?? ''],
          ['Idle', idle?.words ?? 'not measured', idle?.condition ?? ''],
          ['Mass', massPerWatt === null ? 'not weighed' : `${(massPerWatt * 1000).toFixed(2)} g/W`, ''],
          [
            'Price',
            pricePerWatt === null ? 'not entered' : `${pricePerWatt.value.toFixed(2)} ${pricePerWatt.currency}/W`,
            pricePerWatt?.basis ?? '',
          ],
        ];
  return (
    <Box component="dl" sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 3, rowGap: 1.5, m: 0, mb: 3 }}>
      {items.map(([name, value, condition]) => (
        <Box key={name}>
          <Box component="dt" sx={{ color: 'text.secondary', fontSize: 13 }}>
            {name}
          </Box>
          <Box component="dd" sx={{ m: 0 }}>
            <Box sx={{ fontSize: 19, fontWeight: 600, lineHeight: 1.25 }}>{value}</Box>
            <Box sx={{ fontSize: 12, color: 'text.secondary' }}>{condition}</Box>
          </Box>
        </Box>
      ))}
    </Box>
  );
}

/** Where to go to settle a claim nobody tested. */
function NextStep({ kind }: { readonly kind: string }) {
  const { dossier } = useSample();
  const station = STATIONS_ABOUT.find(({ settles }) => (settles as readonly string[]).includes(kind));
  if (!station) return null;
  return (
    <Button size="small" component={Link} to={`/samples/${dossier.sample.id}/${station.id}`} sx={{ mt: 0.5, px: 0.5 }}>
      Measure it at {station.title}
    </Button>
  );
}

function ClaimGroup({ state }: { readonly state: ClaimState }) {
  const { dossier, verdict } = useSample();
  const members = dossier.claims.flatMap((claim, index) => {
    const result = verdict.claims[index];
    return result?.state === state ? [{ claim, result }] : [];
  });
  if (members.length === 0) return null;
  return (
    <Box component="section" aria-label={stateWord(state)} sx={{ mb: 2.5 }}>
      <Typography variant="h2" sx={{ mb: 0.75 }}>
        <StateMark state={state} />
      </Typography>
      {members.map(({ claim, result }) => (
        <Box
          key={claim.id}
          component="details"
          sx={{
            border: 1,
            borderColor: isLoud(state) ? 'error.main' : 'divider',
            borderRadius: 1,
            bgcolor: isLoud(state) ? 'badGround' : 'background.paper',
            mb: 0.5,
            '& > summary': { px: 2, py: 1, cursor: 'pointer' },
          }}
        >
          <summary>
            <Box component="span" sx={{ fontWeight: 600 }}>
              {describePromise(claim.promise)}
            </Box>{' '}
            <Box component="span" sx={{ color: 'text.secondary' }}>
              {claim.duration.kind !== 'unstated' && `(${describeDuration(claim.duration)}) `}
            </Box>
            {result.sentence}
          </summary>
          <Box sx={{ px: 2, pb: 1.5 }}>
            <EvidenceList result={result} printed={claim.printed} />
            {state === 'not tested' && <NextStep kind={claim.promise.kind} />}
          </Box>
        </Box>
      ))}
    </Box>
  );
}

export function VerdictPage() {
  const { dossier, verdict } = useSample();
  const { sample, profile } = dossier;
  const base = `/api/samples/${sample.id}`;
  return (
    <Box sx={{ maxWidth: 1240 }}>
      <PageHead title="Verdict">
        <Button variant="contained" href={`${base}/sheet.pdf`} target="_blank">
          Print the sheet
        </Button>
        <Button variant="outlined" href={`${base}/export.csv`}>
          Data as CSV
        </Button>
        <Button variant="outlined" href={`${base}/export.json`}>
          Data as JSON
        </Button>
      </PageHead>
      <Figures figures={verdict.figures} />
      {CLAIM_STATES.map((state) => (
        <ClaimGroup key={state} state={state} />
      ))}
      <TrialsOfSample sampleId={sample.id} />
      {dossier.claims.length === 0 && (
        <Typography color="text.secondary">
          Nothing to judge yet. <Link to={`/samples/${sample.id}/claims`}>Type what the label promises</Link>.
        </Typography>
      )}
      <Typography variant="body2" color="text.secondary">
        {profile.rule === 'guarded'
          ? 'Guarded: proven only if value − U clears the limit, short only if value + U misses it.'
          : 'Simple: the value against the limit.'}{' '}
        <Term of="U" /> is k = 2, about 95 %. A result from Lastmark is not a safety certification.
      </Typography>
    </Box>
  );
}
