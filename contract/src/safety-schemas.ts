// What may be written of the safety look. Values are SI.
import { CURRENT_FORMS, EARTHS, HOLDS, NETWORKS, POLARITIES, SAFETY_LIMITS, STANDINGS } from '@lastmark/core/safety';
import { boolean } from 'yup';
import { spec } from './bench-schemas.ts';
import { id, list, mains, moment, oneOf, optionalText, portLabel, record, si, text, union } from './parts.ts';

const head = {
  id: id(),
  takenAt: moment().required(),
  note: optionalText(400),
  supersedes: id().nullable().defined(),
  withdrawn: boolean().strict().defined(),
};

const metered = {
  ...head,
  by: record({ person: text(80), standing: oneOf(STANDINGS) }),
  instrumentId: id().nullable().defined(),
  accuracy: spec.nullable().defined(),
};

const check = union({
  touch: record({
    kind: oneOf(['touch']),
    ...metered,
    amps: si(0, 0.1).required(),
    form: oneOf(CURRENT_FORMS),
    network: oneOf(NETWORKS),
    mains: mains(),
    polarity: oneOf(POLARITIES),
    earth: oneOf(EARTHS),
    from: text(80),
    loaded: boolean().strict().defined(),
  }),
  earth: record({
    kind: oneOf(['earth']),
    ...metered,
    ohms: si(0, 1e6).required(),
    testAmps: si(1e-6, 100).required(),
    to: text(80),
  }),
  bond: record({
    kind: oneOf(['bond']),
    ...metered,
    port: portLabel(),
    ohms: si(0, 1e12).required(),
    overRange: boolean().strict().defined(),
  }),
  fit: record({ kind: oneOf(['fit']), ...head, hold: oneOf(HOLDS), reach: si(0, 1).nullable().defined() }),
  mark: record({
    kind: oneOf(['mark']),
    ...head,
    mark: text(60),
    printed: text(120),
    ambient: si(253.15, 423.15).nullable().defined(),
  }),
});

export const safetyCheckBody = record({ check });

/** Whose limits the safety look is held against. */
export const safetyChoice = record({
  setIds: list(oneOf(SAFETY_LIMITS.map((one) => one.id)), SAFETY_LIMITS.length),
  touch: si(1e-6, 0.1).nullable().defined(),
})
  .nullable()
  .optional()
  .default(undefined);
