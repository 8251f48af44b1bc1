// The shelf without samples: the first look at an empty bench, with three ways in; or nothing found.
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { demoQuery } from '../api/queries.ts';
import { SpreadsheetIn } from '../stations/intake/SpreadsheetIn.tsx';
import { useShowDemo } from './DemoNote.tsx';
import { type Narrowed, nothingSays } from './nothing.ts';

interface WayProps {
  readonly title: string;
  readonly says: string;
  readonly children: ReactNode;
}

function Way({ title, says, children }: WayProps) {
  return (
    <Box
      sx={{
        p: 2.5,
        border: 1,
        borderColor: 'divider',
        borderRadius: 1,
        display: 'flex',
        flexDirection: 'column',
        gap: 1,
      }}
    >
      <Typography variant="h3">{title}</Typography>
      <Typography color="text.secondary" sx={{ flex: 1 }}>
        {says}
      </Typography>
      <Box>{children}</Box>
    </Box>
  );
}

/** Nothing is there yet. */
function Greeting() {
  const { data } = useQuery(demoQuery);
  const demo = useShowDemo();
  const away = data?.demo === 'away';
  return (
    <Box sx={{ p: { xs: 2, md: 4 }, border: 1, borderColor: 'divider', borderRadius: 1, bgcolor: 'background.paper' }}>
      <Typography variant="h2">The shelf is empty</Typography>
      <Typography sx={{ my: 1.5 }} color="text.secondary">
        Lastmark holds what a charger promises against what it does. Begin with one of these.
      </Typography>
      <Box sx={{ display: 'grid', gap: 2, gridTemplateColumns: 'repeat(auto-fit, minmax(220px, 1fr))' }}>
        <Way
          title="A charger on the bench"
          says="What it is, its ports, and what its label promises. Takes two minutes."
        >
          <Button variant="contained" component={Link} to="/samples/new">
            Take in a sample
          </Button>
        </Way>
        <Way
          title="A spreadsheet"
          says="A list of chargers, one a line: maker, model, ports, mass, price. You look before it is kept."
        >
          <SpreadsheetIn />
        </Way>
        <Way
          title="The demo"
          says="Eight invented chargers of a mountain hut association, some tested, some half way. It can be put away again."
        >
          <Button variant="outlined" disabled={demo.isPending} onClick={() => demo.mutate(true)}>
            {demo.isPending ? 'Filling the shelf …' : away ? 'Show the demo again' : 'Try the demo'}
          </Button>
        </Way>
      </Box>
    </Box>
  );
}

interface Props {
  readonly narrowed: Narrowed;
  readonly onClear: () => void;
}

export function EmptyShelf({ narrowed, onClear }: Props) {
  const said = nothingSays(narrowed);
  if (!said) return <Greeting />;
  return (
    <Box sx={{ p: 4, border: 1, borderColor: 'divider', borderRadius: 1, bgcolor: 'background.paper' }}>
      <Typography variant="h2">{said.title}</Typography>
      <Typography sx={{ my: 1.5 }} color="text.secondary">
        {said.says}
      </Typography>
      <Button variant="outlined" onClick={onClear}>
        Show all
      </Button>
    </Box>
  );
}
