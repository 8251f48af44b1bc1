// Everything a sample's read-outs give to know: by themselves, against the label, against each other.

import {
  checkOffers,
  checkPowerRules,
  decodeIdentity,
  describeOffer,
  type Finding,
  type Sees,
  VISIBLE_KINDS,
  type VisibleKind,
  wordOf,
} from '../pd/index.ts';
import type { Claim } from '../promise/index.ts';
import { formatPlain } from '../quantity/index.ts';
import { changeWords, compareReadOuts, conditionWords, unlikeWords } from './compare.ts';
import { markerIn } from './marker.ts';
import { bestReadOut, currentReadOuts, fiveAmpCable, offersOf } from './offers.ts';
import { judgedWatts, statedFindings } from './stated.ts';
import type { ReadOut } from './types.ts';

/** A finding with where it belongs. */
export interface PortFinding extends Finding {
  readonly port: string;
  /** Read-outs it follows from. */
  readonly readOutIds: readonly string[];
}

export interface ReadOutContext {
  readonly ports: readonly { readonly label: string; readonly twin: string | null }[];
  readonly claims: readonly Pick<Claim, 'promise'>[];
  /** What an analyser can see, by its id; an unknown one is taken to see everything. */
  readonly seesOf: (instrumentId: string) => Sees | null;
}

/** Kinds of offer an analyser cannot show. */
export const invisibleTo = (sees: Sees | null): readonly VisibleKind[] =>
  sees ? VISIBLE_KINDS.filter((kind) => !sees.supplies.includes(kind)) : [];

/** Kinds at least one of two read-outs could not have shown. */
export const hiddenFrom = (a: ReadOut, b: ReadOut, seesOf: ReadOutContext['seesOf']): readonly VisibleKind[] => [
  ...new Set([a, b].flatMap(({ instrumentId }) => invisibleTo(seesOf(instrumentId)))),
];

/** Power a port claims: its largest promised line, W. Null when the label says nothing of it alone. */
export function claimedWatts(claims: ReadOutContext['claims'], port: string): number | null {
  const lines = claims.flatMap(({ promise }) =>
    promise.kind === 'port-line' && promise.port === port ? [promise.volts * promise.amps] : [],
  );
  return lines.length > 0 ? Math.max(...lines) : null;
}

function ownFindings(readOut: ReadOut, context: ReadOutContext): Finding[] {
  const words = readOut.words.map(wordOf);
  const objects = offersOf(readOut).map(({ object }) => object);
  const claimed = claimedWatts(context.claims, readOut.port);
  const watts = judgedWatts(readOut, claimed);
  const rules =
    objects.length > 0 && watts > 0
      ? checkPowerRules(objects, {
          watts: Number(watts.toFixed(2)),
          declared: readOut.declared,
          fiveAmpCable: fiveAmpCable(readOut),
          epr: readOut.epr,
          invisible: invisibleTo(context.seesOf(readOut.instrumentId)),
        })
      : [];
  const cable = readOut.cableWords.length > 0 ? decodeIdentity(readOut.cableWords.map(wordOf)).findings : [];
  const unreachable = offersOf(readOut).flatMap(({ object, position, unreachable: reason }): Finding[] =>
    reason
      ? [
          {
            kind: 'unreachable',
            grade: 'fault',
            sentence: `${describeOffer(object)} is advertised but unreachable: ${reason}`,
            positions: [position],
          },
        ]
      : [],
  );
  return [
    ...checkOffers(words, readOut.epr),
    ...rules,
    ...statedFindings(readOut, claimed),
    ...unreachable,
    ...markerNoted(readOut),
    ...cable,
  ];
}

/** A marker noted as another than its own reply tells: what follows from it is doubtful. */
function markerNoted({ marker, cableWords }: ReadOut): Finding[] {
  const told = markerIn(cableWords);
  return told === 'none' || marker === 'captive' || marker === told
    ? []
    : [
        {
          kind: 'marker-noted',
          grade: 'note',
          sentence: `The cable marker is noted as ${marker}; its reply says ${told}. Correct the read-out.`,
          positions: [],
        },
      ];
}

