// What is typed for a check, and the check it makes.

import { formatPlain, type QuantityId } from '@lastmark/core/quantity';
import { type Mains, mainsLabel, suppliesFor } from '@lastmark/core/reading';
import type {
  CheckKind,
  CurrentForm,
  EarthJoin,
  FitCheck,
  Measurer,
  Network,
  SafetyCheck,
  TouchCheck,
} from '@lastmark/core/safety';
import type { AccuracySpec } from '@lastmark/core/uncertainty';
import { parseAccuracy } from '@lastmark/core/uncertainty';
import { typedSi } from '../../parts/fields.tsx';

export interface CheckForm {
  readonly person: string;
  readonly standing: Measurer['standing'] | '';
  readonly instrumentId: string;
  /** Accuracy as printed; empty for what is stated at Bench, or nowhere. */
  readonly accuracy: string;
  readonly amps: string;
  readonly form: CurrentForm;
  readonly network: Network;
  readonly mains: string;
  readonly polarity: TouchCheck['polarity'];
  readonly earth: EarthJoin;
  readonly from: string;
  readonly loaded: 'rated load' | 'no load';
  readonly ohms: string;
  readonly testAmps: string;
  readonly to: string;
  readonly port: string;
  readonly range: 'within the range' | 'over the range';
  readonly hold: FitCheck['hold'];
  readonly reach: string;
  readonly mark: string;
  readonly printed: string;
  readonly ambient: string;
  readonly note: string;
  readonly taken: string;
}

/** Unit of what is typed without one, by kind. */
export const USUAL: Readonly<Record<'amps' | 'earth' | 'bond', string>> = { amps: 'µA', earth: 'mΩ', bond: 'MΩ' };

/** What an accuracy of a kind is of. */
export const accuracyOf = (kind: CheckKind): QuantityId => (kind === 'touch' ? 'current' : 'resistance');

const lead: Readonly<Record<string, string>> = { current: 'µA', resistance: 'mΩ' };

/** An accuracy as printed; null where none is typed, a sentence where it cannot be read. */
export function typedAccuracy(text: string, kind: CheckKind): AccuracySpec | null | string {
  if (text.trim() === '') return null;
  const read = parseAccuracy(text, accuracyOf(kind));
  return read.ok ? read.spec : read.reason;
}

export const accuracyExample = (kind: CheckKind): string => `±(2 % + 3 ${lead[accuracyOf(kind)] ?? ''})`;

/** Touch current is highest at the highest supply: what its label goes to, and a tenth more. */
const HIGHEST: readonly Mains[] = [
  { kind: 'ac', volts: 240, hertz: 50 },
  { kind: 'ac', volts: 264, hertz: 50 },
];

/** Supplies a touch current may be read at. */
export function touchSupplies(kind: 'wall' | 'desktop' | 'car' | 'cable', chosen: readonly Mains[]): readonly Mains[] {
  const usual = suppliesFor(kind, chosen);
  return [...usual, ...HIGHEST.filter((one) => !usual.some((other) => mainsLabel(other) === mainsLabel(one)))];
}

type Head = 'id' | 'takenAt' | 'supersedes' | 'withdrawn';
/** A check without what every check has. */
export type CheckFields = SafetyCheck extends infer One ? (One extends SafetyCheck ? Omit<One, Head> : never) : never;

