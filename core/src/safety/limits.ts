// What touch current, earth and lever may be: data with its source, to be confirmed against the current text.
import type { CurrentForm, EarthJoin, Network } from './checks.ts';

/** What may flow through a person, with the earth as it stands. */
export interface TouchLimit {
  readonly earth: EarthJoin;
  /** A */
  readonly most: Readonly<Record<CurrentForm, number>>;
  /** The network the text reads it with. */
  readonly network: Network;
}

export interface SafetyLimits {
  readonly id: string;
  readonly title: string;
  readonly source: string;
  /** ISO date it was last compared with the text. */
  readonly checked: string;
  readonly touch: readonly TouchLimit[];
  /** Ω of the protective earth, and the least test current that is asked for, A. */
  readonly earth: { readonly most: number; readonly leastAmps: number };
}

/** Limits that ship. Audio, video and computing equipment is what a charger is by its standard. */
export const SAFETY_LIMITS: readonly SafetyLimits[] = [
  {
    id: 'iec-62368-1',
    title: 'Computing equipment',
    source: 'IEC 62368-1:2018, table 4 (ES1, ES2), 5.6.6.2 and 5.7; confirm against the current text',
    checked: '2026-11-27',
    touch: [
      { earth: 'none', most: { rms: 0.0005, peak: 0.000707 }, network: 'perception' },
      { earth: 'joined', most: { rms: 0.0005, peak: 0.000707 }, network: 'perception' },
      // With the earth open: ES2, which is read as let-go.
      { earth: 'open', most: { rms: 0.005, peak: 0.00707 }, network: 'let-go' },
    ],
    // Twice the protective current rating, which is the 16 A of the circuit it is plugged into.
    earth: { most: 0.1, leastAmps: 32 },
  },
  {
    id: 'iec-60335-1',
    title: 'Household appliances',
    source: 'IEC 60335-1:2020, 13.2 and 27.5; confirm against the current text',
    checked: '2026-11-27',
    touch: [
      { earth: 'none', most: { rms: 0.00025, peak: 0.00035 }, network: 'perception' },
      { earth: 'joined', most: { rms: 0.00025, peak: 0.00035 }, network: 'perception' },
      { earth: 'open', most: { rms: 0.00075, peak: 0.00106 }, network: 'perception' },
    ],
    earth: { most: 0.1, leastAmps: 25 },
  },
];

/** Judged by unless a profile says otherwise. */
export const USUAL_SAFETY = ['iec-62368-1'] as const;

/** The most a plug-in body may bear on a socket, N·m, and how far behind the face it turns, m. */
export const LEVER = {
  most: 0.25,
  behind: 0.008,
  source: 'IEC 60884-1:2022, 14.23.2, with the pivot of IEC 62368-1:2018, 4.7; confirm against the current text',
} as const;

export const GRAVITY = 9.806_65;
