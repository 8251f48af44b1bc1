// Marker: what a cable says of itself, end by end, against what is printed, and what follows for chargers.
import { CABLE_PLACES } from '@lastmark/core/cable';
import { bitsWords } from '@lastmark/core/copy';
import { type MarkerEnd, spoke } from '@lastmark/core/marker';
import { wordOf } from '@lastmark/core/pd';
import { formatPlain } from '@lastmark/core/quantity';
import { currentReadOuts } from '@lastmark/core/read-out';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { PageHead } from '../../parts/Page.tsx';
import { Panel } from '../../parts/Panel.tsx';
import { useSample } from '../../state/sample.tsx';
import { Identity } from '../read-out/DecodedView.tsx';
import { HeldBack } from './HeldBack.tsx';
import { MarkerDialog } from './MarkerDialog.tsx';

const PLACE_WORDS: Readonly<Record<string, string>> = { near: 'At the charger', far: 'At the device' };

/** What answered at an end, in a line. */
function answerOf(end: MarkerEnd): string {
  const { amps, volts } = end.rating;
  if (end.identity?.cable) return `${formatPlain(amps * volts, 'power')}: ${amps} A at ${volts} V`;
  if (end.identity && !spoke(end)) return 'A port answered, not the cable';
  return `${end.identity ? 'No cable answered' : 'No answer'}: 3 A, 60 W at most`;
}

function EndPanel({
  place,
  end,
  onEnter,
}: {
  readonly place: string;
  readonly end: MarkerEnd | undefined;
  readonly onEnter: () => void;
}) {
  const { readOuts } = useSample().dossier;
  const readOut = currentReadOuts(readOuts).find(({ id }) => id === end?.readOutId);
  const words = readOut?.cableWords.map(wordOf) ?? [];
  return (
    <Panel>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, mb: 0.5 }}>
        <Typography variant="h2" sx={{ flex: 1 }}>
          {PLACE_WORDS[place]}
        </Typography>
        <Button
          variant="outlined"
          size="small"
          onClick={onEnter}
          aria-label={`Enter the marker ${place === 'near' ? 'at the charger' : 'at the device'}`}
        >
          {end ? 'Read it again' : 'Enter its marker'}
        </Button>
      </Box>
      {!end && <Typography color="text.secondary">Nobody asked this end yet.</Typography>}
      {end && (
        <Typography sx={{ fontSize: 18, fontWeight: 600 }}>
          {answerOf(end)}
          <Box component="span" sx={{ color: 'text.secondary', fontSize: 14, fontWeight: 400 }}>
            {end.bits !== null && ` · data up to ${bitsWords(end.bits)}`}
            {end.identity?.cable && ` · ${end.identity.cable.kind === 'active' ? 'active' : 'passive'}`} ·{' '}
            {end.takenAt.slice(0, 10)}
          </Box>
        </Typography>
      )}
      {words.length > 0 && (
        <Box component="details">
          <Box component="summary" sx={{ cursor: 'pointer' }}>
            Word by word
          </Box>
          <Identity words={words} />
        </Box>
      )}
    </Panel>
  );
}

export function MarkerPage() {
  const { verdict, dossier } = useSample();
  const { ends, findings, rating } = verdict.results.marker;
  const [open, setOpen] = useState<string | null>(null);
  return (
    <Box sx={{ maxWidth: 1100 }}>
      <PageHead title="Marker">
        <Button variant="contained" onClick={() => setOpen('near')}>
          Enter its marker
        </Button>
      </PageHead>
      {findings.length > 0 && (
        <Box component="ul" aria-label="Findings" sx={{ listStyle: 'none', m: 0, mb: 1.5, p: 0 }}>
          {[...findings]
            .sort((a, b) => Number(b.grade === 'fault') - Number(a.grade === 'fault'))
            .map(({ sentence, grade }) => (
              <Box
                component="li"
                key={sentence}
                sx={{
                  py: 0.25,
                  ...(grade === 'fault' ? { color: 'error.main', fontWeight: 600 } : { color: 'text.secondary' }),
                }}
              >
                <span aria-hidden>{grade === 'fault' ? '▼ ' : '· '}</span>
                {sentence}
              </Box>
            ))}
        </Box>
      )}
      {CABLE_PLACES.map((place) => (
        <EndPanel
          key={place}
          place={place}
          end={ends.find((one) => one.place === place)}
          onEnter={() => setOpen(place)}
        />
      ))}
      {rating && <HeldBack sampleId={dossier.sample.id} />}
      {open && <MarkerDialog place={open} onClose={() => setOpen(null)} />}
    </Box>
  );
}
