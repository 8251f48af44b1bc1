// Two read-outs side by side: what changed in the offer, and what changed around it.
import { describeOffer, type SourceObject, type VisibleKind } from '../pd/index.ts';
import { formatPlain } from '../quantity/index.ts';
import { offersOf } from './offers.ts';
import { infoOf } from './stated.ts';
import type { ReadOut, ReadOutConditions } from './types.ts';

export interface OfferPair {
  /** What the two have in common: kind and voltages. */
  readonly key: string;
  readonly a: SourceObject | null;
  readonly b: SourceObject | null;
  readonly same: boolean;
}

/** One of the five conditions an offer can change with. */
export type ConditionName = keyof ReadOutConditions;

export interface ConditionChange {
  readonly name: ConditionName;
  readonly a: string;
  readonly b: string;
}

export interface Comparison {
  readonly offers: readonly OfferPair[];
  readonly conditions: readonly ConditionChange[];
  /** Modes outside PD with another result. */
  readonly signals: readonly string[];
  /** Power the source states at present, W, where both were asked and it differs. */
  readonly present: { readonly a: number; readonly b: number } | null;
  readonly sameOffers: boolean;
  /** Nothing the source says differs: neither an offer nor the power present. */
  readonly same: boolean;
}

/** Kind and voltage: what makes two offers the same level with perhaps another current. */
function keyOf(object: SourceObject): string {
  if (object.kind === 'fixed') return `fixed ${object.volts}`;
  if (object.kind === 'spr-avs') return 'spr-avs';
  if (object.kind === 'pps' || object.kind === 'epr-avs') return `${object.kind} ${object.maxVolts}`;
  return 'minVolts' in object ? `${object.kind} ${object.minVolts} ${object.maxVolts}` : object.kind;
}

const WARMER = 5;
const LATER = 60;

/** Conditions in words, for showing and for telling two apart. */
export function conditionWords(conditions: ReadOutConditions): Readonly<Record<ConditionName, string>> {
  const { occupied, marker, askedWith, temperature, elapsed } = conditions;
  return {
    occupied: occupied.length === 0 ? 'alone' : `with ${[...occupied].sort().join(' + ')} in use`,
    marker: marker === 'none' ? 'no cable marker' : marker === 'captive' ? 'captive lead' : `${marker} marker`,
    askedWith: askedWith === null ? 'revision not noted' : `asked with R${askedWith}`,
    temperature: temperature === null ? 'temperature not noted' : formatPlain(temperature, 'temperature'),
    elapsed:
      elapsed === null ? 'time not noted' : `after ${formatPlain(elapsed, 'duration', elapsed < 120 ? 's' : 'min')}`,
  };
}

/** Whether a condition differs enough to explain a change; a missing note explains nothing. */
function differs(name: ConditionName, a: ReadOutConditions, b: ReadOutConditions): boolean {
  const apart = (x: number | null, y: number | null, least: number) =>
    x !== null && y !== null && Math.abs(x - y) >= least;
  if (name === 'temperature') return apart(a.temperature, b.temperature, WARMER);
  if (name === 'elapsed') return apart(a.elapsed, b.elapsed, LATER);
  return conditionWords(a)[name] !== conditionWords(b)[name];
}

const NAMES: readonly ConditionName[] = ['occupied', 'marker', 'askedWith', 'temperature', 'elapsed'];

/**
 * Compare two read-outs; `a` is the one looked at first.
 * @param hidden kinds of offer one of the two analysers cannot see: they say nothing about a change
 */
export function compareReadOuts(a: ReadOut, b: ReadOut, hidden: readonly VisibleKind[] = []): Comparison {
  const seen = (readOut: ReadOut) =>
    offersOf(readOut).flatMap(({ object }) => (hidden.some((kind) => kind === object.kind) ? [] : [object]));
  const left = seen(a);
  const right = seen(b);
  const keys = [...new Set([...left, ...right].map(keyOf))];
  const offers = keys.map((key): OfferPair => {
    const own = left.find((object) => keyOf(object) === key) ?? null;
    const other = right.find((object) => keyOf(object) === key) ?? null;
    return {
      key,
      a: own,
      b: other,
      same: own !== null && other !== null && describeOffer(own) === describeOffer(other),
    };
  });
  const sameOffers = offers.every(({ same }) => same);
  const [infoA, infoB] = [infoOf(a), infoOf(b)];
  const present = infoA && infoB && infoA.present !== infoB.present ? { a: infoA.present, b: infoB.present } : null;
  const wordsA = conditionWords(a);
  const wordsB = conditionWords(b);
  return {
    offers,
    conditions: NAMES.filter((name) => differs(name, a, b)).map((name) => ({ name, a: wordsA[name], b: wordsB[name] })),
    signals: a.signals.flatMap(({ mode, result }) => {
      const other = b.signals.find((one) => one.mode === mode)?.result;
      const both = other !== undefined && other !== 'cannot see' && result !== 'cannot see';
      return both && other !== result ? [mode] : [];
    }),
    present,
    sameOffers,
    same: sameOffers && present === null,
  };
}

/** How one port's offers stand beside those of the port it should be like. */
export function unlikeWords({ offers }: Comparison): string {
  return offers
    .filter(({ same }) => !same)
    .map(({ a, b }) => {
      if (a && b) return `${describeOffer(b)} instead of ${describeOffer(a)}`;
      return a ? `no ${describeOffer(a)}` : b ? `${describeOffer(b)} besides` : '';
    })
    .slice(0, 4)
    .join(', ');
}

/** What changed, in a few words: `20 V 3.25 A → 15 V 3 A`, up to a few levels. */
export function changeWords({ offers, present }: Comparison): string {
  const changes = offers
    .filter(({ same }) => !same)
    .map(({ a, b }) => {
      if (a && b) return `${describeOffer(a)} becomes ${describeOffer(b)}`;
      return a ? `${describeOffer(a)} is gone` : b ? `${describeOffer(b)} is new` : '';
    })
    .slice(0, 4);
  return [...changes, ...(present ? [`${present.a} W at present becomes ${present.b} W`] : [])].join(', ');
}
