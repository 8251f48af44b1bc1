// Heads of a table of drops: what each column holds, and in which unit.
import { findUnit, type QuantityId } from '../quantity/index.ts';
import { type HeadUnit, headUnit } from '../table/index.ts';

export type Role = 'amps' | 'drop' | 'near' | 'far' | 'celsius' | 'plugging' | 'length' | 'none';

/** Names people give their columns, the surest first. */
const ROLES: readonly (readonly [Role, RegExp])[] = [
  ['plugging', /plug(?!.*v)|mating|insert|cycle|repeat/],
  ['amps', /^i[ _-]?(?:load|sink|source|out|in|bus|meas)|ibus/],
  ['length', /length|metres?$|meters?$/],
  ['celsius', /temp|°c|°f|celsius|fahrenheit|kelvin|^t$|^t[ _(]/],
  ['drop', /drop|delta|d[uv](?![a-z0-9])|[uv]_?diff|Δ|δ/],
  ['near', /[vu][_ ]?in(?![a-z0-9])|in(?:put)?[ _]?v|near|source|supply|charger|[vu]_?1(?![a-z0-9])|before|vorher/],
  ['far', /[vu][_ ]?out(?![a-z0-9])|out(?:put)?[ _]?v|far|load|sink|device|[vu]_?2(?![a-z0-9])|after|nachher/],
  // Names that are of other things as well: of volts only where the head says so.
  ['near', /^(?=.*(?:port|begin|start)).*(?:^|[^a-z])(?:m?v|u|vbus|volts?|voltage)(?:[^a-z]|$)/],
  ['far', /^(?=.*\bend\b).*(?:^|[^a-z])(?:m?v|u|vbus|volts?|voltage)(?:[^a-z]|$)/],
  ['amps', /current|amp|^i$|^i[ _([]|^a$|strom/],
];

export const QUANTITY: Readonly<Partial<Record<Role, QuantityId>>> = {
  amps: 'current',
  drop: 'voltage',
  near: 'voltage',
  far: 'voltage',
  celsius: 'temperature',
  length: 'length',
};

export interface Column extends HeadUnit {
  readonly head: string;
  readonly role: Role;
  /** What was set and not read, and what is not the cable's, come last. */
  readonly last: boolean;
}

/** What a number without a unit is taken in. */
export const USUAL: Readonly<Partial<Record<Role, string>>> = {
  amps: 'A',
  drop: 'V',
  near: 'V',
  far: 'V',
  celsius: '°C',
  length: 'm',
};
const LAST = /(?:^|[^a-z])(?:set|nominal|target|demand|asked|ambient|room|air)(?:[^a-z]|$)/;

/** Words of a head, the unit last: `drop_mV`, `Drop (mV)`, `drop [mV]`, `drop, mV`. */
const wordsOf = (head: string): readonly string[] => head.split(/[\s_,;()[\]/]+/).filter((word) => word !== '');

function columnOf(head: string): Column {
  const plain = head.trim().toLowerCase();
  const last = wordsOf(head).at(-1) ?? '';
  // "current_load" is a current, and so is "Load A"; "load_V" is the volts at the load.
  const role =
    /current|amps?\b/.test(plain) || findUnit('current', last)
      ? 'amps'
      : (ROLES.find(([, pattern]) => pattern.test(plain))?.[0] ?? 'none');
  const quantity = QUANTITY[role];
  const found = quantity
    ? headUnit(head, (unit) => findUnit(quantity, unit) !== undefined)
    : { unit: null, strange: null };
  return { head: head.trim(), role, last: LAST.test(plain), ...found };
}

/** Whether columns tell a current, and a drop by itself or as the volts at both ends. */
export function tells(columns: readonly Column[]): { readonly amps: boolean; readonly drop: boolean } {
  const has = (role: Role) => columns.some((column) => column.role === role);
  return { amps: has('amps'), drop: has('drop') || (has('near') && has('far')) };
}

/** Columns by their heads and by a line of units below them. */
export function columnsOf(heads: readonly string[], units: readonly string[] | null): readonly Column[] {
  return heads.map((head, at) => {
    const own = columnOf(head);
    const below = wordsOf(units?.[at] ?? '').at(-1) ?? '';
    const quantity = QUANTITY[own.role];
    if (quantity) return findUnit(quantity, below) ? { ...own, unit: below, strange: null } : own;
    return below === '' ? own : columnOf(`${head} ${below}`);
  });
}