/** The form of a check that is corrected, or of a new one with what was the same last time. */
export function formOf(
  kind: CheckKind,
  check: SafetyCheck | null,
  last: readonly SafetyCheck[],
  start: { readonly earthed: boolean; readonly mains: readonly Mains[]; readonly ports: readonly string[] },
): CheckForm {
  const like = check ?? last.findLast((one) => one.kind === kind) ?? null;
  const metered = last.findLast((one) => 'by' in one);
  const by = check && 'by' in check ? check.by : metered && 'by' in metered ? metered.by : null;
  const touch = like?.kind === 'touch' ? like : null;
  const own = <K extends CheckKind>(of: K) =>
    check?.kind === of ? (check as Extract<SafetyCheck, { kind: K }>) : null;
  const typed = (si: number | null | undefined, of: QuantityId, unit?: string) =>
    si == null ? '' : formatPlain(si, of, unit);
  const bond = own('bond');
  return {
    person: by?.person ?? '',
    standing: by?.standing ?? '',
    instrumentId: like && 'instrumentId' in like ? (like.instrumentId ?? '') : '',
    accuracy: '',
    amps: typed(own('touch')?.amps, 'current', 'µA'),
    form: touch?.form ?? 'rms',
    network: touch?.network ?? 'perception',
    mains: touch ? mainsLabel(touch.mains) : mainsLabel(start.mains.at(-1) ?? { kind: 'ac', volts: 230, hertz: 50 }),
    polarity: touch?.polarity ?? 'as plugged in',
    earth: touch?.earth ?? (start.earthed ? 'joined' : 'none'),
    from: touch?.from ?? `shell of ${start.ports[0] ?? 'the port'}`,
    loaded: touch?.loaded ? 'rated load' : 'no load',
    ohms: typed(own('earth')?.ohms, 'resistance') || typed(bond?.ohms, 'resistance', 'MΩ'),
    testAmps: typed(like?.kind === 'earth' ? like.testAmps : null, 'current'),
    to: like?.kind === 'earth' ? like.to : '',
    port: like?.kind === 'bond' ? like.port : (start.ports[0] ?? ''),
    range: bond?.overRange ? 'over the range' : 'within the range',
    hold: own('fit')?.hold ?? 'firm',
    reach: typed(own('fit')?.reach, 'length'),
    mark: own('mark')?.mark ?? '',
    printed: own('mark')?.printed ?? 'label',
    ambient: typed(own('mark')?.ambient, 'temperature'),
    note: check?.note ?? '',
    taken: '',
  };
}

/** Whether who measures is named: before, no value near mains can be entered. */
export const isNamed = ({ person, standing }: Pick<CheckForm, 'person' | 'standing'>): boolean =>
  person.trim() !== '' && standing !== '';

const given = (si: number | null): si is number => si !== null && Number.isFinite(si);

/** What the form says, where all of it is there and can be read; else null. */
export function fieldsOf(
  kind: CheckKind,
  form: CheckForm,
  mains: readonly Mains[],
  before: SafetyCheck | null,
): CheckFields | null {
  const note = form.note.trim();
  if (kind === 'fit') {
    const reach = typedSi(form.reach, 'length');
    return Number.isNaN(reach) ? null : { kind, note, hold: form.hold, reach };
  }
  if (kind === 'mark') {
    const ambient = typedSi(form.ambient, 'temperature');
    const [mark, printed] = [form.mark.trim(), form.printed.trim()];
    return mark === '' || printed === '' || Number.isNaN(ambient) ? null : { kind, note, mark, printed, ambient };
  }
  const read = typedAccuracy(form.accuracy, kind);
  if (!isNamed(form) || form.standing === '' || typeof read === 'string') return null;
  // Empty leaves what was stated before, as long as the meter is the same.
  const same = before && 'accuracy' in before && (before.instrumentId ?? '') === form.instrumentId;
  const metered = {
    note,
    by: { person: form.person.trim(), standing: form.standing },
    instrumentId: form.instrumentId === '' ? null : form.instrumentId,
    accuracy: read ?? (same ? before.accuracy : null),
  };
  if (kind === 'touch') {
    const amps = typedSi(form.amps, 'current', USUAL.amps);
    const supply = mains.find((one) => mainsLabel(one) === form.mains);
    const from = form.from.trim();
    if (!given(amps) || !supply || from === '') return null;
    const { form: how, network, polarity, earth } = form;
    return {
      kind,
      ...metered,
      amps,
      form: how,
      network,
      mains: supply,
      polarity,
      earth,
      from,
      loaded: form.loaded === 'rated load',
    };
  }
  const ohms = typedSi(form.ohms, 'resistance', USUAL[kind]);
  if (!given(ohms)) return null;
  if (kind === 'bond') return { kind, ...metered, port: form.port, ohms, overRange: form.range === 'over the range' };
  const testAmps = typedSi(form.testAmps, 'current');
  const to = form.to.trim();
  return given(testAmps) && to !== '' ? { kind, ...metered, ohms, testAmps, to } : null;
}
