// What was done and is kept, in sentences, each with ways to correct it and to take it back; and what was changed since.
import type { RunChange } from '@lastmark/core/run';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import type { KeptChanges } from './useKept.ts';

const when = (iso: string): string => iso.slice(0, 16).replace('T', ' ');

interface Kept {
  readonly id: string;
  readonly takenAt: string;
  readonly note: string;
  readonly supersedes: string | null;
  readonly withdrawn: boolean;
}

interface Props<T extends Kept> {
  readonly title: string;
  /** Those that stand. */
  readonly items: readonly T[];
  readonly kept: KeptChanges<T>;
  readonly describe: (item: T) => string;
  /** More beside it in the list alone. */
  readonly beside?: (item: T) => string;
  readonly onCorrect: (item: T) => void;
}

export function KeptList<T extends Kept>({ title, items, kept, describe, beside, onCorrect }: Props<T>) {
  const { changes, withdraw, restore } = kept;
  if (items.length === 0 && changes.length === 0) return null;
  return (
    <Box component="section" aria-label={title} sx={{ mt: 2 }}>
      <Typography variant="h2" sx={{ mb: 1 }}>
        {title}
      </Typography>
      <Box component="ul" sx={LIST}>
        {items.map((item) => {
          const named = `${describe(item)}, ${when(item.takenAt)}`;
          return (
            <Box component="li" key={item.id} sx={ROW}>
              <Box sx={{ flex: 1 }}>
                {describe(item)}
                {beside?.(item)}
                <Box component="span" sx={{ color: 'text.secondary', fontSize: 13 }}>
                  {' '}
                  {when(item.takenAt)}
                  {item.note && ` · ${item.note}`}
                </Box>
              </Box>
              <Button size="small" aria-label={`Correct ${named}`} onClick={() => onCorrect(item)}>
                Correct
              </Button>
              <Button
                size="small"
                aria-label={`Take back ${named}`}
                disabled={withdraw.isPending}
                onClick={() => withdraw.mutate(item)}
              >
                Take back
              </Button>
            </Box>
          );
        })}
      </Box>
      {changes.length > 0 && (
        <Box component="details" sx={{ fontSize: 14 }}>
          <Box component="summary" sx={{ cursor: 'pointer' }}>
            Corrected and taken back: {changes.length}
          </Box>
          <Box component="ul" sx={LIST}>
            {changes.map((change: RunChange<T>) => {
              const { was, now } = change;
              const words = `${describe(was)} of ${when(was.takenAt)}: ${now.withdrawn ? 'taken back' : `now ${describe(now)}`}`;
              return (
                <Box component="li" key={now.id} sx={ROW}>
                  <Box sx={{ flex: 1 }}>{words}</Box>
                  <Button
                    size="small"
                    disabled={restore.isPending}
                    aria-label={`Put back ${words}`}
                    onClick={() => restore.mutate(change)}
                  >
                    Put back
                  </Button>
                </Box>
              );
            })}
          </Box>
        </Box>
      )}
    </Box>
  );
}

const LIST = { listStyle: 'none', m: 0, p: 0 } as const;
const ROW = {
  display: 'flex',
  gap: 1,
  alignItems: 'center',
  borderBottom: 1,
  borderColor: 'divider',
  py: 0.25,
} as const;
