// What stands against a verdict: each deviation once, with the lines it holds for.
import type { LimitLine } from '@lastmark/core/limits';
import { mainsLabel } from '@lastmark/core/reading';
import Box from '@mui/material/Box';

export function AgainstVerdict({ lines }: { readonly lines: readonly LimitLine[] }) {
  const about = new Map<string, Set<string>>();
  for (const { reasons, mains, title } of lines)
    for (const reason of reasons) {
      // The wrong mains is told apart by set; everything else by where it was taken.
      const where = /the set asks for|is here; loaded|In force/.test(reason) ? title : mainsLabel(mains);
      about.set(reason, (about.get(reason) ?? new Set()).add(where));
    }
  if (about.size === 0) return null;
  return (
    <Box sx={{ mt: 1 }}>
      <Box sx={{ fontWeight: 600 }}>Indicative, because</Box>
      <Box component="ul" sx={{ m: 0, pl: 2.5, fontSize: 14 }}>
        {[...about].map(([reason, where]) => (
          <li key={reason}>
            {reason}{' '}
            <Box component="span" sx={{ color: 'text.secondary' }}>
              {[...where].join(', ')}
            </Box>
          </li>
        ))}
      </Box>
    </Box>
  );
}
