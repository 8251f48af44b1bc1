// Two read-outs side by side: what differs in the offer, and what differed around it.
import { describeOffer, SUPPLY_WORDS } from '@lastmark/core/pd';
import { compareReadOuts, conditionsLine, hiddenFrom, type ReadOut } from '@lastmark/core/read-out';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Choice } from '../../parts/fields.tsx';
import { QuietTable } from '../../parts/QuietTable.tsx';
import { useSample } from '../../state/sample.tsx';

export const readOutName = (readOut: ReadOut): string =>
  `${readOut.port}, ${conditionsLine(readOut)} · ${readOut.takenAt.slice(0, 16).replace('T', ' ')}`;

export function Compare({ readOuts }: { readonly readOuts: readonly ReadOut[] }) {
  const { instruments } = useSample().dossier;
  const [chosen, choose] = useState<readonly [string, string]>([readOuts.at(-2)?.id ?? '', readOuts.at(-1)?.id ?? '']);
  if (readOuts.length < 2) return null;
  const a = readOuts.find(({ id }) => id === chosen[0]) ?? readOuts.at(-2);
  const b = readOuts.find(({ id }) => id === chosen[1]) ?? readOuts.at(-1);
  if (!a || !b) return null;
  const seesOf = (instrumentId: string) => instruments.find(({ id }) => id === instrumentId)?.sees ?? null;
  const hidden = hiddenFrom(a, b, seesOf);
  const { offers, conditions, present, sameOffers } = compareReadOuts(a, b, hidden);
  const options = readOuts.map((one) => ({ value: one.id, label: readOutName(one) }));
  return (
    <Box component="section" aria-labelledby="side-by-side" sx={{ mt: 3 }}>
      <Typography variant="h2" id="side-by-side" sx={{ mb: 1 }}>
        Side by side
      </Typography>
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fit, minmax(260px, 1fr))', gap: 1.5, mb: 1 }}>
        <Choice label="Left" value={a.id} options={options} onChange={(id) => choose([id, b.id])} />
        <Choice label="Right" value={b.id} options={options} onChange={(id) => choose([a.id, id])} />
      </Box>
      <Typography sx={{ mb: 1 }}>
        {sameOffers ? 'The same offers. ' : 'The offers differ. '}
        {present && `At present the source states ${present.a} W on the left, ${present.b} W on the right. `}
        {conditions.length === 0
          ? 'No noted condition differs.'
          : `Different: ${conditions.map((one) => `${one.a} / ${one.b}`).join('; ')}.`}
        {hidden.length > 0 &&
          ` Left out, since one analyser cannot see it: ${hidden.map((kind) => SUPPLY_WORDS[kind]).join(', ')}.`}
      </Typography>
      <QuietTable
        label="Two read-outs side by side"
        rows={offers}
        rowKey={({ key }) => key}
        columns={[
          { head: 'Left', cell: (offer) => offer.a && describeOffer(offer.a), empty: 'not offered' },
          { head: 'Right', cell: (offer) => offer.b && describeOffer(offer.b), empty: 'not offered' },
          {
            head: 'Difference',
            cell: ({ a: left, b: right, same }) =>
              same ? null : (
                <Box component="span" sx={{ fontWeight: 600, color: 'warning.main' }}>
                  {left && right ? '◆ differs' : left ? '◆ gone' : '◆ new'}
                </Box>
              ),
            empty: 'same',
          },
        ]}
      />
    </Box>
  );
}
