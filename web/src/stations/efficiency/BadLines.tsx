// Every bad line of a file with its number and what is wrong; only those in sight are drawn.
import type { BadLine } from '@lastmark/core/meter-file';
import Box from '@mui/material/Box';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef } from 'react';

const ROW_HEIGHT = 44;
const MOST_HEIGHT = 220;

export function BadLines({ lines }: { readonly lines: readonly BadLine[] }) {
  const scroller = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_HEIGHT,
    overscan: 6,
  });
  return (
    <Box
      ref={scroller}
      role="list"
      aria-label="Bad lines"
      tabIndex={0}
      sx={{
        height: Math.min(MOST_HEIGHT, lines.length * ROW_HEIGHT + 2),
        overflow: 'auto',
        border: 1,
        borderColor: 'error.main',
        borderRadius: 1,
        my: 1,
      }}
    >
      <Box sx={{ position: 'relative', height: virtual.getTotalSize() }}>
        {virtual.getVirtualItems().map(({ index, start }) => {
          const line = lines[index];
          return (
            line && (
              <Box
                key={line.line}
                role="listitem"
                sx={{
                  position: 'absolute',
                  left: 0,
                  right: 0,
                  height: ROW_HEIGHT,
                  transform: `translateY(${start}px)`,
                  px: 1.5,
                  py: 0.4,
                  fontSize: 13,
                }}
              >
                <Box>
                  <strong>Line {line.line}</strong> {line.reason}
                </Box>
                <Box
                  sx={{ color: 'text.secondary', whiteSpace: 'nowrap', overflow: 'hidden', textOverflow: 'ellipsis' }}
                >
                  {line.text}
                </Box>
              </Box>
            )
          );
        })}
      </Box>
    </Box>
  );
}
