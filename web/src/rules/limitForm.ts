// A limit set while it is typed: texts in, a set out, with what cannot be read said by name.
import type { LimitSetInput } from '@lastmark/contract/types';
import { type LimitFormula, type LimitSet, QUANTITY_WORDS } from '@lastmark/core/limits';
import { digitStep, parseDecimal } from '@lastmark/core/quantity';

export interface PieceText {
  readonly upTo: string;
  readonly inclusive: boolean;
  readonly perLog: string;
  readonly perWatt: string;
  readonly constant: string;
}

export interface FormulaText {
  readonly quantity: LimitFormula['quantity'];
  readonly nameplateClass: LimitFormula['nameplateClass'];
  readonly pieces: readonly PieceText[];
  /** Worked values of the text, "watts = value" a line. */
  readonly worked: string;
}

export interface SetText {
  readonly title: string;
  readonly jurisdiction: string;
  readonly source: string;
  readonly checked: string;
  readonly validFrom: string;
  readonly validTo: string;
  readonly note: string;
  readonly mains: LimitSet['mains'];
  readonly procedureId: string;
  readonly lowAmps: string;
  readonly formulas: readonly FormulaText[];
}

export const EMPTY_PIECE: PieceText = { upTo: '', inclusive: true, perLog: '', perWatt: '', constant: '' };

const text = (value: number): string => (value === 0 ? '' : String(value));

/** A stored set as texts, to copy or change it. */
export function toText(set: LimitSet): SetText {
  return {
    title: set.title,
    jurisdiction: set.jurisdiction,
    source: set.source,
    checked: set.checked,
    validFrom: set.validFrom,
    validTo: set.validTo ?? '',
    note: set.note,
    mains: set.mains,
    procedureId: set.procedureId,
    lowAmps: set.adaptiveLow ? String(set.adaptiveLow.amps) : '',
    formulas: set.formulas.map(({ quantity, nameplateClass, pieces }) => ({
      quantity,
      nameplateClass,
      pieces: pieces.map(({ upTo, inclusive, constant, perWatt, perLog }) => ({
        upTo: upTo === null ? '' : String(upTo),
        inclusive,
        perLog: text(perLog),
        perWatt: text(perWatt),
        constant: text(constant),
      })),
      worked: set.tests
        .filter((test) => test.quantity === quantity && test.nameplateClass === nameplateClass)
        .map(
          ({ watts, value, within }) => `${watts} = ${value.toFixed(Math.max(0, Math.round(-Math.log10(within * 2))))}`,
        )
        .join('\n'),
    })),
  };
}

export type Read =
  | { readonly ok: true; readonly set: LimitSetInput }
  | { readonly ok: false; readonly problems: readonly string[] };

/** The set behind the texts, or everything that cannot be read. */
export function fromText(form: SetText): Read {
  const problems: string[] = [];
  const number = (typed: string, where: string, whenEmpty = 0): number => {
    if (typed.trim() === '') return whenEmpty;
    const value = parseDecimal(typed);
    if (value === null || !Number.isFinite(value)) {
      problems.push(`${where}: "${typed}" is not a number.`);
      return 0;
    }
    return value;
  };
  const tests: LimitSet['tests'][number][] = [];
  const formulas = form.formulas.map(({ quantity, nameplateClass, pieces, worked }): LimitFormula => {
    const name = `${QUANTITY_WORDS[quantity]}, ${nameplateClass}`;
    for (const line of worked
      .split('\n')
      .map((one) => one.trim())
      .filter(Boolean)) {
      const [watts, value, ...more] = line.split('=').map((one) => one.trim());
      if (!watts || !value || more.length > 0) {
        problems.push(`${name}: write a worked value as "watts = value", such as 10 = 0.81948; "${line}" is not.`);
        continue;
      }
      const where = `${name}, worked value "${line}"`;
      // Half a unit of the last digit written: a pure number, as a power factor is.
      tests.push({
        quantity,
        nameplateClass,
        watts: number(watts, where),
        value: number(value, where),
        within: digitStep(value, 'power-factor') / 2,
      });
    }
    return {
      quantity,
      nameplateClass,
      pieces: pieces.map((piece, index) => {
        const where = `${name}, piece ${index + 1}`;
        return {
          upTo: piece.upTo.trim() === '' ? null : number(piece.upTo, where),
          inclusive: piece.inclusive,
          constant: number(piece.constant, where),
          perWatt: number(piece.perWatt, where),
          perLog: number(piece.perLog, where),
        };
      }),
    };
  });
  const amps = number(form.lowAmps, 'Current at 5 V', Number.NaN);
  if (form.title.trim() === '') problems.push('Give the set a title.');
  if (form.source.trim() === '') problems.push('Say which text it comes from.');
  for (const [name, day] of [
    ['Checked', form.checked],
    ['In force from', form.validFrom],
  ] as const)
    if (!/^\d{4}-\d{2}-\d{2}$/.test(day)) problems.push(`${name}: give a date such as 2028-12-31.`);
  if (problems.length > 0) return { ok: false, problems };
  return {
    ok: true,
    set: {
      title: form.title.trim(),
      jurisdiction: form.jurisdiction.trim(),
      source: form.source.trim(),
      checked: form.checked,
      validFrom: form.validFrom,
      validTo: form.validTo.trim() === '' ? null : form.validTo,
      note: form.note.trim(),
      mains: form.mains,
      procedureId: form.procedureId,
      adaptiveLow: Number.isNaN(amps) ? null : { volts: 5, amps },
      formulas,
      tests,
    },
  };
}
