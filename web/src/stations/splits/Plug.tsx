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
import type { StoredDevice } from '@lastmark/contract/types';
import { voltsOf } from '@lastmark/core/pd';
import { fixed } from '@lastmark/core/quantity';
import { bestReadOut, offersOf } from '@lastmark/core/read-out';
import {
  type Arrangement,
  type PlugDevice,
  type PlugSource,
  promisedRows,
  type Ranked,
  setKey,
  USUAL_PROFILE,
} from '@lastmark/core/split';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { lazy, type ReactNode, Suspense, useMemo, useState } from 'react';
import { Choice } from '../../parts/fields.tsx';
import { Loading } from '../../parts/QueryGate.tsx';
import { useDraft } from '../../parts/useDraft.ts';
import { useSample } from '../../state/sample.tsx';
import { usePlug } from './usePlug.ts';

const EveningView = lazy(async () => ({ default: (await import('./EveningView.tsx')).EveningView }));

const MOST = 8;

/** How one device comes to the evening. */
interface Coming {
  readonly level: string;
  readonly comes: string;
  readonly staysOn: boolean;
}
const USUAL: Coming = { level: '20', comes: '0', staysOn: false };

const numberIn = (text: string, low: number, high: number, otherwise: number): number => {
  const value = Number(text.replace(',', '.'));
  return text.trim() !== '' && Number.isFinite(value) ? Math.min(high, Math.max(low, value)) : otherwise;
};

/** The port a lead goes into, from how its connector was written: "C", "USB-C", "A to C". */
const leadFits = (connector: string): 'C' | 'A' | null => {
  const plug = /(?:^|[^a-z])([ac])(?=$|[^a-z])/i.exec(connector)?.[1]?.toUpperCase();
  return plug === 'A' || plug === 'C' ? plug : null;
};

function toPlug(device: StoredDevice, { level, comes, staysOn }: Coming): PlugDevice {
  const top = device.ceilings.reduce<StoredDevice['ceilings'][number] | null>(
    (best, one) => (best && best.watts >= one.watts ? best : one),
    null,
  );
  return {
    id: device.id,
    name: device.name,
    watts: top?.watts ?? device.baseline ?? 10,
    volts: top?.volts ?? null,
    leads: device.ceilings.map(({ connector: plug, lead, watts, volts }) => ({
      name: lead,
      fits: leadFits(plug),
      watts,
      volts,
    })),
    battery: device.battery,
    level: numberIn(level, 0, 100, 20) / 100,
    comes: numberIn(comes, 0, 12, 0) * 3600,
    staysOn,
    profile: USUAL_PROFILE,
  };
}

/** What the charger offers, for the worker. */
function useSource(by: PlugSource['by']): PlugSource {
  const { dossier, verdict } = useSample();
  return useMemo(() => {
    const faces = dossier.sample.model.ports;
    const labels = faces.map(({ label }) => label);
    const lines = dossier.claims.flatMap(({ promise }) => (promise.kind === 'port-line' ? [promise] : []));
    const ports = faces.map(({ label, connector }) => {
      const best = bestReadOut(dossier.readOuts, label);
      const offered = best ? offersOf(best).flatMap(({ object }) => voltsOf(object)?.high ?? []) : [];
      const promised = lines.filter(({ port }) => port === label).map(({ volts }) => volts);
      return {
        label,
        volts: [...new Set([5, ...offered, ...promised])],
        connector: connector === 'A' ? 'A' : 'C',
      } as const;
    });
    const alone = Object.fromEntries(
      labels.flatMap((label) => {
        const own = lines.filter(({ port }) => port === label).map(({ volts, amps }) => volts * amps);
        return own.length > 0 ? [[label, Math.max(...own)]] : [];
      }),
    );
    const { rule, drops } = verdict.results.splits;
    return { ports, by, rule: { budgets: rule.budgets }, promised: promisedRows(labels, dossier.claims), alone, drops };
  }, [dossier, verdict, by]);
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
  const devices = useMemo(
    () =>
      dossier.devices.flatMap((device) =>
        kept.value[device.id] ? [toPlug(device, kept.value[device.id] ?? USUAL)] : [],
      ),
    [dossier.devices, kept.value],
  );
  const [over, setOver] = useState<Arrangement | null>(null);
  // While a device hangs over a port the numbers already tell what that would give.
  const { advice, ranked, evening, error } = usePlug(source, devices, over ?? own);
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
        <Box component="section" aria-label="Devices">
          {dossier.devices.length === 0 && <Typography>No devices yet. Add them at Bench.</Typography>}
          {dossier.devices.map((device) => {
            const coming = kept.value[device.id];
            const change = (part: Partial<Coming>) => choose(device.id, { ...(coming ?? USUAL), ...part });
            return (
              <Box
                key={device.id}
                sx={{
                  display: 'grid',
                  gridTemplateColumns: { xs: '34px 1fr 90px 100px', md: '34px minmax(140px, 1fr) 100px 120px 150px' },
                  gap: 1,
                  alignItems: 'center',
                  minHeight: 44,
                }}
              >
                <Checkbox
                  size="small"
                  checked={coming !== undefined}
                  disabled={!coming && devices.length >= MOST}
                  onChange={() => choose(device.id, coming ? null : USUAL)}
                  slotProps={{ input: { 'aria-label': device.name } }}
                />
                <Box>{device.name}</Box>
                {coming && (
                  <>
                    <TextField
                      label="Level, %"
                      value={coming.level}
                      onChange={(event) => change({ level: event.target.value })}
                      slotProps={{ htmlInput: { 'aria-label': `${device.name}: level, %`, inputMode: 'decimal' } }}
                    />
                    <TextField
                      label="Comes after, h"
                      value={coming.comes}
                      onChange={(event) => change({ comes: event.target.value })}
                      slotProps={{
                        htmlInput: { 'aria-label': `${device.name}: comes after, h`, inputMode: 'decimal' },
                      }}
                    />
                    <Box component="label" sx={{ fontSize: 14 }}>
                      <Checkbox
                        size="small"
                        checked={coming.staysOn}
                        onChange={(event) => change({ staysOn: event.target.checked })}
                      />
                      must stay on
                    </Box>
                  </>
                )}
              </Box>
            );
          })}
        </Box>
      </Box>
      {error && <Alert severity="error">{error}</Alert>}
      {devices.length === 0 && (
        <Typography>Choose the devices of an evening: where each belongs follows at once.</Typography>
      )}
      {devices.length > 0 && (
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
            <Suspense fallback={<Loading what="the evening" />}>
              <EveningView evening={evening} devices={devices} />
            </Suspense>
          )}
        </Box>
      )}
    </>
  );
}
