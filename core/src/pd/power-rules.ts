// The power rules: which levels a source of a power must offer. USB Power Delivery R3.2, chapter 10.

import { describeOffer } from './describe.ts';
import type { Finding } from './finding.ts';
import type { SourceObject } from './source.ts';

export interface Level {
  readonly volts: number;
  readonly amps: number;
}

export interface PowerRule {
  /** Fixed levels that must be there. */
  readonly levels: readonly Level[];
  /** EPR adjustable range that must be there, V. */
  readonly avs: { readonly low: number; readonly high: number } | null;
}

/** Highest power the rules cover, W. */
export const MOST_WATTS = 240;
/** Rounding that is let pass: one step of the current field. */
const STEP = 0.01;
/** Step of the power an EPR AVS states, W. */
const WATT_STEP = 1;

const LADDER = [5, 9, 15, 20] as const;

/**
 * What a source of a power must offer.
 * @param watts power of the source, W, above 0 and at most 240
 * @throws RangeError outside that range
 */
export function powerRule(watts: number): PowerRule {
  if (!(watts > 0 && watts <= MOST_WATTS)) throw new RangeError('The power rules cover sources up to 240 W.');
  const top = watts <= 15 ? 5 : watts <= 27 ? 9 : watts <= 45 ? 15 : 20;
  const full = watts > 100 ? 5 : 3;
  const spr = LADDER.filter((volts) => volts <= top).map((volts): Level => {
    if (volts < top) return { volts, amps: 3 };
    return { volts, amps: watts > 100 ? full : watts / volts };
  });
  if (watts <= 100) return { levels: spr, avs: null };
  const epr = watts <= 140 ? [28] : watts <= 180 ? [28, 36] : [28, 36, 48];
  const highest = epr.at(-1) ?? 28;
  return {
    levels: [...spr, ...epr.map((volts) => ({ volts, amps: volts < highest ? 5 : watts / volts }))],
    avs: { low: 15, high: highest },
  };
}

/** Nominal level a PPS span belongs to, by its highest voltage; null for an odd one. */
export function ppsClass(maxVolts: number): 5 | 9 | 15 | 20 | null {
  const found = ([5.9, 11, 16, 21] as const).findIndex((volts) => Math.abs(volts - maxVolts) < 0.05);
  return ([5, 9, 15, 20] as const)[found] ?? null;
}

export interface RuleConditions {
  /** Power the port claims, W. */
  readonly watts: number;
  /** Highest revision the source declares: `3.2`, `3.1`, `3.0`, `2.0`; null when not known. */
  readonly declared: string | null;
  /** Whether a 5 A cable was attached, or the cable is captive; null when not known. */
  readonly fiveAmpCable: boolean | null;
  /**
   * Whether the list is that of an EPR message. An SPR message says nothing about EPR, and a 5 A marker is no EPR marker.
   * Left out it is taken from the offers.
   */
  readonly epr?: boolean | undefined;
  /** Kinds the analyser cannot see: their absence says nothing. */
  readonly invisible: readonly SourceObject['kind'][];
}

const finding = (kind: string, grade: Finding['grade'], sentence: string, ...positions: number[]): Finding => ({
  kind,
  grade,
  sentence,
  positions,
});

const asAmps = (amps: number): string => `${Number(amps.toFixed(2))} A`;

/** Whether the EPR part of a source was read at all. */
const eprRead = (objects: readonly SourceObject[], { epr }: RuleConditions): boolean =>
  epr ?? objects.some((object) => object.kind === 'epr-avs' || (object.kind === 'fixed' && object.volts > 21));

