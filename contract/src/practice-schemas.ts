// What may be asked of drills.
import { BASES, DRILL_FAULTS, DRILL_LEVELS } from '@lastmark/core/drill';
import { number } from 'yup';
import { id, list, oneOf, record, text } from './parts.ts';

const LEVEL_IDS = DRILL_LEVELS.map((level) => level.id);
const FAULT_IDS = DRILL_FAULTS.map((fault) => fault.id);

export const drillInput = record({
  person: text(60),
  levelId: oneOf(LEVEL_IDS),
  seed: number()
    .strict()
    .integer('${path} is no whole number')
    .min(0, '${path} is below 0')
    .max(1_000_000_000, '${path} is above 1 000 000 000')
    .nullable()
    .defined('${path} is missing'),
});

export const verdictInput = record({
  parts: list(
    record({
      partId: text(26),
      faults: list(record({ id: oneOf(FAULT_IDS), basis: oneOf(BASES) }), FAULT_IDS.length),
    }),
    20,
  ),
});

export const placeInput = record({ sampleId: id() });
