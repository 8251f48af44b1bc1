// The decoded offers while one types: a scrolling list of any length, each word opened bit by bit on request.
import { decodeSource, describeOffer, explain, sourceLayout, wordText } from '@lastmark/core/pd';
import Box from '@mui/material/Box';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef, useState } from 'react';
import { BitTable } from './BitTable.tsx';

const ROW = 30;

export function WordList({ words }: { readonly words: Uint32Array }) {
  const scroller = useRef<HTMLDivElement>(null);
  const [open, setOpen] = useState<number | null>(null);
  const rows = useVirtualizer({
    count: words.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 8,
  });
  return (
    <Box ref={scroller} sx={{ maxHeight: 330, overflowY: 'auto' }}>
      <Box role="list" aria-label="Offers as decoded" sx={{ position: 'relative', height: rows.getTotalSize() }}>
        {rows.getVirtualItems().map(({ index, start }) => {
          const word = words[index] ?? 0;
          const words_ = describeOffer(decodeSource(word));
          return (
            <Box
              key={index}
              role="listitem"
              data-index={index}
              ref={rows.measureElement}
              sx={{ position: 'absolute', top: 0, left: 0, right: 0, transform: `translateY(${start}px)` }}
            >
              <Box
                component="button"
                type="button"
                aria-expanded={open === index}
                onClick={() => setOpen(open === index ? null : index)}
                sx={{
                  all: 'unset',
                  display: 'grid',
                  gridTemplateColumns: '34px 1fr auto',
                  width: '100%',
                  boxSizing: 'border-box',
                  minHeight: ROW,
                  alignItems: 'center',
                  px: 1,
                  cursor: 'pointer',
                  '&:hover': { bgcolor: 'ground' },
                  '&:focus-visible': { outline: '3px solid', outlineColor: 'primary.main', outlineOffset: -3 },
                }}
              >
                <Box component="span" sx={{ color: 'text.secondary' }}>
                  {index + 1}
                </Box>
                <Box component="span" sx={{ fontWeight: 600 }}>
                  {words_}
                </Box>
                <Box component="span" sx={{ color: 'text.secondary' }}>
                  {wordText(word)} {open === index ? '−' : '+'}
                </Box>
              </Box>
              {open === index && <BitTable word={word} title={words_} fields={explain(sourceLayout(word), word)} />}
            </Box>
          );
        })}
      </Box>
    </Box>
  );
}
