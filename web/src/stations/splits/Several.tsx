// Several chargers at once: which devices on which, into which port, and which of the chargers would do alone.
import { fixed, formatPlain } from '@lastmark/core/quantity';
import type { PlugDevice, PlugSource } from '@lastmark/core/split';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useQueries } from '@tanstack/react-query';
import { useState } from 'react';
import { dossierQuery } from '../../api/queries.ts';
import { QuietTable } from '../../parts/QuietTable.tsx';
import { type Chosen, SampleField } from '../../parts/SampleField.tsx';
import { useSample } from '../../state/sample.tsx';
import { useSeveral } from './useSeveral.ts';

/** Chargers beside this one. */
const MOST_OTHERS = 2;

interface Props {
  readonly source: PlugSource;
  readonly by: PlugSource['by'];
  readonly devices: readonly PlugDevice[];
}

interface Row {
  readonly device: PlugDevice;
  readonly charger: string;
  readonly port: string | null;
  readonly watts: string | null;
}

export function Several({ source, devices }: Props) {
  const { dossier } = useSample();
  const [others, setOthers] = useState<readonly Chosen[]>([]);
  const found = useQueries({ queries: others.map(({ id }) => dossierQuery(id)) });
  const loaded = found.flatMap(({ data }) => data ?? []);
  const failed = found.find(({ error }) => error)?.error ?? null;
  const { result, error } = useSeveral(
    { id: dossier.sample.id, mass: dossier.sample.model.mass, source },
    loaded.length === others.length ? loaded : [],
    others.length > 0 ? devices : [],
    found.map(({ dataUpdatedAt }) => dataUpdatedAt),
  );
  const { maker, model } = dossier.sample.model;
  const nameOf = (id: string) =>
    id === dossier.sample.id ? `${maker} ${model}` : (others.find((one) => one.id === id)?.name ?? '');
  const rows = devices.map((device): Row => {
    const place = result?.advice.chargers.find(({ arrangement }) => arrangement[device.id] !== undefined);
    const watts = place?.ranked.met[device.id]?.watts;
    return {
      device,
      charger: place ? nameOf(place.id) : '',
      port: place?.arrangement[device.id] ?? null,
      watts: watts == null ? null : fixed(watts, 0),
    };
  });
  const all = [dossier.sample.id, ...others.map(({ id }) => id)];
  return (
    <Box component="section" aria-labelledby="several" sx={{ mt: 3 }}>
      <Typography variant="h2" id="several" sx={{ mb: 1 }}>
        With other chargers
      </Typography>
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', alignItems: 'center', mb: 1 }}>
        {others.map(({ id, name }) => (
          <Button
            key={id}
            variant="outlined"
            onClick={() => setOthers(others.filter((one) => one.id !== id))}
            aria-label={`Leave out ${name}`}
          >
            {name} ✕
          </Button>
        ))}
        {others.length < MOST_OTHERS && (
          <Box sx={{ width: 300 }}>
            <SampleField
              key={others.length}
              label="Add a charger"
              chosen={null}
              onChoose={(one) => one && !all.includes(one.id) && setOthers([...others, one])}
            />
          </Box>
        )}
      </Box>
      {(failed ?? error) && <Alert severity="error">{failed?.message ?? error}</Alert>}
      {others.length > 0 && devices.length === 0 && <Typography>Choose devices above.</Typography>}
      {result && devices.length > 0 && others.length > 0 && (
        <>
          <QuietTable<Row>
            label="Devices by charger and port"
            rows={rows}
            rowKey={({ device }) => device.id}
            exception={({ port, device }) => port === null && device.staysOn}
            columns={[
              { head: 'Device', cell: ({ device }) => device.name },
              { head: 'Charger', cell: ({ charger }) => charger, empty: 'waits' },
              { head: 'Port', cell: ({ port }) => port, empty: 'no port left' },
              { head: 'Gets', unit: 'W', number: true, cell: ({ watts }) => watts, empty: 'not known' },
              { head: 'Wants', unit: 'W', number: true, cell: ({ device }) => fixed(device.watts, 0) },
            ]}
          />
          <Typography sx={{ fontSize: 18, mt: 1 }} role="status">
            {result.advice.exact ? 'Best' : 'Good'}: {fixed(result.advice.score.watts, 0)} W in use
            {keeps(devices, result.advice.score)}.
            {!result.advice.exact &&
              ` No arrangement gives more than ${fixed(result.advice.bound.watts, 0)} W: more than ten devices are not tried together.`}
          </Typography>
          {result.fewer.map(({ ids, mass, ofMass }) => (
            <Typography key={ids.join()} sx={{ mt: 0.5 }}>
              ● {ids.map(nameOf).join(' and ')} {ids.length === 1 ? 'alone would do' : 'would do'}
              {mass !== null && ofMass !== null
                ? `: ${formatPlain(mass, 'mass', 'g')} to carry instead of ${formatPlain(ofMass, 'mass', 'g')}`
                : ''}
              .
            </Typography>
          ))}
        </>
      )}
    </Box>
  );
}

/** How many keep on or in time, of those that must. */
function keeps(
  devices: readonly PlugDevice[],
  { kept, needs }: { readonly kept: number; readonly needs: number },
): string {
  const must = devices.filter(({ staysOn }) => staysOn).length;
  const timed = devices.filter((one) => one.needs).length;
  return [
    must > 0 ? `, ${kept < must ? '▼ ' : ''}${kept} of ${must} surely stay on` : '',
    timed > 0 ? `, ${needs < timed ? '▼ ' : ''}${needs} of ${timed} ready in time` : '',
  ].join('');
}
