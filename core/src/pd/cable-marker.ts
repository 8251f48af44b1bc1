// The cable marker's reply to Discover Identity, and what it lets a cable carry. USB PD R3.2, 6.4.4.3.1.

import { ACTIVE_MORE, CABLES, CERTIFICATE, ID_HEADER, POWERED_DEVICE, PRODUCT, VDM_HEADER } from './cable-layouts.ts';
import type { Finding } from './finding.ts';
import { type ExplainedField, explain, hexadecimal, type Layout, pack, reservedPart, unpack } from './layout.ts';

/** The standard id of USB PD in a vendor defined message. */
const PD_ID = 0xff00;

export type CableKind = 'passive' | 'active' | 'old';

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
  const layout: Layout = CABLES[kind];
  const raw = unpack(layout, word);
  const amps = raw.amps === 2 ? 5 : 3;
  const fifty = kind !== 'old' && raw.volts === 3;
  const through = kind !== 'active' || raw.through === 1;
  const epr = kind !== 'old' && raw.epr === 1 && amps === 5 && fifty && through;
  if (!through) return { kind, raw, reserved: reservedPart(layout, word), rating: { amps: 0, volts: 0, epr: false } };
  return { kind, raw, reserved: reservedPart(layout, word), rating: { amps, volts: epr ? 48 : 20, epr } };
}

/** Encode a cable word: the exact inverse of {@link decodeCable}. */
export const encodeCable = ({ kind, raw }: Pick<CableVdo, 'kind' | 'raw'>): number => pack(CABLES[kind] as Layout, raw);

export const explainCable = (word: number, kind: CableKind) => explain(CABLES[kind], word);

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

/** What the second word of an active cable tells. @param version of the layout of its first */
function moreFindings(word: number | undefined, version: number): Finding[] {
  // Layouts before 1.2 had one word.
  if (word === undefined)
    return version >= 2
      ? [
          finding(
            'cable-second',
            'note',
            'The second word of this active cable is missing: nobody knows how warm it may be.',
          ),
        ]
      : [];
  const { works, stops } = unpack(ACTIVE_MORE, word);
  const found: Finding[] = [];
  if (reservedPart(ACTIVE_MORE, word) !== 0)
    found.push(finding('reserved', 'note', 'Reserved bits of the second cable word are set.'));
  if (works > 0 && stops > 0 && stops < works)
    found.push(
      finding('cable-heat', 'fault', `It shuts down at ${stops} °C, below the ${works} °C it says it works at.`),
    );
  else if (works > 0 || stops > 0) {
    const said = [works > 0 ? `works up to ${works} °C inside` : '', stops > 0 ? `shuts down at ${stops} °C` : ''];
    found.push(finding('cable-heat', 'note', `By its marker the cable ${said.filter(Boolean).join(' and ')}.`));
  }
  return found;
}

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

/** The finding that it was no cable that was asked. */
export const PORT_ANSWERED = 'port-answered';

/** Who else may answer with a fourth word. */
const NO_CABLE: Readonly<
  Record<
    'port' | 'powered',
    {
      readonly kind: string;
      readonly grade: Finding['grade'];
      readonly title: string;
      readonly layout: Layout;
      readonly sentence: string;
    }
  >
> = {
  port: {
    kind: PORT_ANSWERED,
    title: 'Port',
    layout: [hexadecimal('port', 31, 0, 'Not read')],
    grade: 'note',
    sentence: "A port answered for itself, not the plug of a cable. Ask the plug (SOP').",
  },
  powered: {
    kind: 'not-cable',
    title: 'Powered device',
    grade: 'fault',
    layout: POWERED_DEVICE,
    sentence: 'A powered device on the cable answered: it rates no cable. Take 3 A until the cable answers.',
  },
};

/**
 * Decode a whole reply: VDM header, identity header, certification, product, cable word, and the second of an active cable.
 * A lone cable word decodes too. What else follows is padding, and passed over.
 * Any list of words gives findings, never an exception.
 */
export function decodeIdentity(words: readonly number[]): Identity {
  const [first] = words;
  if (first === undefined) return { cable: null, words: [], findings: [] };
  const shown = (word: number, title: string, layout: Layout) => ({ word, title, fields: explain(layout, word) });
  if (words.length === 1 && Math.floor(first / 65_536) !== PD_ID) {
    const cable = decodeCable(first);
    const note = finding('no-header', 'note', 'A cable word alone: taken for a passive cable.');
    return { cable, words: [shown(first, 'Cable', CABLES.passive)], findings: [note, ...cableFindings(cable)] };
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
  const { product, downstream } = unpack(ID_HEADER, body[0] ?? 0);
  const word = body[3];
  // Only a port has a downstream product type: a charger that was asked for itself is no cable, whatever its code says of one.
  const none = downstream > 0 ? NO_CABLE.port : product === 6 && word !== undefined ? NO_CABLE.powered : null;
  if (none) {
    findings.push(finding(none.kind, none.grade, none.sentence));
    const last = word === undefined ? [] : [shown(word, none.title, none.layout)];
    return { cable: null, words: [...list, ...last], findings };
  }
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
  const more = kind === 'active' ? body[4] : undefined;
  return {
    cable,
    words: [
      ...list,
      shown(word, 'Cable', CABLES[kind]),
      ...(more === undefined ? [] : [shown(more, 'Cable, second word', ACTIVE_MORE)]),
    ],
    findings: [
      ...findings,
      ...cableFindings(cable),
      ...(kind === 'active' ? moreFindings(more, cable.raw.version ?? 0) : []),
    ],
  };
}

/**
 * Which of the vendor defined messages of a conversation is the cable's answer: ports are asked for their identity too, after
 * the plug, and for other things behind it.
 * @param all data objects of each, in the order they were sent
 * @returns the last acknowledged identity of a cable; else the last about any identity; empty where there is none
 */
export function cableReply(all: readonly (readonly number[])[]): readonly number[] {
  const about = all.filter(([first = 0]) => {
    const { svid, structured, command } = unpack(VDM_HEADER, first);
    return svid === PD_ID && structured === 1 && command === 1;
  });
  const ofCable = about.findLast((words) => {
    const { cable, findings } = decodeIdentity(words);
    return cable !== null && !findings.some(({ kind }) => kind === 'not-cable' || kind === 'not-identity');
  });
  return ofCable ?? about.at(-1) ?? [];
}
