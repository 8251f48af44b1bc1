// What nobody stated the accuracy of, each one press from where it is stated.
import type { Unstated } from '@lastmark/core/uncertainty';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { Link } from 'react-router';
import { useSample } from '../state/sample.tsx';

export function NotStated({ unstated }: { readonly unstated: readonly Unstated[] }) {
  const { instruments, sample } = useSample().dossier;
  if (unstated.length === 0) return null;
  const meters = [...new Set(unstated.map(({ meter }) => meter))];
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5, mt: 0.5 }}>
      {meters.map((meter) => {
        const name = instruments.find(({ id }) => id === meter)?.name;
        return (
          <Button
            key={meter ?? 'unknown'}
            size="small"
            variant="outlined"
            component={Link}
            to={name ? `/bench?instrument=${meter}&from=${sample.id}` : '/bench'}
          >
            {name ? `State the accuracy of ${name}` : 'State the meters at Bench'}
          </Button>
        );
      })}
    </Box>
  );
}
