// What the source states of its own power, each part taken apart where it is opened.
import type { StoredReadOut } from '@lastmark/contract/types';
import { explainExtended, explainInfo, wordOf } from '@lastmark/core/pd';
import { extendedOf, statedWords } from '@lastmark/core/read-out';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { BitTable, wordDigits } from './BitTable.tsx';
import { details } from './details.ts';

type Said = Pick<StoredReadOut, 'info' | 'extended'>;

/** In a line; nothing where the source was not asked. */
export function StatedLine(said: Said) {
  const words = statedWords(said);
  return words === '' ? null : <Typography sx={{ fontWeight: 600 }}>The source states {words}.</Typography>;
}

export function Stated(said: Said) {
  const { info, extended } = said;
  return (
    <>
      {info != null && (
        <Box component="details" sx={details}>
          <summary>Source info {info}</summary>
          <BitTable digits={wordDigits(wordOf(info))} title="Source info" fields={explainInfo(wordOf(info))} />
        </Box>
      )}
      {extended != null && (
        <Box component="details" sx={details}>
          <summary>
            Extended capabilities, {extended.length / 2} {extended.length === 2 ? 'byte' : 'bytes'}
          </summary>
          <BitTable
            digits={extended.replace(/(..)(?=.)/g, '$1 ')}
            title="Extended capabilities"
            fields={explainExtended(extendedOf(said))}
          />
        </Box>
      )}
    </>
  );
}
