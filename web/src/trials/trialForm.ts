// A trial as it is typed, and its way to what is kept.
import { type QuantityId, quantityOf } from '@lastmark/core/quantity';
import { repeatsNeeded } from '@lastmark/core/repeats';
import type { Arm, Trial } from '@lastmark/core/trial';
import { typedMinutes, typedSi } from '../parts/fields.tsx';

export interface ArmText {
  readonly name: string;
  readonly sampleId: string | null;
}

export interface TrialForm {
  readonly kind: Trial['kind'];
  readonly question: string;
  readonly measure: string;
  readonly quantity: QuantityId;
  readonly better: 'lower' | 'higher' | '';
  /** What is changed: of a table the first, the second and perhaps a third. */
  readonly factors: readonly { readonly name: string; readonly arms: readonly ArmText[] }[];
  /** A line each: "port: C1". */
  readonly held: string;
  readonly matters: string;
  readonly expected: string;
  readonly blocks: string;
  readonly blind: 'no' | 'yes';
}

const NO_ARM: ArmText = { name: '', sampleId: null };

export const EMPTY_TRIAL: TrialForm = {
  kind: 'blocks',
  question: '',
  measure: 'time to 50 %',
  quantity: 'duration',
  better: 'lower',
  factors: [{ name: 'cable', arms: [NO_ARM, NO_ARM] }],
  held: 'port: C1\nmains: 230 V 50 Hz\nstart level: 20 %\nroom: 23 °C',
  matters: '',
  expected: '',
  blocks: '10',
  blind: 'no',
};

/** Held conditions, a line each: a name, a colon, and what it is kept at. */
export function heldIn(text: string): readonly { name: string; value: string }[] | { readonly reason: string } {
  const lines = text.split(/\r?\n/).filter((line) => line.trim() !== '');
  const bad = lines.find((line) => !/^\s*[^:]+:\s*\S/.test(line));
  if (bad !== undefined)
    return { reason: `“${bad.trim()}”: write a name, a colon and what it is kept at, such as port: C1.` };
  return lines.map((line) => {
    const at = line.indexOf(':');
    return { name: line.slice(0, at).trim(), value: line.slice(at + 1).trim() };
  });
}

/** A value of what is measured, as people type it: a time without a unit is minutes. */
export const valueTyped = (text: string, quantity: QuantityId): number | null =>
  quantity === 'duration' ? typedMinutes(text) : typedSi(text, quantity);

/** How many pairs tell what matters; null where that is not known, or would take more than 200. */
export function pairsNeeded({
  matters,
  expected,
  quantity,
}: Pick<TrialForm, 'matters' | 'expected' | 'quantity'>): number | null {
  const [difference, spread] = [valueTyped(matters, quantity), valueTyped(expected, quantity)];
  return difference === null || spread === null ? null : repeatsNeeded(difference, spread, 'pairs');
}

const armsOf = (arms: readonly ArmText[]): Arm[] =>
  arms.filter(({ name }) => name.trim() !== '').map(({ name, sampleId }) => ({ name: name.trim(), sampleId }));

/** The trial, or why it cannot be planned yet. @param seed shuffles its order */
export function trialOf(form: TrialForm, seed: number): Trial | { readonly reason: string } {
  const held = heldIn(form.held);
  if ('reason' in held) return held;
  const blocks = Number(form.blocks);
  const factors = form.factors.map(({ name, arms }) => ({ name: name.trim(), levels: armsOf(arms) }));
  if (form.question.trim() === '') return { reason: 'Write the question it is to answer.' };
  if (form.measure.trim() === '') return { reason: 'Write what is measured.' };
  if (!Number.isInteger(blocks) || blocks < 1) return { reason: 'Write how often everything is run.' };
  const few = factors.find(({ levels, name }) => levels.length < 2 || name === '');
  if (few) return { reason: `Name what is changed, and two of it or more${few.name ? ` (${few.name})` : ''}.` };
  const head = {
    question: form.question.trim(),
    measure: { name: form.measure.trim(), quantity: form.quantity, better: form.better === '' ? null : form.better },
    held: [...held],
    blocks,
    seed,
  };
  if (form.kind === 'matrix') return { kind: 'matrix', ...head, factors };
  const [first] = factors;
  const [matters, expected] = [valueTyped(form.matters, form.quantity), valueTyped(form.expected, form.quantity)];
  if (Number.isNaN(matters) || Number.isNaN(expected))
    return { reason: 'The difference that matters, or the spread, cannot be read.' };
  return {
    kind: 'blocks',
    ...head,
    factor: first?.name ?? '',
    arms: first?.levels ?? [],
    matters,
    expected,
    blind: form.blind === 'yes',
  };
}

/** "time to 50 %, min" */
export const measureWords = ({ name, quantity }: Trial['measure']): string => {
  const { usual } = quantityOf(quantity);
  return usual ? `${name}, ${usual}` : name;
};

/** Letters of a blind trial. */
export const LETTERS = 'ABCDEFGH';

/** What each arm may be called now: its name, or a letter as long as nobody may know. */
export function namesOf(trial: Trial, letters: readonly number[] | null): readonly string[] {
  if (trial.kind !== 'blocks') return [];
  return trial.arms.map((_, at) =>
    letters === null ? (LETTERS[at] ?? String(at + 1)) : (trial.arms[letters[at] ?? at]?.name ?? ''),
  );
}

/** What is to be run in a slot, in words. */
export function slotWords(trial: Trial, cell: readonly number[], letters: readonly number[] | null): string {
  if (trial.kind === 'blocks') return namesOf(trial, letters)[cell[0] ?? 0] ?? '';
  return trial.factors.map(({ name, levels }, at) => `${name} ${levels[cell[at] ?? 0]?.name ?? ''}`).join(', ');
}
