// What may be written of methods. Values are SI.
import { CAPTURE_KINDS } from '@lastmark/core/capture';
import { CONDITION_KINDS, type ConditionKind } from '@lastmark/core/plan';
import { ATTACHED } from '@lastmark/core/reading';
import { boolean } from 'yup';
import { list, mains, oneOf, optionalText, record, si, text, union, whole } from './parts.ts';

const DAY = 86_400;
const seconds = () => si(0, DAY).required();
const yes = () => boolean().strict().defined();

const settle = record({
  fraction: si(0.0001, 0.5).required(),
  over: si(1, 3600).required(),
  average: si(1, DAY).required(),
});

const CONDITIONS: Readonly<Record<ConditionKind, ReturnType<typeof record>>> = {
  repeat: record({ kind: oneOf(['repeat']), within: si(0.000001, 0.9).required(), most: whole(2, 50).required() }),
  unsettled: record({ kind: oneOf(['unsettled']), longest: si(1, 14_400).required() }),
  folded: record({ kind: oneOf(['folded']), share: si(0.01, 0.999).required() }),
  dropped: record({ kind: oneOf(['dropped']) }),
  gone: record({ kind: oneOf(['gone']) }),
};

/** What a run does by itself; left out for nothing. */
export const conditions = () =>
  list(union(CONDITIONS), CONDITION_KINDS.length)
    .test('own-kinds', 'A condition stands twice', (all) => {
      const kinds = (all as { kind?: string }[] | undefined)?.map((one) => one?.kind) ?? [];
      return new Set(kinds).size === kinds.length;
    })
    .optional();

const method = record({
  title: text(80),
  says: optionalText(600),
  kinds: list(oneOf(['wall', 'desktop', 'car', 'cable']), 4).min(1, 'Say what kinds of samples it is for'),
  by: oneOf(['instruments', 'keypad']),
  mains: list(mains(), 12).min(1, 'Say at which mains'),
  loads: list(si(0.001, 1).required(), 40),
  levels: oneOf(['lowest and highest', 'every fixed level']),
  warmUp: seconds(),
  settle: settle.nullable().defined(),
  idle: seconds(),
  idleAttached: list(oneOf(ATTACHED), ATTACHED.length),
  idleWhen: oneOf(['from cold', 'after the points']),
  readOut: yes(),
  proof: yes(),
  splits: yes(),
  soak: seconds(),
  hold: seconds(),
  sweep: list(mains(), 24),
  captures: list(oneOf(CAPTURE_KINDS), CAPTURE_KINDS.length),
  devices: yes(),
  charges: yes(),
  conditions: conditions(),
  hottest: si(273.15, 423.15).nullable().optional(),
  watch: oneOf(['as the steps ask', 'all the time']).optional(),
  line: record({ pluggings: whole(1, 50).required(), bends: yes() })
    .nullable()
    .defined(),
});

/** A method of a bench's own, with what changed since its last version. */
export const methodInput = record({ method, note: optionalText(400) });
