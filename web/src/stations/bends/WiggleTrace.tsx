// A wiggled cable in small: what came out at its far end, and where it came apart.
import { type Wiggle, wiggleWords } from '@lastmark/core/cable';
import Box from '@mui/material/Box';

const WIDTH = 200;
const HEIGHT = 28;

export function WiggleTrace({ wiggle }: { readonly wiggle: Wiggle }) {
  const { outline } = wiggle;
  const most = Math.max(...outline.map((one) => one.most), 1e-9);
  const x = (at: number) => ((at + 0.5) / outline.length) * WIDTH;
  const y = (value: number) => HEIGHT - 2 - (Math.max(0, value) / most) * (HEIGHT - 4);
  const path = outline.map(({ least, most: top }, at) => `M${x(at)} ${y(top)}V${y(least)}`).join('');
  const line = outline.map(({ most: top }, at) => `${at === 0 ? 'M' : 'L'}${x(at)} ${y(top)}`).join('');
  return (
    <Box sx={{ minWidth: WIDTH }}>
      <Box
        component="svg"
        role="img"
        aria-label={`Wiggled: ${wiggleWords(wiggle)}`}
        width={WIDTH}
        height={HEIGHT}
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        sx={{ display: 'block', color: wiggle.interruptions > 0 ? 'error.main' : 'text.secondary' }}
      >
        <path d={path + line} fill="none" stroke="currentColor" strokeWidth="1.5" />
      </Box>
      <Box sx={{ fontSize: 13, color: 'text.secondary' }}>{wiggleWords(wiggle)}</Box>
    </Box>
  );
}
