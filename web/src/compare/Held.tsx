// A measure held to a range by dragging: what lies outside leaves the picture, and stays in the set.
import Box from '@mui/material/Box';
import Slider from '@mui/material/Slider';
import Typography from '@mui/material/Typography';
import { Choice } from '../parts/fields.tsx';
import { axisTitle, type MeasureView, plainWords } from './views.ts';

export interface HeldRange {
  readonly id: string;
  /** Parts of the whole range, 0…1. */
  readonly from: number;
  readonly to: number;
}

const STEPS = 400;

/** From the least value to the greatest; null where there is none. */
export function rangeOf({ values }: MeasureView): readonly [number, number] | null {
  let [low, high] = [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
  for (const { value } of values) {
    if (value < low) low = value;
    if (value > high) high = value;
  }
  return low <= high ? [low, high] : null;
}

/** Whether a value lies in a held range; everything does while nothing is held. */
export function isHeld(range: readonly [number, number], { from, to }: HeldRange, value: number): boolean {
  const width = range[1] - range[0];
  // Ends are inside: neither the least nor the greatest is lost to the steps of a slider.
  const slack = width * 1e-9;
  return value >= range[0] + from * width - slack && value <= range[0] + to * width + slack;
}

interface Props {
  readonly views: readonly MeasureView[];
  readonly held: HeldRange | null;
  readonly onHold: (held: HeldRange | null) => void;
  readonly shown: number;
  readonly of: number;
}

export function Held({ views, held, onHold, shown, of }: Props) {
  const view = views.find(({ id }) => id === held?.id);
  const range = view ? rangeOf(view) : null;
  const words = (part: number) =>
    view && range ? plainWords(view, Number((range[0] + part * (range[1] - range[0])).toPrecision(3))) : '';
  return (
    <Box sx={{ display: 'flex', gap: 2.5, alignItems: 'center', flexWrap: 'wrap', minHeight: 48, mb: 1 }}>
      <Choice
        label="Hold to a range"
        value={held?.id ?? ''}
        options={[
          { value: '', label: 'nothing held' },
          ...views.map((one) => ({ value: one.id, label: axisTitle(one).split(' · ')[0] ?? one.title })),
        ]}
        onChange={(id) => onHold(id === '' ? null : { id, from: 0, to: 1 })}
        more={{ fullWidth: false, sx: { width: 260 } }}
      />
      {held && view && range && (
        <>
          <Slider
            size="small"
            value={[held.from * STEPS, held.to * STEPS]}
            min={0}
            max={STEPS}
            onChange={(_event, ends) => {
              const [from = 0, to = STEPS] = ends as number[];
              onHold({ id: held.id, from: from / STEPS, to: to / STEPS });
            }}
            getAriaLabel={(at) => `${view.title} ${at === 0 ? 'from' : 'to'}`}
            getAriaValueText={(part) => words(part / STEPS)}
            sx={{ width: 260, '& .MuiSlider-thumb': { width: 24, height: 24 } }}
          />
          <Typography sx={{ minWidth: 190 }}>
            {words(held.from)} to {words(held.to)}
          </Typography>
        </>
      )}
      <Typography role="status" color="text.secondary">
        {held ? `${shown} of ${of} samples` : ''}
      </Typography>
    </Box>
  );
}
