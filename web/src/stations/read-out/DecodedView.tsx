// What the typed text says, beside it: how it was taken, the offers, requests, the cable's reply, and findings.
import {
  decodeIdentity,
  decodeRequest,
  decodeSource,
  describeOffer,
  explainHeader,
  explainRequest,
  wordText,
} from '@lastmark/core/pd';
import type { ReadRequest } from '@lastmark/core/read-out';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { BitTable, wordDigits } from './BitTable.tsx';
import { details } from './details.ts';
import { Findings } from './Findings.tsx';
import type { Decoded } from './useInterpret.ts';
import { WordList } from './WordList.tsx';

const FORMS: Readonly<Record<Decoded['form'], string>> = {
  '': 'Nothing typed yet.',
  words: 'Taken as words',
  messages: 'Taken as messages',
  list: 'Taken as a list',
  lines: 'Taken as levels',
  'open form': 'Taken as a read-out in the open form',
  info: 'Taken as what the source states',
};

/** A request in words: `position 6: 9 V 3 A of PPS 5–11 V 3 A`. */
function requestWords({ word, kind, offer }: ReadRequest): string {
  const { position, volts, operating, most, flags } = decodeRequest(word, kind);
  const unit = kind === 'battery' ? 'W' : 'A';
  const asked = [
    volts === null ? '' : `${volts} V`,
    `${operating} ${unit}`,
    most === null || most === operating ? '' : `at most ${most} ${unit}`,
  ];
  const of = offer === null ? '' : ` of ${describeOffer(decodeSource(offer))}`;
  return `Position ${position}: ${asked.filter(Boolean).join(', ')}${of}${flags.includes('mismatch') ? '; it wanted more' : ''}`;
}

export function Identity({ words }: { readonly words: readonly number[] }) {
  const { cable, words: shown, findings } = decodeIdentity(words);
  return (
    <Box>
      {cable && (
        <Typography sx={{ fontWeight: 600 }}>
          Cable: {cable.rating.amps} A, {cable.rating.volts} V
          {cable.rating.epr ? ', EPR: up to 240 W' : `: up to ${cable.rating.amps * cable.rating.volts} W`}
        </Typography>
      )}
      {shown.map(({ word, title, fields }) => (
        <Box component="details" key={title} sx={details}>
          <summary>
            {title} {wordText(word)}
          </summary>
          <BitTable digits={wordDigits(word)} title={title} fields={fields} />
        </Box>
      ))}
      {findings.length > 0 && <Findings findings={findings} none="" />}
    </Box>
  );
}

export function DecodedView({ decoded, busy }: { readonly decoded: Decoded; readonly busy: boolean }) {
  const { form, words, epr, messages, requests, identity, findings, more } = decoded;
  const positions = words.length === 1 ? 'position' : 'positions';
  const count = words.length > 0 ? `: ${words.length.toLocaleString('en')} ${positions}${epr ? ', EPR' : ''}` : '';
  return (
    <Box aria-live="polite" sx={{ display: 'grid', gap: 1, alignContent: 'start' }}>
      <Typography color="text.secondary">{busy ? 'Reading …' : `${FORMS[form]}${form ? `${count}.` : ''}`}</Typography>
      {messages.map(({ header, title, revision }, index) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: messages stand in the order they were sent
        <Box component="details" key={index} sx={details}>
          <summary>
            {title}
            {revision ? `, R${revision}` : ''}
          </summary>
          <BitTable digits={wordDigits(header)} title={title} fields={explainHeader(header)} />
        </Box>
      ))}
      {words.length > 0 && <WordList words={words} />}
      {requests.map((request) => (
        <Box component="details" key={wordText(request.word)} sx={details}>
          <summary>{requestWords(request)}</summary>
          <BitTable
            digits={wordDigits(request.word)}
            title="Request"
            fields={explainRequest(request.word, request.kind)}
          />
        </Box>
      ))}
      {identity.length > 0 && <Identity words={identity} />}
      {form && <Findings findings={findings} none="Nothing wrong in the list by itself." />}
      {more > 0 && <Typography variant="body2">And {more} more findings.</Typography>}
    </Box>
  );
}
