// Tasks of a bench day, from run sheets: each step a task, in the order of its sheet, with what its rig brings.
import { type SheetStep, stepSeconds } from '../plan/index.ts';
import type { Rig } from '../reading/index.ts';
import type { Resource, Task } from './types.ts';

/** A sheet somebody wants done. */
export interface DaySheet {
  readonly id: string;
  readonly sampleId: string;
  /** "Quad 130, GQ-20931" */
  readonly name: string;
  readonly steps: readonly SheetStep[];
  readonly rig: Pick<Rig, 'id' | 'name' | 'meters' | 'drives'>;
  /** When its sample comes and has to be back, s from the beginning of the day; null or left out for there all day. */
  readonly from?: number | null | undefined;
  readonly due?: number | null | undefined;
  /** A chamber its soaks stand in; id of the instrument. Null or left out for the open room. */
  readonly chamberId?: string | null | undefined;
  /** Steps of a run of it, s from the beginning of the day: done, or begun. Empty before it runs. */
  readonly begun: readonly { readonly stepId: string; readonly from: number; readonly to: number }[];
}

/** Steps in which the rig stands idle: another sample may use it. */
const IDLE_RIG: readonly string[] = ['cool'];

/** Every instrument a rig names, once. */
export function instrumentsOf({ meters, drives }: Pick<Rig, 'meters' | 'drives'>): readonly string[] {
  const named = [...Object.values(meters), ...Object.values(drives ?? {})];
  return [...new Set(named.filter((id): id is string => typeof id === 'string'))];
}

/**
 * Tasks of some sheets. Within a sheet every step waits for the one before it; while a sample cools, its rig is free.
 * @param pins where somebody holds a step, s from the beginning, by the id of its task
 */
export function tasksOf(sheets: readonly DaySheet[], pins: Readonly<Record<string, number>> = {}): readonly Task[] {
  return sheets.flatMap(({ id, sampleId, name, steps, rig, begun, from = null, due = null, chamberId = null }) => {
    const kept = steps.filter(({ skip }) => skip === null);
    const needs = [rig.id, ...instrumentsOf(rig)];
    const soaking = chamberId === null ? needs : [...new Set([...needs, chamberId])];
    return kept.map((step, at): Task => {
      const own = `${id} ${step.id}`;
      const before = kept[at - 1];
      const ran = begun.find(({ stepId }) => stepId === step.id);
      return {
        id: own,
        title: `${name}: ${step.title}`,
        sampleId,
        seconds: ran ? Math.max(1, ran.to - ran.from) : stepSeconds(step),
        needs: IDLE_RIG.includes(step.kind) ? [] : step.kind === 'capture' && step.capture === 'soak' ? soaking : needs,
        from,
        due,
        attended: step.attended || step.by === 'keypad',
        after: before ? [{ id: `${id} ${before.id}`, gap: 0 }] : [],
        fixed: ran ? ran.from : (pins[own] ?? null),
      };
    });
  });
}

/**
 * What the sheets need, each once: their rigs, and the instruments on them, which may stand on several.
 * @param instruments what there is, with how long each may be used, s from the beginning; null for as long as it takes
 */
export function resourcesOf(
  sheets: readonly Pick<DaySheet, 'rig' | 'chamberId'>[],
  instruments: readonly { readonly id: string; readonly name: string; readonly until: number | null }[],
): readonly Resource[] {
  const rigs = new Map(sheets.map(({ rig }) => [rig.id, { id: rig.id, title: rig.name, until: null }]));
  const used = new Set(
    sheets.flatMap(({ rig, chamberId }) => [...instrumentsOf(rig), ...(chamberId ? [chamberId] : [])]),
  );
  return [
    ...rigs.values(),
    ...instruments.flatMap(({ id, name, until }) => (used.has(id) ? [{ id, title: name, until }] : [])),
  ];
}
