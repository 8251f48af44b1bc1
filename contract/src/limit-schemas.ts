// Schemas of limit sets and of how points were taken.

import { LIMITED_QUANTITIES, NAMEPLATE_CLASSES } from '@lastmark/core/limits';
import { boolean, string } from 'yup';
import { day, id, list, mains, oneOf, optionalText, record, si, text } from './parts.ts';

const piece = record({
  /** Upper end, W; null for the last one without an end. */
  upTo: si(0.001, 1e6).nullable().defined(),
  inclusive: boolean().strict().defined(),
  constant: si(-1000, 1000).required(),
  perWatt: si(-1000, 1000).required(),
  perLog: si(-1000, 1000).required(),
});

const formula = record({
  quantity: oneOf(LIMITED_QUANTITIES),
  nameplateClass: oneOf(NAMEPLATE_CLASSES),
  pieces: list(piece, 12).min(1, 'A formula has one piece or more'),
});

const worked = record({
  quantity: oneOf(LIMITED_QUANTITIES),
  nameplateClass: oneOf(NAMEPLATE_CLASSES),
  watts: si(0.001, 1e6).required(),
  value: si(0, 1000).required(),
  within: si(0, 1).required(),
});

/** A limit set of the bench's own: piecewise formulas with where they come from and since when they hold. */
export const limitSetInput = record({
  title: text(80),
  jurisdiction: optionalText(80),
  source: text(300),
  checked: day().required(),
  validFrom: day().required(),
  validTo: day().nullable().defined(),
  note: optionalText(400),
  mains: mains(),
  procedureId: text(40),
  adaptiveLow: record({ volts: si(0.5, 60).required(), amps: si(0.01, 20).required() })
    .nullable()
    .defined(),
  formulas: list(formula, 9).min(1, 'The set has no formula. Give at least one'),
  tests: list(worked, 60),
});

const known = (min: number, max: number) => si(min, max).nullable().defined();

/** How points were taken, where no run recorded it. */
export const statedInput = record({
  id: id(),
  setupId: string().strict().max(26).nullable().defined(),
  mains: mains(),
  taken: record({
    warmUp: known(0, 86_400),
    rest: record({ drift: known(0, 1), over: si(0, 86_400).required(), averaged: boolean().strict().defined() })
      .nullable()
      .defined(),
    source: record({
      volts: known(0, 1000),
      hertz: known(0, 1000),
      distortion: known(0, 1),
      crest: known(1, 10),
    }),
  }),
});
