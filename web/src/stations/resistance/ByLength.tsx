// What is contact and what is wire, by cables of the same wire and other lengths.
import type { SampleDossier } from '@lastmark/contract/types';
import { formatPlain } from '@lastmark/core/quantity';
import { contactShare, gaugeOf, type OfLength, resistanceSeries } from '@lastmark/core/resistance';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useQueries } from '@tanstack/react-query';
import { useState } from 'react';
import { dossierQuery } from '../../api/queries.ts';
import { type Chosen, SampleField } from '../../parts/SampleField.tsx';
import { useSample } from '../../state/sample.tsx';

function lengthOf({ sample, cableRuns, rigs, instruments }: SampleDossier): OfLength | null {
  const length = sample.model.cable?.length ?? null;
  const at20 = resistanceSeries(cableRuns, rigs, instruments).find(
    ({ side, bends }) => side === 'loop' && bends === 0,
  )?.at20;
  return length !== null && at20 ? { length, ohms: at20.value } : null;
}

export function ByLength() {
  const { dossier } = useSample();
  const [others, setOthers] = useState<readonly Chosen[]>([]);
  const found = useQueries({ queries: others.map(({ id }) => dossierQuery(id)) });
  const own = lengthOf(dossier);
  const all = [own, ...found.map(({ data }) => (data ? lengthOf(data as SampleDossier) : null))];
  const known = all.filter((one) => one !== null);
  const share = contactShare(known);
  const without = others.filter((_, at) => found[at]?.data && all[at + 1] === null);
  const gauge = share && gaugeOf(share.perMetre / 2);
  return (
    <Box component="details" sx={{ mt: 2 }}>
      <Box component="summary" sx={{ cursor: 'pointer', fontWeight: 600 }}>
        Contact and wire apart, by other lengths of the same wire
      </Box>
      <Box sx={{ display: 'grid', gap: 1, mt: 1, maxWidth: 560 }}>
        {others.map(({ id, name }) => (
          <Box key={id} sx={{ display: 'flex', gap: 1, alignItems: 'center' }}>
            <Box sx={{ flex: 1 }}>{name}</Box>
            <Button
              size="small"
              aria-label={`Leave out ${name}`}
              onClick={() => setOthers(others.filter((one) => one.id !== id))}
            >
              Leave out
            </Button>
          </Box>
        ))}
        <SampleField
          key={others.length}
          chosen={null}
          onChoose={(one) =>
            one &&
            !others.some(({ id }) => id === one.id) &&
            one.id !== dossier.sample.id &&
            setOthers([...others, one])
          }
        />
        {without.map(({ name }) => (
          <Typography key={name} variant="body2" color="warning.main">
            {name}: its length or its resistance at 20 °C is not known.
          </Typography>
        ))}
        {share ? (
          <Typography>
            Contacts {formatPlain(Number(share.contact.toPrecision(2)), 'resistance')} of{' '}
            {formatPlain(Number((own?.ohms ?? 0).toPrecision(3)), 'resistance')}; wire{' '}
            {formatPlain(Number(share.perMetre.toPrecision(3)), 'resistance')} a metre, there and back
            {gauge !== null && `: ${gauge.toFixed(1)} AWG`}.
            {share.uContact === null &&
              ' Two lengths lie on any line: a third would show whether they are of one wire.'}
          </Typography>
        ) : (
          <Typography variant="body2" color="text.secondary">
            {known.length < 2
              ? 'Choose another length of the same wire.'
              : 'These do not lie on one line: not of one wire.'}
          </Typography>
        )}
      </Box>
    </Box>
  );
}
