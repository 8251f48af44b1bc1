// The steps of a sheet in order, moved by drag or keyboard.
import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { mainsOf, type SheetStep, STEP_WORDS, stepSeconds } from '@lastmark/core/plan';
import { mainsLabel } from '@lastmark/core/reading';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { memo } from 'react';
import { howLong } from './words.ts';

const COLUMNS = '36px 34px 104px minmax(0, 1fr) 110px 76px 92px 84px';

interface RowProps {
  readonly step: SheetStep;
  readonly number: number;
  readonly onSkip: (step: SheetStep) => void;
}

function settleWords(step: SheetStep): string {
  const settle = step.kind === 'point' ? step.settle : null;
  return settle
    ? `settles: ${settle.fraction * 100} % over ${howLong(settle.over)}, else ${howLong(settle.average)} averaged`
    : '';
}

const StepRow = memo(function StepRow({ step, number, onSkip }: RowProps) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition } = useSortable({
    id: step.id,
  });
  const skipped = step.skip !== null;
  const mains = mainsOf(step);
  const details = [settleWords(step), step.needs.length > 0 ? `needs ${step.needs.join(', ')}` : ''].filter(Boolean);
  return (
    <Box
      ref={setNodeRef}
      component="li"
      aria-label={`Step ${number}: ${step.title}`}
      style={{ transform: CSS.Transform.toString(transform), transition }}
      sx={{
        display: 'grid',
        gridTemplateColumns: COLUMNS,
        gap: 1,
        alignItems: 'center',
        px: 1,
        py: 0.25,
        borderBottom: 1,
        borderColor: 'divider',
        bgcolor: 'background.paper',
        // Rows out of sight cost nothing to draw.
        contentVisibility: 'auto',
        containIntrinsicSize: 'auto 46px',
      }}
    >
      <Button
        ref={setActivatorNodeRef}
        {...attributes}
        {...listeners}
        aria-label={`Move step ${number}, ${step.title}`}
        sx={{ minWidth: 0, height: 36, cursor: 'grab', color: 'text.secondary' }}
      >
        ⠿
      </Button>
      <Box sx={{ textAlign: 'right', color: 'text.secondary', fontVariantNumeric: 'tabular-nums' }}>{number}</Box>
      <Box sx={{ color: 'text.secondary' }}>{STEP_WORDS[step.kind]}</Box>
      <Box sx={{ overflowWrap: 'anywhere' }}>
        <Box sx={{ fontWeight: 600, textDecoration: skipped ? 'line-through' : undefined }}>{step.title}</Box>
        {skipped && <Box sx={{ fontSize: 13 }}>Left out: {step.skip}</Box>}
        {!skipped && step.caution && (
          <Box sx={{ fontSize: 13 }}>
            <Box component="span" aria-hidden sx={{ color: 'warning.main', fontWeight: 600 }}>
              ▲{' '}
            </Box>
            {step.caution}
          </Box>
        )}
        {!skipped && details.length > 0 && (
          <Box sx={{ fontSize: 13, color: 'text.secondary' }}>{details.join(' · ')}</Box>
        )}
      </Box>
      <Box>{mains ? mainsLabel(mains) : ''}</Box>
      <Box sx={{ textAlign: 'right' }}>{howLong(stepSeconds(step))}</Box>
      <Box sx={{ fontSize: 13 }}>
        {step.by === 'keypad' ? 'keypad' : 'by itself'}
        {step.attended && <Box sx={{ fontWeight: 600 }}>watched</Box>}
      </Box>
      <Button
        size="small"
        onClick={() => onSkip(step)}
        aria-label={`${skipped ? 'Do' : 'Leave out'} step ${number}, ${step.title}`}
      >
        {skipped ? 'Do it' : 'Leave out'}
      </Button>
    </Box>
  );
});

interface Props {
  readonly steps: readonly SheetStep[];
  readonly onMove: (steps: SheetStep[]) => void;
  readonly onSkip: (step: SheetStep) => void;
}

export function StepList({ steps, onMove, onSkip }: Props) {
  const sensors = useSensors(
    useSensor(PointerSensor),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const indexOf = (id: string | number | undefined) => steps.findIndex((step) => step.id === id);
  const titleOf = (id: string | number) => steps[indexOf(id)]?.title ?? 'step';
  const move = ({ active, over }: DragEndEvent) => {
    const from = indexOf(active.id);
    const to = indexOf(over?.id);
    if (from >= 0 && to >= 0 && from !== to) onMove(arrayMove([...steps], from, to));
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={move}
      accessibility={{
        announcements: {
          onDragStart: ({ active }) => `Picked up ${titleOf(active.id)}.`,
          onDragOver: ({ active, over }) => `${titleOf(active.id)} is at place ${indexOf(over?.id) + 1}.`,
          onDragEnd: ({ active, over }) => `${titleOf(active.id)} is put down at place ${indexOf(over?.id) + 1}.`,
          onDragCancel: ({ active }) => `${titleOf(active.id)} is back where it was.`,
        },
      }}
    >
      <SortableContext items={steps.map(({ id }) => id)} strategy={verticalListSortingStrategy}>
        <Box
          component="ol"
          aria-label="Steps in order"
          sx={{ listStyle: 'none', m: 0, p: 0, border: 1, borderColor: 'divider', borderRadius: 1 }}
        >
          {steps.map((step, index) => (
            <StepRow key={step.id} step={step} number={index + 1} onSkip={onSkip} />
          ))}
        </Box>
      </SortableContext>
    </DndContext>
  );
}
