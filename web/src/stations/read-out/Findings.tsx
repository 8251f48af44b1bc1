// Findings: faults first, then what is worth knowing.
import type { Finding } from '@lastmark/core/pd';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';

interface Props {
  readonly findings: readonly (Finding & { readonly port?: string })[];
  /** Name the port before each. */
  readonly withPort?: boolean;
  readonly none: string;
}

export function Findings({ findings, withPort = false, none }: Props) {
  const lines = findings.map(({ grade, sentence, port }) => ({
    grade,
    text: withPort && port ? `${port}: ${sentence}` : sentence,
  }));
  const unique = lines.filter((line, index) => lines.findIndex(({ text }) => text === line.text) === index);
  const sorted = [...unique].sort((a, b) => Number(a.grade === 'note') - Number(b.grade === 'note'));
  if (sorted.length === 0)
    return (
      <Typography variant="body2" color="text.secondary">
        {none}
      </Typography>
    );
  return (
    <Box component="ul" aria-label="Findings" sx={{ m: 0, p: 0, listStyle: 'none' }}>
      {sorted.map(({ grade, text }) => (
        <Box component="li" key={text} sx={{ display: 'flex', gap: 1, py: 0.25 }}>
          <Box
            component="span"
            sx={{
              width: 62,
              whiteSpace: 'nowrap',
              flexShrink: 0,
              fontWeight: 600,
              color: grade === 'fault' ? 'error.main' : 'text.secondary',
            }}
          >
            {grade === 'fault' ? '▼ fault' : '· note'}
          </Box>
          <span>{text}</span>
        </Box>
      ))}
    </Box>
  );
}
