// Which samples are compared: by a rule that is said, or picked by hand with a reason for each; and who fell out, and why.

/** What a rule may ask of a sample. */
export interface SetFacts {
  readonly id: string;
  readonly modelId: string;
  readonly title: string;
  readonly kind: string;
  /** Nameplate, W; null while not known. */
  readonly watts: number | null;
  readonly ports: number;
  /** ISO day it was paid for, else the day it was taken in. */
  readonly since: string;
  /** Methods of its run sheets that were carried out. */
  readonly methods: readonly string[];
  readonly labels: readonly string[];
  readonly archived: boolean;
  /** How many values of measures there are of it. */
  readonly measured: number;
}

interface Range {
  readonly from: number | null;
  readonly to: number | null;
}

/** Everything a sample must be; what is null or empty asks for nothing. */
export interface ByRule {
  readonly kind: 'rule';
  readonly kinds: readonly string[];
  readonly watts: Range;
  readonly ports: Range;
  /** Bought on this day or later. */
  readonly since: string | null;
  readonly method: string | null;
  readonly label: string | null;
  /** At most one unit a model: the one of which most is known. */
  readonly oneUnit: boolean;
}

/** A list somebody made, with why each stands in it. */
export interface ByHand {
  readonly kind: 'picked';
  readonly picks: readonly { readonly id: string; readonly reason: string }[];
}

export type SetRule = ByRule | ByHand;

export const EVERYTHING: ByRule = {
  kind: 'rule',
  kinds: [],
  watts: { from: null, to: null },
  ports: { from: null, to: null },
  since: null,
  method: null,
  label: null,
  oneUnit: true,
};

export interface SetOfSamples<Facts extends SetFacts = SetFacts> {
  readonly members: readonly Facts[];
  /** Who is not in it, and why. */
  readonly out: readonly { readonly id: string; readonly title: string; readonly reason: string }[];
}

const rangeWords = ({ from, to }: Range, unit: string): string =>
  from !== null && to !== null
    ? `${from} to ${to} ${unit}`
    : from !== null
      ? `${from} ${unit} or more`
      : `at most ${to} ${unit}`;

/** Why a value is outside; null where it is not. */
function outside(value: number | null, range: Range, unit: string, what: string): string | null {
  if (range.from === null && range.to === null) return null;
  if (value === null) return `its ${what} is not known, and the set takes ${rangeWords(range, unit)}`;
  const inside = (range.from === null || value >= range.from) && (range.to === null || value <= range.to);
  return inside ? null : `${value} ${unit}, and the set takes ${rangeWords(range, unit)}`;
}

/** Why a sample is not what a rule asks for; null where it is. */
function reasonOut(rule: ByRule, one: SetFacts): string | null {
  if (one.archived) return 'archived';
  if (rule.kinds.length > 0 && !rule.kinds.includes(one.kind))
    return `${one.kind}, and the set takes ${rule.kinds.join(', ')}`;
  return (
    outside(one.watts, rule.watts, 'W', 'nameplate') ??
    outside(one.ports, rule.ports, one.ports === 1 && rule.ports.from === null ? 'port' : 'ports', 'number of ports') ??
    (rule.since !== null && one.since < rule.since ? `of ${one.since}, and the set begins on ${rule.since}` : null) ??
    (rule.method !== null && !one.methods.includes(rule.method) ? 'not tested by the method of the set' : null) ??
    (rule.label !== null && !one.labels.includes(rule.label) ? `not labelled ${rule.label}` : null)
  );
}

/** The unit of a model of which most is known; of equals the first taken in. */
const better = (a: SetFacts, b: SetFacts): boolean =>
  a.measured > b.measured || (a.measured === b.measured && a.id < b.id);

/**
 * The set a rule makes of all samples, in their order.
 * @example membersOf({ ...EVERYTHING, kinds: ['wall'] }, all).out[0]?.reason // 'desktop, and the set takes wall'
 */
export function membersOf<Facts extends SetFacts>(rule: SetRule, all: readonly Facts[]): SetOfSamples<Facts> {
  if (rule.kind === 'picked') {
    const picked = new Set(rule.picks.map(({ id }) => id));
    return {
      members: all.filter(({ id }) => picked.has(id)),
      out: all.filter(({ id }) => !picked.has(id)).map(({ id, title }) => ({ id, title, reason: 'not picked' })),
    };
  }
  const reasons = new Map<string, string>();
  const best = new Map<string, Facts>();
  for (const one of all) {
    const reason = reasonOut(rule, one);
    if (reason !== null) {
      reasons.set(one.id, reason);
      continue;
    }
    const before = best.get(one.modelId);
    if (!before || better(one, before)) best.set(one.modelId, one);
  }
  if (rule.oneUnit)
    for (const one of all) {
      const kept = best.get(one.modelId);
      if (!reasons.has(one.id) && kept && kept.id !== one.id)
        reasons.set(one.id, `another unit of its model stands in the set: ${kept.title}`);
    }
  return {
    members: all.filter(({ id }) => !reasons.has(id)),
    out: all.flatMap(({ id, title }) => {
      const reason = reasons.get(id);
      return reason === undefined ? [] : [{ id, title, reason }];
    }),
  };
}

/** A rule in words. */
export function ruleWords(rule: SetRule): string {
  if (rule.kind === 'picked') return `${rule.picks.length} picked by hand`;
  const { watts, ports } = rule;
  const ranged = (range: Range, unit: string) =>
    range.from === null && range.to === null ? [] : [rangeWords(range, unit)];
  return [
    rule.kinds.length > 0 ? rule.kinds.join(', ') : 'everything on the shelf',
    ...ranged(watts, 'W'),
    ...ranged(ports, 'ports'),
    ...(rule.since === null ? [] : [`since ${rule.since}`]),
    ...(rule.method === null ? [] : ['tested by one method']),
    ...(rule.label === null ? [] : [`labelled ${rule.label}`]),
    ...(rule.oneUnit ? ['one unit a model'] : []),
  ].join(' · ');
}
