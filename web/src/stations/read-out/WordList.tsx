// The decoded offers while one types: a scrolling list of any length, each word opened bit by bit on request.
import { decodeSource, describeOffer, explain, sourceLayout, wordText } from '@lastmark/core/pd';
import Box from '@mui/material/Box';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef, useState } from 'react';
import { BitTable, wordDigits } from './BitTable.tsx';

const ROW = 30;
/** Words drawn together: the scroller keeps count of blocks, so that a very long list costs little to set up. */
const BLOCK = 20;

interface RowProps {
  readonly index: number;
  readonly word: number;
  readonly open: boolean;
  readonly onToggle: () => void;
}

function WordRow({ index, word, open, onToggle }: RowProps) {
  const title = describeOffer(decodeSource(word));
  return (
    <Box role="listitem">
      <Box
        component="button"
        type="button"
        aria-expanded={open}
        onClick={onToggle}
        sx={{
          all: 'unset',
          display: 'grid',
          gridTemplateColumns: 'minmax(34px, auto) 1fr auto',
          gap: 1,
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
          {title}
        </Box>
        <Box component="span" sx={{ color: 'text.secondary' }}>
          {wordText(word)} {open ? '−' : '+'}
        </Box>
      </Box>
      {open && <BitTable digits={wordDigits(word)} title={title} fields={explain(sourceLayout(word), word)} />}
    </Box>
  );
}

export function WordList({ words }: { readonly words: Uint32Array }) {
  const scroller = useRef<HTMLDivElement>(null);
  const [open, setOpen] = useState<number | null>(null);
  const blocks = useVirtualizer({
    count: Math.ceil(words.length / BLOCK),
    getScrollElement: () => scroller.current,
    estimateSize: (block) => ROW * Math.min(BLOCK, words.length - block * BLOCK),
    overscan: 1,
  });
  return (
    <Box ref={scroller} sx={{ maxHeight: 330, overflowY: 'auto' }}>
      <Box role="list" aria-label="Offers as decoded" sx={{ position: 'relative', height: blocks.getTotalSize() }}>
        {blocks.getVirtualItems().map(({ index: block, start }) => (
          <Box
            key={block}
            data-index={block}
            ref={blocks.measureElement}
            sx={{ position: 'absolute', top: 0, left: 0, right: 0, transform: `translateY(${start}px)` }}
          >
            {Array.from(words.subarray(block * BLOCK, (block + 1) * BLOCK), (word, offset) => {
              const index = block * BLOCK + offset;
              return (
                <WordRow
                  key={index}
                  index={index}
                  word={word}
                  open={open === index}
                  onToggle={() => setOpen(open === index ? null : index)}
                />
              );
            })}
          </Box>
        ))}
      </Box>
    </Box>
  );
}
