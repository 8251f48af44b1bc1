// Where should I plug? Devices are chosen, the best arrangement follows, and the evening is played through.
import {
  DndContext,
  type DragEndEvent,
  type DragOverEvent,
  KeyboardSensor,
  PointerSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { CSS } from '@dnd-kit/utilities';
import { fixed } from '@lastmark/core/quantity';
import {
  type Arrangement,
  MOST_EXACT,
  MOST_TOGETHER,
  type PlugDevice,
  type PlugSource,
  plugSource,
  type Ranked,
  setKey,
} from '@lastmark/core/split';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useQuery } from '@tanstack/react-query';
import { lazy, type ReactNode, useMemo, useState } from 'react';
import { deviceEvidenceQuery } from '../../api/queries.ts';
import { Choice } from '../../parts/fields.tsx';
import { figureHeight } from '../../parts/heights.ts';
import { Later } from '../../parts/Later.tsx';
import { useDraft } from '../../parts/useDraft.ts';
import { toJudge, useSample } from '../../state/sample.tsx';
import { PlugDevices } from './PlugDevices.tsx';
import { type Coming, profilesOf, toPlug, USUAL } from './plugDevice.ts';
import { Several } from './Several.tsx';
import { usePlug } from './usePlug.ts';

const EveningView = lazy(async () => ({ default: (await import('./EveningView.tsx')).EveningView }));

/** One and the same list, so that nothing is worked out again. */
const NONE: readonly PlugDevice[] = [];

/** What the charger offers, for the worker. */
function useSource(by: PlugSource['by']): PlugSource {
  const { dossier, verdict } = useSample();
  return useMemo(() => plugSource(toJudge(dossier), verdict.results.splits, by), [dossier, verdict, by]);
}

/** Watts in use as far as they are known. */
function inUse({ met, score }: Ranked, by: PlugSource['by']): string {
  const unknown = Object.values(met).filter(({ watts }) => watts === null).length;
  if (unknown === 0) return `${fixed(score.watts, 0)} W in use`;
  return score.watts > 0 ? `${fixed(score.watts, 0)} W in use and ${unknown} not ${by}` : `nothing ${by}`;
}

function Chip({ device, watts }: { readonly device: PlugDevice; readonly watts: string }) {
  const { attributes, listeners, setNodeRef, transform, isDragging } = useDraggable({ id: device.id });
  return (
    <Button
      ref={setNodeRef}
      {...attributes}
      {...listeners}
      variant="outlined"
      aria-label={`Move ${device.name}`}
      style={{ transform: CSS.Translate.toString(transform) }}
      sx={{
        cursor: 'grab',
        bgcolor: 'background.paper',
        zIndex: isDragging ? 3 : undefined,
        touchAction: 'none',
        display: 'block',
        textAlign: 'left',
        width: '100%',
      }}
    >
      {device.name}
      {device.staysOn ? ' ◆' : ''}
      <Box component="span" sx={{ display: 'block', fontWeight: 400, fontSize: 13 }}>
        {watts}
      </Box>
    </Button>
  );
}

function Slot({ id, title, children }: { readonly id: string; readonly title: string; readonly children: ReactNode }) {
  const { setNodeRef, isOver } = useDroppable({ id });
  return (
    <Box
      ref={setNodeRef}
      role="group"
      aria-label={title}
      sx={{
        p: 1,
        minHeight: 92,
        border: 2,
        borderRadius: 1,
        borderColor: isOver ? 'primary.main' : 'divider',
        borderStyle: id === 'waits' ? 'dashed' : 'solid',
      }}
    >
      <Box sx={{ fontWeight: 600, mb: 0.5 }}>{title}</Box>
      {children}
    </Box>
  );
}

