// The limit sets that ship. Confirm against the current text before relying on one.
import type { LimitedQuantity, LimitFormula, LimitSet, LimitTest, NameplateClass, Piece } from './types.ts';

const piece = (upTo: number | null, constant: number, perWatt = 0, perLog = 0, inclusive = true): Piece => ({
  upTo,
  inclusive,
  constant,
  perWatt,
  perLog,
});

const formula = (quantity: LimitedQuantity, nameplateClass: NameplateClass, ...pieces: Piece[]): LimitFormula => ({
  quantity,
  nameplateClass,
  pieces,
});

const beyond = (us: boolean, constant: number): Piece[] => (us ? [piece(null, constant)] : []);

/** Level VI and the EU regulation share their formulas up to 250 W; only the US text goes on above. */
const levelVi = (us: boolean): LimitFormula[] => {
  const noLoad = [piece(49, 0.1), piece(250, 0.21), ...beyond(us, 0.5)];
  return [
    formula(
      'average-efficiency',
      'basic',
      piece(1, 0.16, 0.5),
      piece(49, 0.67, -0.0014, 0.071),
      piece(250, 0.88),
      ...beyond(us, 0.875),
    ),
    formula(
      'average-efficiency',
      'low-voltage',
      piece(1, 0.087, 0.517),
      piece(49, 0.609, -0.0014, 0.0834),
      piece(250, 0.87),
      ...beyond(us, 0.875),
    ),
    formula(
      'average-efficiency',
      'multiple-voltage',
      piece(1, 0.067, 0.497),
      piece(49, 0.561, 0, 0.075),
      piece(us ? null : 250, 0.86),
    ),
    formula('no-load-power', 'basic', ...noLoad),
    formula('no-load-power', 'low-voltage', ...noLoad),
    formula('no-load-power', 'multiple-voltage', piece(us ? null : 250, 0.3)),
  ];
};

/** A worked value with five decimals. */
const worked = (
  quantity: LimitedQuantity,
  nameplateClass: NameplateClass,
  watts: number,
  value: number,
): LimitTest => ({ quantity, nameplateClass, watts, value, within: 5e-6 });

const LEVEL_VI_WORKED: readonly LimitTest[] = [
  worked('average-efficiency', 'basic', 10, 0.81948),
  worked('average-efficiency', 'basic', 27, 0.8662),
  worked('average-efficiency', 'basic', 45, 0.87727),
  worked('average-efficiency', 'basic', 65, 0.88),
  worked('average-efficiency', 'low-voltage', 18, 0.82486),
  worked('average-efficiency', 'multiple-voltage', 10, 0.73369),
];

export const LIMIT_SETS: readonly LimitSet[] = [
  {
    id: 'us-level-6',
    title: 'US Level VI',
    jurisdiction: 'United States',
    source: '10 CFR 430.32(w)(1)(ii)',
    checked: '2026-11-24',
    validFrom: '2016-02-10',
    validTo: null,
    note: 'Confirm against the current text. One sample is never compliance.',
    mains: { kind: 'ac', volts: 115, hertz: 60 },
    procedureId: 'one-percent',
    // Appendix Z, 6(a)(1)(i): an adaptive supply is loaded with 2 A at its lowest voltage of 5 V.
    adaptiveLow: { volts: 5, amps: 2 },
    formulas: levelVi(true),
    tests: LEVEL_VI_WORKED,
  },
  {
    id: 'eu-2019-1782',
    title: 'EU 2019/1782',
    jurisdiction: 'European Union',
    source: 'Commission Regulation (EU) 2019/1782, Annex II',
    checked: '2026-11-24',
    validFrom: '2020-04-01',
    validTo: null,
    note: 'Confirm against the current text; a successor is due about the end of 2028. One sample is never compliance.',
    mains: { kind: 'ac', volts: 230, hertz: 50 },
    procedureId: 'one-percent',
    adaptiveLow: null,
    formulas: levelVi(false),
    tests: LEVEL_VI_WORKED,
  },
  {
    id: 'eu-coc-5-tier-2',
    title: 'EU Code of Conduct 5, tier 2',
    jurisdiction: 'European Union, voluntary',
    source: 'Code of Conduct on Energy Efficiency of External Power Supplies, version 5, tier 2',
    checked: '2026-11-24',
    validFrom: '2016-01-01',
    validTo: null,
    note: 'Voluntary. Confirm against the current text. One sample is never compliance.',
    mains: { kind: 'ac', volts: 230, hertz: 50 },
    procedureId: 'one-percent',
    adaptiveLow: null,
    tests: [
      worked('average-efficiency', 'basic', 27, 0.87295),
      worked('light-load-efficiency', 'basic', 27, 0.77295),
      worked('average-efficiency', 'basic', 45, 0.88852),
      worked('light-load-efficiency', 'basic', 45, 0.78852),
      worked('average-efficiency', 'low-voltage', 10, 0.79004),
      worked('light-load-efficiency', 'low-voltage', 10, 0.69734),
    ],
    formulas: [
      formula('average-efficiency', 'basic', piece(1, 0.169, 0.5), piece(49, 0.67, -0.00115, 0.071), piece(250, 0.89)),
      formula(
        'average-efficiency',
        'low-voltage',
        piece(1, 0.091, 0.517),
        piece(49, 0.609, -0.0011, 0.0834),
        piece(250, 0.88),
      ),
      formula(
        'light-load-efficiency',
        'basic',
        piece(1, 0.06, 0.5),
        piece(49, 0.57, -0.00115, 0.071),
        piece(250, 0.79),
      ),
      formula(
        'light-load-efficiency',
        'low-voltage',
        piece(1, 0, 0.517),
        piece(49, 0.518, -0.00127, 0.0834),
        piece(250, 0.78),
      ),
      formula('no-load-power', 'basic', piece(49, 0.075, 0, 0, false), piece(250, 0.15)),
      formula('no-load-power', 'low-voltage', piece(49, 0.075, 0, 0, false), piece(250, 0.15)),
    ],
  },
];
