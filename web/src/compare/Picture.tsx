// The set as a picture: any measure against any other, or every one beside each other; one of them may be held to a range.
import type { SetMember } from '@lastmark/contract/types';
import Box from '@mui/material/Box';
import { useCallback, useMemo, useState } from 'react';
import { Choice } from '../parts/fields.tsx';
import { usePaced } from '../parts/usePaced.ts';
import { Held, type HeldRange, isHeld, rangeOf } from './Held.tsx';
import { Panels } from './Panels.tsx';
import { Scatter } from './Scatter.tsx';
import { usualPair } from './useSet.ts';
import type { MeasureView } from './views.ts';

interface Props {
  /** Measures somebody has a value of. */
  readonly views: readonly MeasureView[];
  readonly members: readonly SetMember[];
  readonly marked: string | null;
  /** What is looked at stands in the address. */
  readonly params: URLSearchParams;
  readonly onPut: (part: Record<string, string | null>) => void;
}

/** All measures at once. */
const EVERY = 'every';

/** Members inside a held range. */
function heldMembers(
  members: readonly SetMember[],
  views: readonly MeasureView[],
  held: HeldRange | null,
): readonly SetMember[] {
  const view = held && views.find(({ id }) => id === held.id);
  const range = view && rangeOf(view);
  if (!held || !view || !range) return members;
  return members.filter(({ id }) => {
    const own = view.byId.get(id);
    return own !== undefined && isHeld(range, held, own.value);
  });
}

export function Picture({ views, members, marked, params, onPut }: Props) {
  const [held, setHeld] = useState<HeldRange | null>(null);
  const asked = usePaced(held);
  const shown = useMemo(() => heldMembers(members, views, asked), [members, views, asked]);
  const mark = useCallback((id: string | null) => onPut({ sample: id }), [onPut]);
  const usual = usualPair(views.map(({ id }) => id));
  const pick = (name: string, other: string | undefined) =>
    views.find(({ id }) => id === params.get(name)) ?? views.find(({ id }) => id === other);
  const every = params.get('y') === EVERY;
  const [x, y] = [pick('x', usual[0]), pick('y', usual[1])];
  const size = views.find(({ id }) => id === params.get('size')) ?? null;
  const options = views.map(({ id, title }) => ({ value: id, label: title }));
  return (
    <>
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fit, minmax(220px, 1fr))', gap: 1.5, mb: 1.5 }}>
        <Choice label="Across" value={x?.id ?? ''} options={options} onChange={(id) => onPut({ x: id })} />
        <Choice
          label="Up"
          value={every ? EVERY : (y?.id ?? '')}
          options={[...options, { value: EVERY, label: 'every measure' }]}
          onChange={(id) => onPut({ y: id })}
        />
        <Choice
          label="Size"
          value={size?.id ?? ''}
          options={[{ value: '', label: 'all alike' }, ...options]}
          onChange={(id) => onPut({ size: id === '' ? null : id })}
        />
      </Box>
      <Held views={views} held={held} onHold={setHeld} shown={shown.length} of={members.length} />
      {x && every && <Panels members={shown} views={views} x={x} marked={marked} onOpen={(id) => onPut({ y: id })} />}
      {x && y && !every && <Scatter members={shown} x={x} y={y} size={size} marked={marked} onMark={mark} />}
    </>
  );
}
