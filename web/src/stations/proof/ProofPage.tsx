// Proof: what each port really delivers, for how long, and how far beyond.
import Box from '@mui/material/Box';
import Tab from '@mui/material/Tab';
import Tabs from '@mui/material/Tabs';
import Typography from '@mui/material/Typography';
import type { ComponentType } from 'react';
import { useSearchParams } from 'react-router';
import { DeviceRuns } from './DeviceRuns.tsx';
import { Holds } from './Holds.tsx';
import { Meters } from './Meters.tsx';
import { Over } from './Over.tsx';
import { Steps } from './Steps.tsx';

const PARTS: readonly { readonly id: string; readonly title: string; readonly Page: ComponentType }[] = [
  { id: 'steps', title: 'Steps', Page: Steps },
  { id: 'meters', title: 'Meter chain', Page: Meters },
  { id: 'hold', title: 'For how long', Page: Holds },
  { id: 'over', title: 'Over the rating', Page: Over },
  { id: 'devices', title: 'Devices', Page: DeviceRuns },
];

export function ProofPage() {
  const [params, setParams] = useSearchParams();
  const chosen = PARTS.find(({ id }) => id === params.get('part')) ?? PARTS[0];
  if (!chosen) return null;
  const { Page } = chosen;
  return (
    <Box sx={{ maxWidth: 1180 }}>
      <Typography variant="h1" sx={{ mb: 1 }}>
        Proof
      </Typography>
      <Tabs
        value={chosen.id}
        onChange={(_event, id: string) => setParams({ part: id }, { replace: true })}
        aria-label="Parts of Proof"
        sx={{ mb: 1.5, borderBottom: 1, borderColor: 'divider' }}
      >
        {PARTS.map(({ id, title }) => (
          <Tab key={id} value={id} label={title} />
        ))}
      </Tabs>
      <Page />
    </Box>
  );
}
