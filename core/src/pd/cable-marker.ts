// The cable marker's reply to Discover Identity, and what it lets a cable carry. USB PD R3.2, 6.4.4.3.1.
import type { Finding } from './finding.ts';
import {
  choice,
  type ExplainedField,
  explain,
  flag,
  hexadecimal,
  type Layout,
  number,
  pack,
  reserved,
  reservedPart,
  unpack,
} from './layout.ts';

const VDM_HEADER = [
  hexadecimal('svid', 31, 16, 'Standard or vendor id'),
  flag('structured', 15, 'Structured'),
  choice('major', 14, 13, 'Version', { 0: '1.0', 1: '2.x' }),
  number('minor', 12, 11, 'Minor version'),
  number('position', 10, 8, 'Object position'),
  choice('reply', 7, 6, 'Command type', { 0: 'request', 1: 'acknowledged', 2: 'refused', 3: 'busy' }),
  reserved(5),
  choice('command', 4, 0, 'Command', { 1: 'discover identity' }),
] as const;

const PRODUCTS = { 0: 'none', 3: 'passive cable', 4: 'active cable', 6: 'powered device on the cable' };
const ID_HEADER = [
  flag('host', 31, 'USB host'),
  flag('device', 30, 'USB device'),
  choice('product', 29, 27, 'Product type', PRODUCTS),
  flag('modal', 26, 'Alternate modes'),
  number('downstream', 25, 23, 'Downstream product type'),
  choice('connector', 22, 21, 'Connector', { 0: 'not stated', 2: 'receptacle', 3: 'plug' }),
  reserved(20, 16),
  hexadecimal('vendor', 15, 0, 'Vendor id'),
] as const;
const CERTIFICATE = [hexadecimal('certificate', 31, 0, 'Certification number')] as const;
const PRODUCT = [hexadecimal('product', 31, 16, 'Product id'), hexadecimal('release', 15, 0, 'Release')] as const;

const HEAD = [
  number('hardware', 31, 28, 'Hardware version'),
  number('firmware', 27, 24, 'Firmware version'),
  number('version', 23, 21, 'Layout version'),
  reserved(20),
  choice('plug', 19, 18, 'Plug', { 2: 'Type-C', 3: 'captive' }),
  flag('epr', 17, 'EPR capable'),
  choice('latency', 16, 13, 'Latency', {
    1: 'under 10 ns, about 1 m',
    2: 'under 20 ns, about 2 m',
    3: 'under 30 ns, about 3 m',
    4: 'under 40 ns, about 4 m',
    5: 'under 50 ns, about 5 m',
    6: 'under 60 ns, about 6 m',
    7: 'under 70 ns, about 7 m',
    8: 'over 70 ns, over 7 m',
  }),
  choice('termination', 12, 11, 'Termination', {
    0: 'VCONN not required',
    1: 'VCONN required',
    2: 'one end active',
    3: 'both ends active',
  }),
] as const;
const VOLTS = choice('volts', 10, 9, 'Highest VBUS voltage', {
  0: '20 V',
  1: '30 V, deprecated: take 20 V',
  2: '40 V, deprecated: take 20 V',
  3: '50 V',
});
const AMPS = choice('amps', 6, 5, 'VBUS current', { 0: 'USB default', 1: '3 A', 2: '5 A' });
const SPEED = choice('speed', 2, 0, 'Highest speed', {
  0: 'USB 2.0',
  1: 'Gen 1',
  2: 'Gen 2',
  3: 'Gen 3',
  4: 'Gen 4',
});
const PASSIVE = [...HEAD, VOLTS, reserved(8, 7), AMPS, reserved(4, 3), SPEED] as const;
const ACTIVE = [
  ...HEAD,
  VOLTS,
  flag('sideband', 8, 'No sideband'),
  flag('sidebandActive', 7, 'Active sideband'),
  AMPS,
  flag('through', 4, 'VBUS through the cable'),
  flag('farEnd', 3, 'Second controller at the far end'),
  SPEED,
] as const;
/** Layout of markers that speak version 1.0: bits 10:7 tell how the pairs run, not the voltage. */
const OLD = [
  ...HEAD,
  flag('sstx1', 10, 'First transmit pair configurable'),
  flag('sstx2', 9, 'Second transmit pair configurable'),
  flag('ssrx1', 8, 'First receive pair configurable'),
  flag('ssrx2', 7, 'Second receive pair configurable'),
  AMPS,
  flag('through', 4, 'VBUS through the cable'),
  flag('farEnd', 3, 'Second controller at the far end'),
  SPEED,
] as const;

/** The standard id of USB PD in a vendor defined message. */
const PD_ID = 0xff00;

export type CableKind = 'passive' | 'active' | 'old';
const LAYOUTS = { passive: PASSIVE, active: ACTIVE, old: OLD } as const;

/** What a cable may carry by its marker. */
export interface CableRating {
  /** A; 0 where no power goes through the cable. */
  readonly amps: number;
  /** V, nominal: 20, or 48 for EPR */
  readonly volts: number;
  readonly epr: boolean;
}

/** A cable without a marker: 3 A at 20 V at most. USB Type-C R2.3, 4.5. */
export const UNMARKED: CableRating = { amps: 3, volts: 20, epr: false };

