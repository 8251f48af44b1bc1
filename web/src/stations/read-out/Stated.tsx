// What the source states of its own power, each part taken apart where it is opened.
import type { StoredReadOut } from '@lastmark/contract/types';
import { explainExtended, explainInfo, wordOf } from '@lastmark/core/pd';
import { extendedOf, statedWords } from '@lastmark/core/read-out';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { BitTable, wordDigits } from './BitTable.tsx';
import { details } from './details.ts';

export function Stated(stated: Pick<StoredReadOut, 'info' | 'extended'>) {
  const { info, extended } = stated;
  if (info === null && extended === null) return null;
  const words = statedWords(stated);
  return (
    <Box role="group" aria-label="What the source states">
      {words !== '' && <Typography sx={{ fontWeight: 600 }}>The source states {words}.</Typography>}
      {info !== null && (
        <Box component="details" sx={details}>
          <summary>Source info {info}</summary>
          <BitTable digits={wordDigits(wordOf(info))} title="Source info" fields={explainInfo(wordOf(info))} />
        </Box>
      )}
      {extended !== null && (
        <Box component="details" sx={details}>
          <summary>Extended capabilities, {extended.length / 2} bytes</summary>
          <BitTable
            digits={extended.replace(/(..)(?=.)/g, '$1 ')}
            title="Extended capabilities"
            fields={explainExtended(extendedOf(stated))}
          />
        </Box>
      )}
    </Box>
  );
}
