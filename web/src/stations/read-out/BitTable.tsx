// A word, or a block of bytes, taken apart: every field, its raw value and what it means.
import { type ExplainedField, wordText } from '@lastmark/core/pd';
import Box from '@mui/material/Box';

interface Props {
  /** What is taken apart, as digits. */
  readonly digits: string;
  readonly title: string;
  readonly fields: readonly ExplainedField[];
}

/** A word as digits: in hexadecimal, and in binary eight bits apart. */
export const wordDigits = (word: number): string =>
  `${wordText(word)} = ${word
    .toString(2)
    .padStart(32, '0')
    .replace(/(.{8})(?=.)/g, '$1 ')}`;

export function BitTable({ digits, title, fields }: Props) {
  return (
    <Box
      component="table"
      aria-label={`${title}, bit by bit`}
      sx={{
        borderCollapse: 'collapse',
        my: 0.5,
        '& td, & th': { px: 1, py: 0.2, textAlign: 'left', fontWeight: 400, fontSize: 13 },
        '& caption': { textAlign: 'left', px: 1, color: 'text.secondary', fontSize: 13 },
      }}
    >
      <caption>{digits}</caption>
      <tbody>
        {fields.map(({ bits, title: name, raw, says, sound }) => (
          <tr key={bits}>
            <Box component="td" sx={{ color: 'text.secondary', fontVariantNumeric: 'tabular-nums' }}>
              {bits}
            </Box>
            <th scope="row">{name}</th>
            <td>{raw}</td>
            <Box component="td" sx={{ fontWeight: 600, color: sound ? undefined : 'error.main' }}>
              {sound ? says : `▼ ${says}`}
            </Box>
          </tr>
        ))}
      </tbody>
    </Box>
  );
}
