// Every offer in a table: the level map for keyboard and screen reader, and each word bit by bit.
import { describeOffer, explain, mostWatts, SUPPLY_WORDS, sourceLayout, voltsOf, wordText } from '@lastmark/core/pd';
import { offerState } from '@lastmark/core/proof';
import { formatPlain } from '@lastmark/core/quantity';
import { type Offer, offersOf, type ReadOut } from '@lastmark/core/read-out';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { Fragment, useState } from 'react';
import { StateMark } from '../../parts/StateMark.tsx';
import { useSample } from '../../state/sample.tsx';
import { BitTable } from './BitTable.tsx';

function amounts({ object }: Offer): { range: string; amps: string } {
  const range = voltsOf(object);
  const amps =
    'amps' in object
      ? formatPlain(object.amps, 'current') +
        ('ampsAbove' in object && object.ampsAbove > 0 ? ` / ${formatPlain(object.ampsAbove, 'current')}` : '')
      : 'by power';
  if (!range) return { range: '–', amps: '–' };
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
  return (
    <Box
      sx={{ border: 1, borderColor: 'divider', borderRadius: 1, bgcolor: 'background.paper', overflowX: 'auto', mt: 2 }}
    >
      <Table size="small" aria-label="Offers">
        <TableHead>
          <TableRow>
            {['Port', '#', 'Kind', 'Volts', 'Amps', 'Watts', 'Label', 'State', ''].map((head) => (
              <TableCell key={head}>{head}</TableCell>
            ))}
          </TableRow>
        </TableHead>
        <TableBody>
          {readOuts.flatMap((readOut) =>
            offersOf(readOut).map((offer) => {
              const { object, position, word, unreachable } = offer;
              const key = `${readOut.id} ${position}`;
              const { range, amps } = amounts(offer);
              const label = object.kind === 'fixed' ? promised(readOut.port, object.volts) : [];
              const state = unreachable ? 'unreachable' : offerState(verdict.results.proof.steps, readOut.port, object);
              return (
                <Fragment key={key}>
                  <TableRow>
                    <TableCell>{readOut.port}</TableCell>
                    <TableCell>{position}</TableCell>
                    <TableCell>{SUPPLY_WORDS[object.kind]}</TableCell>
                    <TableCell sx={{ fontWeight: 600 }}>{range}</TableCell>
                    <TableCell sx={{ fontWeight: 600 }}>{amps}</TableCell>
                    <TableCell>{formatPlain(mostWatts(object), 'power')}</TableCell>
                    <TableCell>
                      {label.length > 0 ? label.map((one) => formatPlain(one, 'current')).join(', ') : ''}
                    </TableCell>
                    <TableCell>
                      <StateMark state={state} />
                      {unreachable && <Box sx={{ fontSize: 13, color: 'text.secondary' }}>{unreachable}</Box>}
                    </TableCell>
                    <TableCell>
                      <Button
                        size="small"
                        aria-expanded={open === key}
                        aria-label={`Bits of ${describeOffer(object)} on ${readOut.port}`}
                        onClick={() => setOpen(open === key ? null : key)}
                      >
                        {wordText(word)}
                      </Button>
                    </TableCell>
                  </TableRow>
                  {open === key && (
                    <TableRow>
                      <TableCell colSpan={9}>
                        <BitTable
                          word={word}
                          title={describeOffer(object)}
                          fields={explain(sourceLayout(word), word)}
                        />
                      </TableCell>
                    </TableRow>
                  )}
                </Fragment>
              );
            }),
          )}
        </TableBody>
      </Table>
    </Box>
  );
}