export interface CableVdo {
  readonly kind: CableKind;
  readonly raw: Readonly<Record<string, number>>;
  readonly reserved: number;
  readonly rating: CableRating;
}

/** Decode a cable word. @param kind by the identity header and the version it speaks */
export function decodeCable(word: number, kind: CableKind = 'passive'): CableVdo {
  const layout: Layout = LAYOUTS[kind];
  const raw = unpack(layout, word);
  const amps = raw.amps === 2 ? 5 : 3;
  const fifty = kind !== 'old' && raw.volts === 3;
  const through = kind !== 'active' || raw.through === 1;
  const epr = kind !== 'old' && raw.epr === 1 && amps === 5 && fifty && through;
  if (!through) return { kind, raw, reserved: reservedPart(layout, word), rating: { amps: 0, volts: 0, epr: false } };
  return { kind, raw, reserved: reservedPart(layout, word), rating: { amps, volts: epr ? 48 : 20, epr } };
}

/** Encode a cable word: the exact inverse of {@link decodeCable}. */
export const encodeCable = ({ kind, raw }: Pick<CableVdo, 'kind' | 'raw'>): number =>
  pack(LAYOUTS[kind] as Layout, raw);

export const explainCable = (word: number, kind: CableKind) => explain(LAYOUTS[kind], word);

export interface Identity {
  readonly cable: CableVdo | null;
  /** Every word with its fields. */
  readonly words: readonly {
    readonly word: number;
    readonly title: string;
    readonly fields: readonly ExplainedField[];
  }[];
  readonly findings: readonly Finding[];
}

const finding = (kind: string, grade: Finding['grade'], sentence: string): Finding => ({
  kind,
  grade,
  sentence,
  positions: [],
});

function cableFindings({ kind, raw, reserved: rest, rating }: CableVdo): Finding[] {
  const found: Finding[] = [];
  if (rest !== 0) found.push(finding('reserved', 'note', 'Reserved bits of the cable word are set.'));
  if (rating.amps === 0) {
    found.push(
      finding('cable-no-power', 'note', 'No VBUS goes through this cable: its current and voltage rate nothing.'),
    );
    return found;
  }
  if (raw.amps === 0 || raw.amps === 3)
    found.push(finding('cable-current', 'fault', 'The marker states no current class; take 3 A.'));
  if (raw.volts === 1 || raw.volts === 2)
    found.push(finding('cable-volts', 'note', 'The stated voltage code is deprecated; take 20 V.'));
  if (kind === 'old') found.push(finding('cable-old', 'note', 'A version 1.0 marker states no voltage; take 20 V.'));
  if (raw.epr === 1 && !rating.epr)
    found.push(finding('cable-epr', 'fault', 'It calls itself EPR capable without 5 A and 50 V: not a 240 W cable.'));
  return found;
}

/**
 * Decode a whole reply: VDM header, identity header, certification, product, cable word. A lone cable word decodes too.
 * Any list of words gives findings, never an exception.
 */
export function decodeIdentity(words: readonly number[]): Identity {
  const [first] = words;
  if (first === undefined) return { cable: null, words: [], findings: [] };
  const shown = (word: number, title: string, layout: Layout) => ({ word, title, fields: explain(layout, word) });
  if (words.length === 1 && Math.floor(first / 65_536) !== PD_ID) {
    const cable = decodeCable(first);
    const note = finding('no-header', 'note', 'A cable word alone: taken for a passive cable.');
    return { cable, words: [shown(first, 'Cable', PASSIVE)], findings: [note, ...cableFindings(cable)] };
  }
  const header = unpack(VDM_HEADER, first);
  const isReply = header.structured === 1 && header.command === 1 && header.reply === 1;
  const body = words.slice(1);
  const layouts: (readonly [string, Layout])[] = [
    ['Identity header', ID_HEADER],
    ['Certification', CERTIFICATE],
    ['Product', PRODUCT],
  ];
  const list = [
    shown(first, 'Message', VDM_HEADER),
    ...body.slice(0, 3).map((word, index) => {
      const [title, layout] = layouts[index] ?? ['', []];
      return shown(word, title, layout);
    }),
  ];
  const findings: Finding[] = [];
  if (!isReply)
    findings.push(
      finding(
        'not-identity',
        'fault',
        header.command === 1 && header.reply === 2
          ? 'The marker refused to identify itself.'
          : 'Not an acknowledged Discover Identity reply.',
      ),
    );
  const product = unpack(ID_HEADER, body[0] ?? 0).product;
  const word = body[3];
  if (word === undefined) {
    findings.push(finding('no-cable-word', 'fault', 'The reply ends before the cable word.'));
    return { cable: null, words: list, findings };
  }
  if (product !== 3 && product !== 4)
    findings.push(
      finding('not-cable', 'fault', 'The identity header names no cable; the cable word is read as passive.'),
    );
  const kind: CableKind = header.major === 0 ? 'old' : product === 4 ? 'active' : 'passive';
  const cable = decodeCable(word, kind);
  return {
    cable,
    words: [...list, shown(word, 'Cable', LAYOUTS[kind])],
    findings: [...findings, ...cableFindings(cable)],
  };
}
