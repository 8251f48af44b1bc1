// Every offer in a table: the level map for keyboard and screen reader, and each word bit by bit.
import { describeOffer, explain, mostWatts, SUPPLY_WORDS, sourceLayout, voltsOf, wordText } from '@lastmark/core/pd';
import { offerState } from '@lastmark/core/proof';
import { formatPlain } from '@lastmark/core/quantity';
import { type Offer, offersOf, type ReadOut } from '@lastmark/core/read-out';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { QuietTable } from '../../parts/QuietTable.tsx';
import { StateMark } from '../../parts/StateMark.tsx';
import { useSample } from '../../state/sample.tsx';
import { BitTable, wordDigits } from './BitTable.tsx';

function amounts({ object }: Offer): { range: string | null; amps: string | null } {
  const range = voltsOf(object);
  const amps =
    'amps' in object
      ? formatPlain(object.amps, 'current') +
        ('ampsAbove' in object && object.ampsAbove > 0 ? ` / ${formatPlain(object.ampsAbove, 'current')}` : '')
      : 'by power';
  if (!range) return { range: null, amps: null };
  const same = range.low === range.high;
  return {
    range: same ? formatPlain(range.low, 'voltage') : `${range.low}–${formatPlain(range.high, 'voltage')}`,
    amps,
  };
}

export function OfferTable({ readOuts }: { readonly readOuts: readonly ReadOut[] }) {
  const { dossier, verdict } = useSample();
  const [open, setOpen] = useState<string | null>(null);
  const promised = (port: string, volts: number) =>
    dossier.claims.flatMap(({ promise }) =>
      promise.kind === 'port-line' && promise.port === port && Math.abs(promise.volts - volts) < 0.01 * volts
        ? [promise.amps]
        : [],
    );
  const rows = readOuts.flatMap((readOut) =>
    offersOf(readOut).map((offer) => ({ readOut, offer, key: `${readOut.id} ${offer.position}` })),
  );
  type Row = (typeof rows)[number];
  const stateOf = ({ readOut, offer: { unreachable, object } }: Row) =>
    unreachable ? 'unreachable' : offerState(verdict.results.proof.steps, readOut.port, object);
  return (
    <Box sx={{ mt: 2 }}>
      <QuietTable<Row>
        label="Offers"
        rows={rows}
        rowKey={({ key }) => key}
        exception={(row) => stateOf(row) === 'short'}
        columns={[
          { head: 'Port', cell: ({ readOut }) => readOut.port },
          { head: '#', cell: ({ offer }) => String(offer.position) },
          { head: 'Kind', cell: ({ offer }) => SUPPLY_WORDS[offer.object.kind] },
          { head: 'Volts', cell: ({ offer }) => amounts(offer).range, empty: 'not told' },
          { head: 'Amps', cell: ({ offer }) => amounts(offer).amps, empty: 'not told' },
          {
            head: 'Watts',
            unit: 'W',
            number: true,
            cell: ({ offer }) => formatPlain(mostWatts(offer.object), 'power', 'W'),
          },
          {
            head: 'Label',
            cell: ({ readOut, offer: { object } }) =>
              (object.kind === 'fixed' ? promised(readOut.port, object.volts) : [])
                .map((one) => formatPlain(one, 'current'))
                .join(', '),
          },
          {
            head: 'State',
            cell: (row) => (
              <>
                <StateMark state={stateOf(row)} />
                {row.offer.unreachable && (
                  <Box sx={{ fontSize: 13, color: 'text.secondary' }}>{row.offer.unreachable}</Box>
                )}
              </>
            ),
          },
          {
            head: 'Word',
            cell: ({ readOut, offer: { object, word }, key }) => (
              <Button
                size="small"
                aria-expanded={open === key}
                aria-label={`Bits of ${describeOffer(object)} on ${readOut.port}`}
                onClick={() => setOpen(open === key ? null : key)}
              >
                {wordText(word)}
              </Button>
            ),
          },
        ]}
        below={({ key, offer: { word, object } }) =>
          open === key ? (
            <BitTable
              digits={wordDigits(word)}
              title={describeOffer(object)}
              fields={explain(sourceLayout(word), word)}
            />
          ) : null
        }
      />
    </Box>
  );
}
