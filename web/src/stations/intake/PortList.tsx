// The ports in physical order: labelled, moved by drag or keyboard, added and removed.
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
import { CONNECTORS } from '@lastmark/contract/schemas';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { Choice } from '../../parts/fields.tsx';
import { PortFace } from '../../parts/PortFace.tsx';
import { type PortText, portKey } from './form.ts';

const MOST_PORTS = 12;

interface RowProps {
  readonly port: PortText;
  readonly number: number;
  readonly others: readonly string[];
  readonly error: string | undefined;
  readonly onChange: (port: PortText) => void;
  readonly onRemove: () => void;
}

function PortRow({ port, number, others, error, onChange, onRemove }: RowProps) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition } = useSortable({
    id: port.key,
  });
  return (
    <Box
      ref={setNodeRef}
      component="li"
      style={{ transform: CSS.Transform.toString(transform), transition }}
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '40px 1fr 1fr', md: '40px 1fr 150px 150px auto' },
        gap: 1,
        alignItems: 'start',
        mb: 1,
        bgcolor: 'background.paper',
      }}
    >
      <Button
        ref={setActivatorNodeRef}
        {...attributes}
        {...listeners}
        aria-label={`Move port ${number}, ${port.label || 'no label'}`}
        sx={{ minWidth: 0, height: 40, cursor: 'grab', color: 'text.secondary' }}
      >
        ⠿
      </Button>
      <TextField
        label={`Label of port ${number}`}
        value={port.label}
        error={error !== undefined}
        helperText={error}
        onChange={(event) => onChange({ ...port, label: event.target.value })}
        slotProps={{ htmlInput: { maxLength: 24 } }}
      />
      <Choice
        label="Connector"
        value={port.connector}
        options={CONNECTORS}
        onChange={(connector) => onChange({ ...port, connector })}
      />
      <Choice
        label="Made alike"
        value={port.twin && others.includes(port.twin) ? port.twin : ''}
        options={[{ value: '', label: 'none' }, ...others]}
        onChange={(twin) => onChange({ ...port, twin: twin === '' ? null : twin })}
        more={{ sx: { gridColumn: { xs: 2, md: 'auto' } } }}
      />
      <Button onClick={onRemove} aria-label={`Remove port ${number}, ${port.label || 'no label'}`} sx={{ height: 40 }}>
        Remove
      </Button>
    </Box>
  );
}

interface Props {
  readonly ports: readonly PortText[];
  readonly errorOf: (index: number) => string | undefined;
  readonly onChange: (ports: readonly PortText[]) => void;
}

/** Next free label of a connector: C1, C2, A1. */
function nextLabel(ports: readonly PortText[], letter: string): string {
  let number = 1;
  while (ports.some(({ label }) => label === `${letter}${number}`)) number += 1;
  return `${letter}${number}`;
}

export function PortList({ ports, errorOf, onChange }: Props) {
  const sensors = useSensors(
    useSensor(PointerSensor),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const move = ({ active, over }: DragEndEvent) => {
    const from = ports.findIndex(({ key }) => key === active.id);
    const to = ports.findIndex(({ key }) => key === over?.id);
    if (from >= 0 && to >= 0 && from !== to) onChange(arrayMove([...ports], from, to));
  };
  const add = (connector: PortText['connector'], letter: string) =>
    onChange([...ports, { key: portKey(), label: nextLabel(ports, letter), connector, twin: null }]);
  const nameOf = (id: string | number) => ports.find(({ key }) => key === id)?.label ?? 'port';
  const placeOf = (id: string | number | undefined) => ports.findIndex(({ key }) => key === id) + 1;
  return (
    <Box>
      <Box sx={{ mb: 1.5 }}>
        <PortFace ports={ports} width={420} />
      </Box>
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={move}
        accessibility={{
          announcements: {
            onDragStart: ({ active }) => `Picked up ${nameOf(active.id)}.`,
            onDragOver: ({ active, over }) => `${nameOf(active.id)} is at place ${placeOf(over?.id)}.`,
            onDragEnd: ({ active, over }) => `${nameOf(active.id)} is put down at place ${placeOf(over?.id)}.`,
            onDragCancel: ({ active }) => `${nameOf(active.id)} is back where it was.`,
          },
        }}
      >
        <SortableContext items={ports.map(({ key }) => key)} strategy={verticalListSortingStrategy}>
          <Box component="ul" aria-label="Ports in physical order" sx={{ listStyle: 'none', m: 0, p: 0 }}>
            {ports.map((port, index) => (
              <PortRow
                key={port.key}
                port={port}
                number={index + 1}
                others={ports.filter((other) => other.key !== port.key).map(({ label }) => label)}
                error={errorOf(index)}
                onChange={(changed) => onChange(ports.map((old) => (old.key === port.key ? changed : old)))}
                onRemove={() => onChange(ports.filter(({ key }) => key !== port.key))}
              />
            ))}
          </Box>
        </SortableContext>
      </DndContext>
      <Box sx={{ display: 'flex', gap: 1 }}>
        <Button variant="outlined" disabled={ports.length >= MOST_PORTS} onClick={() => add('C', 'C')}>
          Add a C port
        </Button>
        <Button variant="outlined" disabled={ports.length >= MOST_PORTS} onClick={() => add('A', 'A')}>
          Add an A port
        </Button>
      </Box>
    </Box>
  );
}
