// What may be written of comparisons, and of how samples are filed.
import { MEASURE_IDS } from '@lastmark/core/measure';
import { array, boolean, string } from 'yup';
import { day, id, list, oneOf, optionalText, record, si, text, union } from './parts.ts';

const KINDS = ['wall', 'desktop', 'car', 'cable'] as const;
const range = (most: number) =>
  record({
    from: si(0, most).nullable().defined('${path} is missing'),
    to: si(0, most).nullable().defined('${path} is missing'),
  });
const label = () => text(40);

const rule = union({
  rule: record({
    kind: oneOf(['rule']),
    kinds: list(oneOf(KINDS), KINDS.length),
    watts: range(10_000),
    ports: range(100),
    since: day().nullable().defined('${path} is missing'),
    method: string().strict().max(40, '${path} is longer than 40 characters').nullable().defined('${path} is missing'),
    label: label().nullable().defined('${path} is missing'),
    oneUnit: boolean().strict().defined('${path} is missing'),
  }),
  picked: record({
    kind: oneOf(['picked']),
    picks: list(record({ id: id(), reason: optionalText(200) }), 2000),
  }),
});

const condition = () => string().strict().max(160).nullable().defined('${path} is missing');
const ownId = () =>
  string()
    .strict()
    .matches(/^own-[a-z0-9-]{1,26}$/, '${path} is not the name of an own measure, as own-value')
    .required();
const measure = () =>
  string()
    .strict()
    .test('measure', '${path} is no measure', (value) =>
      value == null ? true : (MEASURE_IDS as readonly string[]).includes(value) || /^own-[a-z0-9-]{1,26}$/.test(value),
    )
    .required();
const wanted = list(record({ measure: measure(), condition: condition() }), 24);

export const comparisonInput = record({
  title: text(80),
  note: optionalText(1000),
  rule,
  measures: wanted,
  own: list(
    record({
      id: ownId(),
      title: text(60),
      formula: text(200),
      better: string()
        .strict()
        .oneOf(['less', 'more'], '${path} must be one of: less, more')
        .nullable()
        .defined('${path} is missing'),
    }),
    12,
  ),
  weights: list(record({ measure: measure(), weight: si(0, 100).required() }), 24),
});

export const setBody = record({ rule, measures: wanted });

export const searchInput = record({ title: text(60), query: text(300) });

export const filingBody = record({
  filings: list(
    record({
      id: id(),
      labels: array(label()).strict().max(12).required(),
      archived: boolean().strict().defined('${path} is missing'),
    }),
    2000,
  ),
});