function labelFindings(readOut: ReadOut, { claims }: ReadOutContext): Finding[] {
  const lines = claims.flatMap(({ promise }) =>
    promise.kind === 'port-line' && promise.port === readOut.port ? [promise] : [],
  );
  if (lines.length === 0 || readOut.words.length === 0) return [];
  const fixed = offersOf(readOut).flatMap(({ object, position }) =>
    object.kind === 'fixed' ? [{ object, position }] : [],
  );
  const near = (a: number, b: number) => Math.abs(a - b) < 0.01 * b;
  const lacking = lines.flatMap(({ volts, amps }): Finding[] => {
    const own = fixed.filter(({ object }) => near(object.volts, volts));
    const best = Math.max(0, ...own.map(({ object }) => object.amps));
    const line = `${formatPlain(volts, 'voltage')} ${formatPlain(amps, 'current')}`;
    if (own.length === 0)
      return [
        {
          kind: 'label-lacks',
          grade: 'fault',
          sentence: `The label promises ${line}; the read-out has no such level.`,
          positions: [],
        },
      ];
    if (best < amps - 0.02 && !(amps > 3 && !fiveAmpCable(readOut)))
      return [
        {
          kind: 'label-less',
          grade: 'fault',
          sentence: `The label promises ${line}; ${formatPlain(best, 'current')} is offered.`,
          positions: own.map(({ position }) => position),
        },
      ];
    return [];
  });
  const extra = fixed.filter(({ object }) => !lines.some(({ volts }) => near(object.volts, volts)));
  const unprinted: Finding = {
    kind: 'not-on-label',
    grade: 'note',
    sentence: `Offered and not on the label: ${extra.map(({ object }) => describeOffer(object)).join(', ')}.`,
    positions: extra.map(({ position }) => position),
  };
  return extra.length > 0 ? [...lacking, unprinted] : lacking;
}

/** Changes of one port's offer between two read-outs, with what they can be put down to. */
function changeFindings(own: readonly ReadOut[], { seesOf }: ReadOutContext): PortFinding[] {
  const found: PortFinding[] = [];
  own.forEach((a, index) => {
    for (const b of own.slice(index + 1)) {
      const comparison = compareReadOuts(a, b, hiddenFrom(a, b, seesOf));
      if (comparison.same || a.words.length === 0 || b.words.length === 0) continue;
      const [only, ...others] = comparison.conditions;
      // Pairs that differ in several ways teach nothing that single changes do not.
      if (others.length > 0) continue;
      const sentence = only
        ? `${only.a} → ${only.b}: ${changeWords(comparison)}.`
        : `Under the same noted conditions: ${changeWords(comparison)}. It changes by itself, or a condition was not noted.`;
      found.push({
        kind: only ? `changes-${only.name}` : 'changes-unexplained',
        grade: 'note',
        sentence,
        positions: [],
        port: a.port,
        readOutIds: [a.id, b.id],
      });
    }
  });
  return found;
}

function twinFindings(readOuts: readonly ReadOut[], { ports, seesOf }: ReadOutContext): PortFinding[] {
  return ports.flatMap(({ label, twin }): PortFinding[] => {
    const own = bestReadOut(readOuts, label);
    const other = twin ? bestReadOut(readOuts, twin) : undefined;
    if (!own || !other || !twin) return [];
    const comparison = compareReadOuts(other, own, hiddenFrom(other, own, seesOf));
    if (comparison.sameOffers) return [];
    const unlike = comparison.conditions.length > 0 ? ' (read out under other conditions)' : '';
    return [
      {
        kind: 'twins-differ',
        grade: 'fault',
        sentence: `${label} should be like ${twin}, but has ${unlikeWords(comparison)}${unlike}.`,
        positions: [],
        port: label,
        readOutIds: [own.id, other.id],
      },
    ];
  });
}

/** All findings of a sample's standing read-outs. */
export function readOutFindings(readOuts: readonly ReadOut[], context: ReadOutContext): readonly PortFinding[] {
  const standing = currentReadOuts(readOuts);
  const ports = [...new Set(standing.map(({ port }) => port))];
  const each = standing.flatMap((readOut) =>
    ownFindings(readOut, context).map((finding) => ({ ...finding, port: readOut.port, readOutIds: [readOut.id] })),
  );
  const label = ports.flatMap((port) => {
    const best = bestReadOut(standing, port);
    return best ? labelFindings(best, context).map((finding) => ({ ...finding, port, readOutIds: [best.id] })) : [];
  });
  const changes = ports.flatMap((port) =>
    changeFindings(
      standing.filter((one) => one.port === port),
      context,
    ),
  );
  return [...each, ...label, ...changes, ...twinFindings(standing, context)];
}

/** One line about the conditions of a read-out. */
export const conditionsLine = (readOut: ReadOut): string => {
  const words = conditionWords(readOut);
  return [
    words.occupied,
    words.marker,
    ...(readOut.askedWith ? [words.askedWith] : []),
    ...(readOut.temperature === null ? [] : [words.temperature]),
    ...(readOut.elapsed === null ? [] : [words.elapsed]),
  ].join(', ');
};
