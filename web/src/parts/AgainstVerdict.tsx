// What stands against a verdict: each deviation once, with the lines it holds for.
import type { LimitLine } from '@lastmark/core/limits';
import { mainsLabel } from '@lastmark/core/reading';
import { unstatedOf } from '@lastmark/core/uncertainty';
import Box from '@mui/material/Box';
import { NotStated } from './NotStated.tsx';

export function AgainstVerdict({ lines }: { readonly lines: readonly LimitLine[] }) {
  const about = new Map<string, Set<string>>();
  for (const { reasons, bySet, mains, title } of lines)
    for (const reason of reasons) {
      const where = bySet.includes(reason) ? title : mainsLabel(mains);
      about.set(reason, (about.get(reason) ?? new Set()).add(where));
    }
  const unstated = unstatedOf(lines.map(({ result }) => result));
  if (about.size === 0) return <NotStated unstated={unstated} />;
  return (
    <Box sx={{ mt: 1 }}>
      <NotStated unstated={unstated} />
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