export function Plug() {
  const { dossier, verdict } = useSample();
  const measured = verdict.results.splits.rule.budgets.length > 0;
  const [by, setBy] = useState<PlugSource['by']>(measured ? 'measured' : 'promised');
  const source = useSource(by);
  const kept = useDraft<Readonly<Record<string, Coming>>>(`plug-${dossier.sample.id}`, {});
  const [own, setOwn] = useState<Arrangement | null>(null);
  const { data: evidence } = useQuery(deviceEvidenceQuery);
  const profiles = useMemo(() => profilesOf(evidence), [evidence]);
  const devices = useMemo(
    () =>
      dossier.devices.flatMap((device) =>
        kept.value[device.id] ? [toPlug(device, kept.value[device.id] ?? USUAL, profiles.get(device.id))] : [],
      ),
    [dossier.devices, kept.value, profiles],
  );
  const [over, setOver] = useState<Arrangement | null>(null);
  // While a device hangs over a port the numbers already tell what that would give.
  const one = devices.length <= MOST_EXACT ? devices : NONE;
  const { advice, ranked, evening, error } = usePlug(source, one, over ?? own);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor),
  );
  const standing = own ?? advice?.best.arrangement ?? {};
  const choose = (id: string, coming: Coming | null) => {
    setOwn(null);
    const { [id]: _, ...rest } = kept.value;
    kept.set(coming ? { ...rest, [id]: coming } : rest);
  };
  const placed = (id: string, port: string | null): Arrangement => {
    const before = standing[id];
    const other = devices.find((one) => one.id !== id && standing[one.id] === port);
    const next: Record<string, string> = { ...standing };
    delete next[id];
    if (port) next[id] = port;
    // Whoever sits there takes the free place.
    if (other && port) {
      delete next[other.id];
      if (before) next[other.id] = before;
    }
    return next;
  };
  const place = (id: string, port: string | null) => setOwn(placed(id, port));
  const portAt = (id: string | number) => (id === 'waits' ? null : String(id));
  const hover = ({ active, over: slot }: DragOverEvent) =>
    setOver(slot ? placed(String(active.id), portAt(slot.id)) : null);
  const drop = ({ active, over: slot }: DragEndEvent) => {
    setOver(null);
    if (slot) place(String(active.id), portAt(slot.id));
  };
  const wattsOf = (id: string) => {
    const met = ranked?.met[id];
    if (!met) return '…';
    const lead = ranked?.leads[id];
    if (lead === null) return 'no lead that fits';
    const share =
      met.watts === null
        ? `not ${by}, wants ${fixed(met.wanted, 0)} W`
        : `${fixed(met.watts, 0)} of ${fixed(met.wanted, 0)} W`;
    return lead ? `${share}, ${lead}` : share;
  };
  const inPlace = (port: string | null) => devices.filter(({ id }) => (standing[id] ?? null) === port);
  const names = (arrangement: Arrangement) =>
    devices.map(({ id, name }) => `${name} ${arrangement[id] ?? 'waits'}`).join(', ');
  return (
    <>
      <Box sx={{ display: 'grid', gap: 1.5, mb: 1.5 }}>
        <Box sx={{ width: 220 }}>
          <Choice
            label="Shares by"
            value={by}
            options={[
              { value: 'measured', label: 'what was measured' },
              { value: 'promised', label: 'what is promised' },
            ]}
            onChange={(next) => {
              setOwn(null);
              setBy(next);
            }}
          />
        </Box>
        <PlugDevices
          devices={dossier.devices}
          coming={kept.value}
          known={(id) => profiles.has(id)}
          full={devices.length >= MOST_TOGETHER}
          onChange={choose}
        />
      </Box>
      {error && <Alert severity="error">{error}</Alert>}
      {devices.length === 0 && (
        <Typography>Choose the devices of an evening: where each belongs follows at once.</Typography>
      )}
      {devices.length > MOST_EXACT && (
        <Typography>On one charger up to {MOST_EXACT} devices are arranged. Add another below.</Typography>
      )}
      {one.length > 0 && (
        <Box component="section" aria-label="Arrangement">
          <DndContext sensors={sensors} onDragOver={hover} onDragEnd={drop} onDragCancel={() => setOver(null)}>
            <Box
              sx={{
                display: 'grid',
                gridTemplateColumns: `repeat(${Math.min(5, source.ports.length + 1)}, minmax(0, 1fr))`,
                gap: 1,
                mb: 1,
              }}
            >
              {source.ports.map(({ label }) => (
                <Slot key={label} id={label} title={label}>
                  {inPlace(label).map((device) => (
                    <Chip key={device.id} device={device} watts={wattsOf(device.id)} />
                  ))}
                </Slot>
              ))}
              <Slot id="waits" title="Waits">
                {inPlace(null).map((device) => (
                  <Chip key={device.id} device={device} watts="not plugged in" />
                ))}
              </Slot>
            </Box>
          </DndContext>
          <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', mb: 1 }}>
            {devices.map(({ id, name }) => (
              <Box key={id} sx={{ width: 190 }}>
                <Choice
                  label={name}
                  value={standing[id] ?? ''}
                  options={[{ value: '', label: 'waits' }, ...source.ports.map(({ label }) => label)]}
                  onChange={(port) => place(id, port || null)}
                />
              </Box>
            ))}
            {own && (
              <Button variant="contained" onClick={() => setOwn(null)}>
                Back to the best
              </Button>
            )}
          </Box>
          {ranked && (
            <Typography sx={{ fontSize: 18 }} role="status">
              {over ? 'Here' : own ? 'As arranged' : ranked.measureFirst.length > 0 ? 'Best as far as known' : 'Best'}:{' '}
              {inUse(ranked, by)}
              {ranked.score.lost > 0 ? `, ▼ ${ranked.score.lost} that must stay on would not` : ''}
              {ranked.score.open > 0 ? `, ○ ${ranked.score.open} that must stay on: not tested` : ''}
              {ranked.score.breaks > 0 ? `, ${ranked.score.breaks} interrupted while others are plugged in` : ''}.{' '}
              {!own && !over && advice?.why}
            </Typography>
          )}
          {ranked && ranked.measureFirst.length > 0 && (
            <Alert severity="info" sx={{ my: 1 }}>
              {by === 'measured' ? 'Not measured' : 'Not promised as a set'}: read{' '}
              {ranked.measureFirst.slice(0, 3).map(setKey).join(', ')} first
              {ranked.score.open > 0 ? ', and note whether the running port stays on' : ''}.
            </Alert>
          )}
          {advice?.runnerUp && (
            <Typography color="text.secondary">
              Next best: {names(advice.runnerUp.arrangement)}, {inUse(advice.runnerUp, by)}. {advice.tried} arrangements
              tried.
            </Typography>
          )}
          {evening && (
            <Later what="the evening" height={figureHeight(240)}>
              <EveningView evening={evening} devices={devices} />
            </Later>
          )}
        </Box>
      )}
      <Several source={source} by={by} devices={devices} />
    </>
  );
}
