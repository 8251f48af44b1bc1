// What a PD analyser with its firmware can see; what it cannot see is never held against a charger.

import { SUPPLY_WORDS } from '@lastmark/core/pd';
import { type Sees, VISIBLE_KINDS } from '@lastmark/core/read-out';
import { allModes } from '@lastmark/core/signal';
import Box from '@mui/material/Box';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { profileQuery } from '../api/queries.ts';

export const SEES_NOTHING_ELSE: Sees = { supplies: ['fixed', 'variable', 'battery', 'pps'], signals: [] };

const toggled = <T extends string>(list: readonly T[], item: T, on: boolean): readonly T[] =>
  on ? [...list.filter((one) => one !== item), item] : list.filter((one) => one !== item);

interface Props {
  readonly sees: Sees;
  readonly onChange: (sees: Sees) => void;
}

export function SeesFields({ sees, onChange }: Props) {
  const own = useQuery(profileQuery).data?.signalModes ?? [];
  const box = (label: string, checked: boolean, onToggle: (on: boolean) => void) => (
    <FormControlLabel
      key={label}
      label={label}
      control={<Checkbox size="small" checked={checked} onChange={(event) => onToggle(event.target.checked)} />}
    />
  );
  return (
    <Box role="group" aria-label="What it can see">
      <Typography variant="h3">What it can see</Typography>
      <Typography variant="body2" color="text.secondary">
        With this firmware. What it cannot see reads “not visible”, never “not offered”.
      </Typography>
      <Box>
        {VISIBLE_KINDS.map((kind) =>
          box(SUPPLY_WORDS[kind], sees.supplies.includes(kind), (on) =>
            onChange({ ...sees, supplies: toggled(sees.supplies, kind, on) }),
          ),
        )}
      </Box>
      <Box>
        {allModes(own).map(({ id, title }) =>
          box(title, sees.signals.includes(id), (on) => onChange({ ...sees, signals: toggled(sees.signals, id, on) })),
        )}
      </Box>
    </Box>
  );
}
