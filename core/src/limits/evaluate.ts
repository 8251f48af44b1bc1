// Evaluates limit sets at a nameplate power and judges results against them.
import {
  type Decision,
  type DecisionRule,
  decide,
  decideWithin,
  type Interval,
  intervalOf,
  type Limit,
} from '../decision/index.ts';
import { formatMeasured, formatPlain } from '../quantity/index.ts';
import { type Mains, mainsLabel, mainsMatches, type Output } from '../reading/index.ts';
import { expandedUncertainty, type Measured, requireFinite } from '../uncertainty/index.ts';
import type { DerivedClass } from './class.ts';
import type { LimitedQuantity, LimitSet, NameplateClass } from './types.ts';

/**
 * The limit of a set at nameplate power P.
 * @param watts nameplate output power, W
 * @returns efficiency as a ratio or power in W; null when the set does not cover this quantity, class or power
 * @throws RangeError for a power that is not finite or not above zero
 */
export function limitAt(
  set: Pick<LimitSet, 'formulas'>,
  quantity: LimitedQuantity,
  nameplateClass: NameplateClass,
  watts: number,
): number | null {
  requireFinite('nameplate power', watts);
  if (watts <= 0) throw new RangeError('Nameplate power is above zero.');
  const found = set.formulas.find((f) => f.quantity === quantity && f.nameplateClass === nameplateClass);
  const piece = found?.pieces.find(
    ({ upTo, inclusive }) => upTo === null || watts < upTo || (inclusive && watts === upTo),
  );
  return piece ? piece.constant + piece.perWatt * watts + piece.perLog * Math.log(watts) : null;
}

/** One result held against one limit of one set. */
export interface LimitLine {
  readonly setId: string;
  readonly title: string;
  readonly quantity: LimitedQuantity;
  readonly mains: Mains;
  readonly limit: Limit;
  readonly result: Measured;
  /** The result in words, and the truth as far as it is known, SI. */
  readonly words: string;
  readonly known: Interval;
  /** Only an interval is known, no value in it. */
  readonly bounded: boolean;
  readonly decision: Decision;
  /** A verdict when nothing stands against it, otherwise indicative. */
  readonly standing: 'verdict' | 'indicative';
  /** What stands against a verdict, a sentence each: what the set asks otherwise, then how it was taken. */
  readonly reasons: readonly string[];
  /** Those of them this set alone is behind. */
  readonly bySet: readonly string[];
}

/** What a result is judged by: the class and power of what was loaded. */
export interface JudgedAs {
  readonly class: DerivedClass;
  readonly nameplateClass: NameplateClass;
  /** Nameplate output power, W. */
  readonly watts: number;
  /** The only output of the loading; null for none or several together. */
  readonly only: Output | null;
}

/** A result with how it was come by. */
export interface JudgedResult {
  readonly mains: Mains;
  readonly result: Measured;
  /** What is known where it is not result ± U: the interval, and its words. */
  readonly bound?: { readonly known: Interval; readonly words: string } | null;
  /** Day of the newest reading behind it, ISO. */
  readonly day: string;
  /** What deviates from a procedure, by its id. */
  readonly deviations: (procedureId: string) => readonly string[];
}

/** What the day says: a set speaks a verdict only while it is in force. */
function inForceSays({ validFrom, validTo }: LimitSet, day: string): string[] {
  if (day < validFrom) return [`In force from ${validFrom}; measured ${day}.`];
  return validTo !== null && day > validTo ? [`In force until ${validTo}; measured ${day}.`] : [];
}

/** What an adaptive supply's loading lacks under a set: such supplies are judged at their lowest and highest level. */
function levelSays({ adaptiveLow }: LimitSet, { class: derived, only }: JudgedAs): string[] {
  if (!derived.adaptive || !only) return [];
  if (derived.level === 'between') return ['An adaptive supply is judged at its lowest and highest level.'];
  if (derived.level !== 'lowest') return [];
  const asked =
    adaptiveLow && Math.abs(adaptiveLow.volts - only.volts) < 0.01 ? adaptiveLow.amps : derived.nameplateAmps;
  return asked !== null && Math.abs(asked - only.amps) > 0.01 * asked
    ? [
        `At ${formatPlain(only.volts, 'voltage')} 100 % is ${formatPlain(asked, 'current')} here; loaded with ${formatPlain(only.amps, 'current')}.`,
      ]
    : [];
}

/**
 * Hold one result against every set that covers it.
 * At the set's own mains, by its procedure and while it is in force, it is a verdict (for one sample, never
 * compliance); else it is indicative, with every reason.
 */
export function judgeAgainstSets(
  sets: readonly LimitSet[],
  quantity: LimitedQuantity,
  as: JudgedAs,
  { mains, result, bound = null, day, deviations }: JudgedResult,
  rule: DecisionRule,
): readonly LimitLine[] {
  return sets.flatMap((set) => {
    // What is fed from a vehicle is another product than what is plugged into the mains.
    if (set.mains.kind !== mains.kind) return [];
    const at = limitAt(set, quantity, as.nameplateClass, as.watts);
    if (at === null) return [];
    const limit: Limit = quantity === 'no-load-power' ? { kind: 'at-most', high: at } : { kind: 'at-least', low: at };
    const bySet = [
      ...(mainsMatches(mains, set.mains)
        ? []
        : [`Taken at ${mainsLabel(mains)}; the set asks for ${mainsLabel(set.mains)}.`]),
      ...inForceSays(set, day),
      ...(quantity === 'no-load-power' ? [] : levelSays(set, as)),
    ];
    const reasons = [...bySet, ...deviations(set.procedureId)];
    return [
      {
        setId: set.id,
        title: set.title,
        quantity,
        mains,
        limit,
        result,
        words:
          bound?.words ??
          formatMeasured(
            result.value,
            expandedUncertainty(result),
            quantity === 'no-load-power' ? 'power' : 'efficiency',
          ),
        known: bound?.known ?? intervalOf(result),
        bounded: bound !== null,
        decision: bound ? decideWithin(bound.known, limit) : decide(result, limit, rule),
        standing: reasons.length === 0 ? 'verdict' : 'indicative',
        reasons,
        bySet,
      } satisfies LimitLine,
    ];
  });
}

/** The sets a bench judges by. */
export const chosenSets = ({
  limitSets,
  profile,
}: {
  readonly limitSets: readonly LimitSet[];
  readonly profile: { readonly limitSetIds: readonly string[] };
}): readonly LimitSet[] => limitSets.filter(({ id }) => profile.limitSetIds.includes(id));
