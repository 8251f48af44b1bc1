// What the rig of a sheet cannot do by itself, before anyone starts it.
import type { StoredInstrumentProfile, StoredRig } from '@lastmark/contract/types';
import { handWork, type SheetStep } from '@lastmark/core/plan';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import { useQuery } from '@tanstack/react-query';
import { instrumentProfilesQuery, instrumentsQuery } from '../api/queries.ts';

interface Props {
  readonly steps: readonly SheetStep[];
  readonly rig: StoredRig;
}

export function HandWork({ steps, rig }: Props) {
  const { data: instruments } = useQuery(instrumentsQuery);
  const { data: profiles } = useQuery(instrumentProfilesQuery);
  if (!instruments || !profiles) return null;
  const profileOf = (id: string | null | undefined): StoredInstrumentProfile | undefined => {
    const instrument = instruments.items.find((one) => one.id === id && one.address !== null);
    return profiles.items.find((one) => one.id === instrument?.profileId);
  };
  const load = profileOf(rig.drives?.load);
  const sink = profileOf(rig.drives?.sink) ?? load;
  const can = (profile: StoredInstrumentProfile | undefined, action: string): boolean =>
    profile?.commands.some((one) => one.action === action) ?? false;
  const says = handWork(steps, {
    setsMains: profileOf(rig.drives?.source) !== undefined,
    plugs: can(sink, 'connect') && can(sink, 'disconnect'),
    asksLevels: can(sink, 'request'),
    readsOut: profileOf(rig.drives?.analyser) !== undefined,
    manyChannels: can(load, 'channel'),
  });
  if (says.length === 0) return null;
  return (
    <Alert severity="info" sx={{ mb: 1 }}>
      What this rig does not do by itself:
      <Box component="ul" aria-label="What the rig does not do by itself" sx={{ m: 0, pl: 2.5 }}>
        {says.map((one) => (
          <li key={one}>{one}</li>
        ))}
      </Box>
    </Alert>
  );
}