function levelFindings(objects: readonly SourceObject[], conditions: RuleConditions): Finding[] {
  const { watts, fiveAmpCable } = conditions;
  const whole = eprRead(objects, conditions);
  const found: Finding[] = [];
  const fixed = objects.flatMap((object, index) => (object.kind === 'fixed' ? [{ object, position: index + 1 }] : []));
  const { levels } = powerRule(watts);
  for (const { volts, amps } of levels) {
    const own = fixed.filter(({ object }) => Math.abs(object.volts - volts) < 0.01);
    const best = Math.max(0, ...own.map(({ object }) => object.amps));
    // Without a marked 5 A cable a source holds SPR levels to 3 A and offers no EPR at all.
    const held = fiveAmpCable === true ? amps : Math.min(amps, 3);
    if (own.length === 0) {
      if (volts > 20 && !whole) continue;
      found.push(
        finding('missing-level', 'fault', `${volts} V is missing: a ${watts} W source offers ${asAmps(amps)} there.`),
      );
    } else if (best < held - STEP - 1e-9) {
      found.push(
        finding(
          'low-current',
          'fault',
          `${volts} V ${asAmps(best)}: a ${watts} W source offers ${asAmps(amps)} there.`,
          ...own.map(({ position }) => position),
        ),
      );
    } else if (best < amps - STEP - 1e-9) {
      found.push(
        finding(
          'cable-held',
          'note',
          `${volts} V is held to ${asAmps(best)}: more than 3 A needs a marked 5 A cable. Read it out over one.`,
          ...own.map(({ position }) => position),
        ),
      );
    }
  }
  if (watts > 100 && !whole)
    found.push(
      finding(
        'epr-not-read',
        'note',
        `What a ${watts} W source offers beyond 20 V was not read: only an EPR list over an EPR cable shows it.`,
      ),
    );
  for (const { object, position } of fixed) {
    if (levels.some(({ volts }) => Math.abs(volts - object.volts) < 0.01)) continue;
    const optional = object.volts === 12 ? '12 V is optional' : `not called for at ${watts} W`;
    found.push(finding('extra-level', 'note', `${describeOffer(object)} is extra: ${optional}.`, position));
  }
  return found;
}

function cableFindings(objects: readonly SourceObject[], { fiveAmpCable }: RuleConditions): Finding[] {
  if (fiveAmpCable !== false) return [];
  return objects.flatMap((object, index) => {
    const amps = 'amps' in object ? object.amps : 0;
    return amps > 3 + 1e-9
      ? [
          finding(
            'unmarked-current',
            'fault',
            `${describeOffer(object)} is offered without a 5 A cable: at most 3 A may be.`,
            index + 1,
          ),
        ]
      : [];
  });
}

function ppsFindings(objects: readonly SourceObject[], { watts, fiveAmpCable }: RuleConditions): Finding[] {
  const all = objects.flatMap((object, index) => (object.kind === 'pps' ? [{ object, position: index + 1 }] : []));
  const found = all.flatMap(({ object, position }): Finding[] => {
    const nominal = ppsClass(object.maxVolts);
    if (nominal === null)
      return [
        finding('pps-span', 'note', `${describeOffer(object)} ends at no usual voltage (5.9, 11, 16, 21 V).`, position),
      ];
    const low = object.minVolts <= 3.3 + 1e-9 ? 3.3 : 5;
    return object.minVolts > 5 + 1e-9
      ? [finding('pps-span', 'note', `${describeOffer(object)} starts above 5 V.`, position)]
      : [finding('pps-class', 'note', `${describeOffer(object)}: the ${nominal} V class from ${low} V.`, position)];
  });
  const best = all.reduce<(typeof all)[number] | null>(
    (top, one) => (top === null || one.object.maxVolts > top.object.maxVolts ? one : top),
    null,
  );
  if (!best) return found;
  const top = watts <= 15 ? 5 : watts <= 27 ? 9 : watts <= 45 ? 15 : 20;
  const nominal = ppsClass(best.object.maxVolts);
  if (nominal !== null && nominal < top)
    found.push(
      finding(
        'pps-short',
        'note',
        `PPS ends with the ${nominal} V class; ${watts} W would reach the ${top} V class.`,
        best.position,
      ),
    );
  const wanted = Math.min(fiveAmpCable === true ? 5 : 3, watts / top);
  if (nominal === top && best.object.amps < Math.floor(wanted * 20 + 1e-9) / 20 - 1e-9)
    found.push(
      finding(
        'pps-short',
        'fault',
        `${describeOffer(best.object)}: a ${watts} W source gives ${asAmps(wanted)} in that class.`,
        best.position,
      ),
    );
  return found;
}

