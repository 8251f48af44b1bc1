// How long each device would take at each port of this charger, from its charges elsewhere; and beside it what was measured.
import { type Foretold, foretell } from '@lastmark/core/charge';
import { fixed } from '@lastmark/core/quantity';
import { bestReadOut, offersOf } from '@lastmark/core/read-out';
import { givesAlone } from '@lastmark/core/split';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { deviceEvidenceQuery } from '../../api/queries.ts';
import { QuietTable } from '../../parts/QuietTable.tsx';
import { useSample } from '../../state/sample.tsx';

const minutes = (seconds: number): string => fixed(seconds / 60, 0);

const between = ({ seconds, low, high }: Foretold): string | null =>
  seconds === null || high === null ? null : `${low === null ? 'less' : minutes(low)} to ${minutes(high)}`;

/** What nothing is foretold of, a reason once for all ports it holds for. */
function untoldSays(untold: readonly Foretold[]): string {
  const ports = new Map<string, Set<string>>();
  for (const { device, port, reason } of untold) {
    const key = `${device}, ${reason}`;
    ports.set(key, (ports.get(key) ?? new Set()).add(port));
  }
  return [...ports].map(([key, own]) => `${key} (${[...own].join(', ')})`).join('; ');
}

export function ForetoldTable() {
  const { dossier } = useSample();
  const { data } = useQuery(deviceEvidenceQuery);
  if (!data) return null;
  const ports = dossier.sample.model.ports.map(({ label }) => {
    const best = bestReadOut(dossier.readOuts, label);
    const offers = best ? offersOf(best).map(({ object }) => object) : [];
    return { label, watts: givesAlone(label, dossier.claims, offers) };
  });
  const rows = foretell(dossier.sample.id, ports, dossier.devices, data);
  const told = rows.filter(({ seconds }) => seconds !== null);
  const untold = rows.filter(({ seconds }) => seconds === null);
  if (rows.length === 0) return null;
  return (
    <Box component="section" aria-labelledby="foretold" sx={{ mt: 3 }}>
      <Typography variant="h2" id="foretold" sx={{ mb: 1 }}>
        How long it would take
      </Typography>
      {told.length > 0 && (
        <QuietTable<Foretold>
          label="Foretold times"
          rows={told}
          rowKey={({ deviceId, port, lead }) => `${deviceId} ${port} ${lead}`}
          exception={({ outside }) => outside === true}
          columns={[
            { head: 'Device', cell: ({ device }) => device },
            { head: 'Port and cable', cell: ({ port, lead }) => [port, lead].filter(Boolean).join(', ') },
            { head: 'Levels, %', cell: ({ from, to }) => `${Math.round(from * 100)} to ${Math.round(to * 100)}` },
            {
              head: 'Foretold, min',
              number: true,
              cell: ({ seconds }) => (seconds === null ? null : minutes(seconds)),
            },
            { head: '90 % between, min', cell: between, empty: 'not told' },
            {
              head: 'Measured here, min',
              cell: (one) =>
                one.measured.length === 0
                  ? null
                  : `${one.measured.map(minutes).join(', ')}${one.outside === null ? '' : one.outside ? ' ▼ outside' : ' ● inside'}`,
              empty: 'charge it here',
            },
            {
              head: 'The charger holds it back',
              cell: ({ seconds, held }) => (seconds === null ? null : `${Math.round(held * 100)} % of the time`),
              empty: 'not told',
            },
            { head: 'From charges', number: true, cell: ({ charges }) => String(charges) },
          ]}
        />
      )}
      {untold.length > 0 && (
        <Typography variant="body2" color="text.secondary" sx={{ mt: 1 }}>
          Nothing is foretold for {untoldSays(untold)}.
        </Typography>
      )}
      <Typography variant="body2" color="text.secondary" sx={{ mt: 1 }}>
        From the device’s charges anywhere else, alone at the port. A foretold time is never evidence. “less” where the
        device may take more than it was ever seen to.
      </Typography>
    </Box>
  );
}
