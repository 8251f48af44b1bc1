// The cables of the Fernwall huts: invented makers, and what is true of each.

import type { ClaimInput, ModelInput, UnitInput } from '@lastmark/contract';
import type { BendFault, CableFacts } from '@lastmark/core/cable';

export interface DemoCableUnit {
  readonly unit: UnitInput;
  /** Bends at each look, the last with its fault; empty for one that was not bent. */
  readonly looks: readonly number[];
  readonly fault?: BendFault;
  /** How often a series of drops was taken, plugged anew each time; 0 for never. */
  readonly series: number;
  /** Both conductors apart too. */
  readonly apart?: boolean;
}

export interface DemoCable {
  readonly model: ModelInput;
  readonly claims: readonly ClaimInput[];
  /** Whether its marker was asked. */
  readonly asked: boolean;
  /** Copies: MB/s to and from the device; null for none. */
  readonly copies: { readonly to: number; readonly from: number; readonly link: number } | null;
  readonly units: readonly DemoCableUnit[];
}

const model = (
  maker: string,
  name: string,
  cable: Partial<CableFacts>,
  part: Partial<ModelInput> = {},
): ModelInput => ({
  maker,
  model: name,
  kind: 'cable',
  ports: [],
  length: null,
  width: null,
  height: null,
  mass: 0.032,
  withPlug: true,
  plugForm: 'fixed',
  plugEarthed: false,
  plugBlocksNeighbour: false,
  inputRating: '',
  marks: [],
  prices: [{ kind: 'paid', amount: 9.5, currency: 'EUR', date: '2026-02-01' }],
  cable: {
    form: 'cable',
    length: 1,
    ends: ['C plug', 'C plug'],
    braid: false,
    strainRelief: 'short',
    stiffness: null,
    pack: 1,
    ...cable,
  },
  ...part,
});

const unit = (serial: string, part: Partial<UnitInput> = {}): UnitInput => ({
  revision: '',
  serial,
  dateCode: '',
  obtained: 'bought',
  disclosure: '',
  notes: '',
  ...part,
});

const claim = (promise: ClaimInput['promise'], printed = 'box'): ClaimInput => ({
  promise,
  duration: { kind: 'unstated' },
  printed,
});
const carries = (amps: number, volts: number) => claim({ kind: 'cable-rating', amps, volts }, 'plug');
const data = (bits: number) => claim({ kind: 'data-rate', bits });
const bends = (count: number) => claim({ kind: 'bends', count });
/** Cables in the order they were taken in. */
export const CABLE_SHELF: readonly DemoCable[] = [
  {
    model: model('Gravelin', 'Tether 60', { stiffness: { how: 'droop', over: 0.2, droop: 0.062 } }),
    claims: [carries(3, 20), data(480e6), bends(10_000)],
    asked: true,
    copies: { to: 38.4, from: 41.2, link: 480e6 },
    units: [{ unit: unit('GT60-1041'), looks: [], series: 3, apart: true }],
  },
  {
    model: model('Gravelin', 'Tether 60, 2 m', { length: 2 }, { mass: 0.051 }),
    claims: [carries(3, 20), data(480e6)],
    asked: true,
    copies: null,
    units: [{ unit: unit('GT60L-0207'), looks: [], series: 3 }],
  },
  {
    model: model(
      'Gravelin',
      'Tether 240',
      { length: 1.5, braid: true, strainRelief: 'long', stiffness: { how: 'bend radius', radius: 0.019 } },
      {
        mass: 0.058,
        prices: [{ kind: 'paid', amount: 19, currency: 'EUR', date: '2026-02-01' }],
      },
    ),
    claims: [carries(5, 48), data(480e6), bends(15_000)],
    asked: true,
    copies: { to: 38.9, from: 40.8, link: 480e6 },
    units: [{ unit: unit('GT240-0093'), looks: [], series: 4, apart: true }],
  },
  {
    model: model(
      'Quernstone',
      'Hawser 240',
      { braid: true, strainRelief: 'moulded' },
      { prices: [{ kind: 'paid', amount: 6.9, currency: 'EUR', date: '2026-02-03' }] },
    ),
    claims: [carries(5, 48), data(480e6), claim({ kind: 'wording', text: 'double braid, double speed' })],
    asked: true,
    copies: null,
    units: [{ unit: unit('QH-7715', { notes: 'From the valley market.' }), looks: [], series: 2 }],
  },
  {
    model: model('Pellwick', 'Long Line', { length: 3 }, { mass: 0.044 }),
    claims: [carries(3, 20), data(480e6)],
    asked: true,
    copies: { to: 29.5, from: 31.1, link: 480e6 },
    units: [{ unit: unit('PL3-0440'), looks: [], series: 3, apart: true }],
  },
  {
    model: model('Tarnhook', 'Bunk Cord', { length: 1.2, strainRelief: 'none' }, { mass: 0.035 }),
    claims: [carries(3, 20), bends(8000)],
    asked: true,
    copies: { to: 37.2, from: 39.9, link: 480e6 },
    units: [
      { unit: unit('BC-0031'), looks: [2000, 4000, 6000, 7000], fault: 'intermittent under wiggle', series: 3 },
      { unit: unit('BC-0032'), looks: [2000, 4000], fault: 'open', series: 0 },
      { unit: unit('BC-0033'), looks: [2000, 4000, 6000], series: 0 },
      { unit: unit('BC-0034'), looks: [2000, 4000, 6000, 8000, 10_000], series: 0 },
      { unit: unit('BC-0035'), looks: [2000, 4000, 6000, 8000, 10_000], fault: 'none', series: 0 },
    ],
  },
  {
    model: model('Mirefold', 'Reach 1', { form: 'extension', ends: ['C plug', 'C socket'] }),
    claims: [carries(3, 20)],
    asked: false,
    copies: null,
    units: [{ unit: unit('MR-118'), looks: [], series: 2 }],
  },
  {
    model: model(
      'Ossory Bay',
      'Plain Pass',
      { form: 'data blocker', ends: ['A plug', 'A socket'], length: 0.05, strainRelief: 'none' },
      { mass: 0.009 },
    ),
    claims: [claim({ kind: 'cable-rating', amps: 2.4, volts: 5 }, 'body')],
    asked: false,
    copies: null,
    units: [{ unit: unit('OP-62'), looks: [], series: 3 }],
  },
];
