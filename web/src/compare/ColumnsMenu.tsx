// Which measures the table shows, and which stands beside the names while the others scroll.
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import ListItemText from '@mui/material/ListItemText';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { useState } from 'react';
import type { MeasureView } from './views.ts';

export interface Shown {
  readonly hidden: readonly string[];
  /** Stands beside the names; null for none. */
  readonly pinned: string | null;
}

interface Props {
  readonly views: readonly MeasureView[];
  readonly shown: Shown;
  readonly onChange: (shown: Shown) => void;
}

/** Measures in the order of the table: the pinned one first, those put away left out. */
export const viewsShown = (views: readonly MeasureView[], { hidden, pinned }: Shown): readonly MeasureView[] => {
  const kept = views.filter(({ id }) => !hidden.includes(id));
  return [...kept.filter(({ id }) => id === pinned), ...kept.filter(({ id }) => id !== pinned)];
};

export function ColumnsMenu({ views, shown, onChange }: Props) {
  const [at, setAt] = useState<HTMLElement | null>(null);
  const { hidden, pinned } = shown;
  const toggle = (id: string) =>
    onChange({
      hidden: hidden.includes(id) ? hidden.filter((one) => one !== id) : [...hidden, id],
      pinned: pinned === id ? null : pinned,
    });
  return (
    <>
      <Button aria-haspopup="menu" aria-expanded={at !== null} onClick={(event) => setAt(event.currentTarget)}>
        Columns{hidden.length > 0 ? `: ${views.length - hidden.length} of ${views.length}` : ''}
      </Button>
      <Menu
        anchorEl={at}
        open={at !== null}
        onClose={() => setAt(null)}
        slotProps={{ list: { 'aria-label': 'Columns', dense: true } }}
      >
        {views.map((view) => (
          <MenuItem
            key={view.id}
            role="menuitemcheckbox"
            aria-checked={!hidden.includes(view.id)}
            onClick={() => toggle(view.id)}
            sx={{ pl: 0.5 }}
          >
            <Checkbox
              checked={!hidden.includes(view.id)}
              size="small"
              tabIndex={-1}
              slotProps={{ input: { 'aria-hidden': true } }}
            />
            <ListItemText primary={view.title} secondary={view.condition || undefined} />
          </MenuItem>
        ))}
        <Box component="li" role="separator" sx={{ borderTop: 1, borderColor: 'divider', my: 0.5 }} />
        {views
          .filter(({ id }) => !hidden.includes(id))
          .map((view) => (
            <MenuItem
              key={`pin ${view.id}`}
              role="menuitemradio"
              aria-checked={pinned === view.id}
              onClick={() => onChange({ hidden, pinned: pinned === view.id ? null : view.id })}
            >
              {pinned === view.id ? '● ' : ''}Keep {view.title} beside the names
            </MenuItem>
          ))}
      </Menu>
    </>
  );
}
