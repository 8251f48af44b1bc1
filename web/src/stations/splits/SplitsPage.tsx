// Splits: who gets what in each combination, which rule is behind it, and where to plug.
import Box from '@mui/material/Box';
import Tab from '@mui/material/Tab';
import Tabs from '@mui/material/Tabs';
import Typography from '@mui/material/Typography';
import type { ComponentType } from 'react';
import { useSearchParams } from 'react-router';
import { useSample } from '../../state/sample.tsx';
import { Combinations } from './Combinations.tsx';
import { Plug } from './Plug.tsx';
import { Promises } from './Promises.tsx';
import { Rule } from './Rule.tsx';

const PARTS: readonly { readonly id: string; readonly title: string; readonly Page: ComponentType }[] = [
  { id: 'combinations', title: 'Combinations', Page: Combinations },
  { id: 'promises', title: 'Promised table', Page: Promises },
  { id: 'rule', title: 'Rule and interruptions', Page: Rule },
  { id: 'plug', title: 'Where to plug', Page: Plug },
];

export function SplitsPage() {
  const [params, setParams] = useSearchParams();
  const { ports } = useSample().dossier.sample.model;
  const chosen = PARTS.find(({ id }) => id === params.get('part')) ?? PARTS[0];
  if (!chosen) return null;
  const { Page } = chosen;
  return (
    <Box sx={{ maxWidth: 1180 }}>
      <Typography variant="h1" sx={{ mb: 1 }}>
        Splits
      </Typography>
      {ports.length < 2 ? (
        <Typography>One port: nothing is shared. A split needs two ports or more.</Typography>
      ) : (
        <>
          <Tabs
            value={chosen.id}
            onChange={(_event, id: string) => setParams({ part: id }, { replace: true })}
            aria-label="Parts of Splits"
            sx={{ mb: 1.5, borderBottom: 1, borderColor: 'divider' }}
          >
            {PARTS.map(({ id, title }) => (
              <Tab key={id} value={id} label={title} />
            ))}
          </Tabs>
          <Page />
        </>
      )}
    </Box>
  );
}