function avsFindings(objects: readonly SourceObject[], conditions: RuleConditions): Finding[] {
  const { watts, declared, invisible, fiveAmpCable } = conditions;
  const found: Finding[] = [];
  const wanted = powerRule(watts).avs;
  const epr = objects.find((object) => object.kind === 'epr-avs');
  if (wanted && !epr && eprRead(objects, conditions))
    found.push(
      invisible.includes('epr-avs')
        ? finding('not-visible', 'note', 'EPR AVS: this analyser cannot see it.')
        : finding('missing-avs', 'fault', `EPR AVS ${wanted.low}–${wanted.high} V is missing at ${watts} W.`),
    );
  if (wanted && epr?.kind === 'epr-avs' && (epr.minVolts > wanted.low + 1e-9 || epr.maxVolts < wanted.high - 1e-9))
    found.push(
      finding(
        'short-avs',
        'fault',
        `${describeOffer(epr)}: at ${watts} W it spans ${wanted.low}–${wanted.high} V.`,
        objects.indexOf(epr) + 1,
      ),
    );
  if (epr?.kind === 'epr-avs' && Math.abs(epr.watts - watts) > WATT_STEP) {
    const less = epr.watts < watts;
    found.push(
      finding(
        'avs-power',
        less ? 'fault' : 'note',
        `${describeOffer(epr)}: ${less ? 'less' : 'more'} than the ${watts} W of the source.`,
        objects.indexOf(epr) + 1,
      ),
    );
  }
  if (watts <= 27) return found;
  const spr = objects.find((object) => object.kind === 'spr-avs');
  const span = watts <= 45 ? '9–15 V' : '9–20 V';
  if (!spr) {
    if (invisible.includes('spr-avs'))
      found.push(finding('not-visible', 'note', 'SPR AVS: this analyser cannot see it.'));
    else if (declared === '3.2')
      found.push(
        finding(
          'missing-avs',
          'fault',
          `SPR AVS ${span} is missing: a ${watts} W source that declares R3.2 offers it.`,
        ),
      );
    else found.push(finding('expected-later', 'note', `SPR AVS ${span} not offered; expected from R3.2.`));
  } else if (spr.kind === 'spr-avs' && watts > 45 && spr.ampsAbove === 0)
    found.push(
      finding('short-avs', 'fault', `${describeOffer(spr)}: above 45 W it goes to 20 V.`, objects.indexOf(spr) + 1),
    );
  if (spr?.kind === 'spr-avs') {
    const most = fiveAmpCable === true ? 5 : 3;
    const to15 = watts <= 45 ? watts / 15 : 3;
    const to20 = watts <= 45 ? 0 : Math.min(most, watts / 20);
    for (const [volts, amps, least] of [
      [15, spr.amps, to15],
      [20, spr.ampsAbove, to20],
    ] as const)
      if (amps > 0 && amps < least - STEP - 1e-9)
        found.push(
          finding(
            'low-avs-current',
            'fault',
            `${describeOffer(spr)}: a ${watts} W source gives ${asAmps(least)} up to ${volts} V.`,
            objects.indexOf(spr) + 1,
          ),
        );
  }
  return found;
}

/**
 * Hold a list of offers against the power rules for the power its port claims.
 * @param objects in order; positions in the findings are theirs
 */
export function checkPowerRules(objects: readonly SourceObject[], conditions: RuleConditions): readonly Finding[] {
  if (objects.length === 0) return [];
  if (!(conditions.watts > 0 && conditions.watts <= MOST_WATTS))
    return [
      finding(
        'outside',
        'note',
        `The power rules cover 0 to ${MOST_WATTS} W; ${conditions.watts} W is not held against them.`,
      ),
    ];
  return [
    ...levelFindings(objects, conditions),
    ...cableFindings(objects, conditions),
    ...ppsFindings(objects, conditions),
    ...avsFindings(objects, conditions),
  ];
}
