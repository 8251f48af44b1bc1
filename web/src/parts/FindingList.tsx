// What is to be known of a result, a line each; a fault louder than a remark.
import Box from '@mui/material/Box';

export interface Remark {
  readonly sentence: string;
  readonly fault: boolean;
}

export function FindingList({ findings }: { readonly findings: readonly (string | Remark)[] }) {
  if (findings.length === 0) return null;
  return (
    <Box component="ul" aria-label="Findings" sx={{ pl: 2.5, my: 1 }}>
      {findings.map((one) => {
        const { sentence, fault } = typeof one === 'string' ? { sentence: one, fault: false } : one;
        return (
          <Box component="li" key={sentence} sx={fault ? { color: 'error.main', fontWeight: 600 } : {}}>
            {sentence}
          </Box>
        );
      })}
    </Box>
  );
}
