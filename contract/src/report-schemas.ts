// What may be written of conclusions and reports.
import { LANGUAGES, SENTENCE_IDS } from '@lastmark/core/conclusion';
import { FATES, LEAVABLE, MOST_OTHERS } from '@lastmark/core/report';
import { array, boolean, string } from 'yup';
import { id, list, oneOf, record, text, union } from './parts.ts';
import { MOST_IN_STUDY } from './report-types.ts';
import { ids, several } from './several.ts';

const wording = () => string().strict().max(1200, '${path} is longer than 1200 characters').optional();
const texts = () => record(Object.fromEntries(LANGUAGES.map((language) => [language, wording()])));

const figure = record({
  name: string()
    .strict()
    .matches(/^[a-z]{1,20}$/, '${path} is not the name of a figure')
    .required(),
  words: string().strict().max(4000).defined('${path} is missing'),
});

/** The conclusion of a sample, line by line. */
export const conclusionInput = record({
  lines: list(
    union({
      sentence: record({
        kind: oneOf(['sentence']),
        id: id(),
        from: text(80),
        sentence: oneOf(SENTENCE_IDS),
        seen: list(figure, 20),
        text: texts(),
        hidden: boolean().strict().defined(),
      }),
      own: record({ kind: oneOf(['own']), id: id(), text: texts() }),
    }),
    300,
  ),
});

/** Which sections it leaves out, and which other samples stand in it: none where nothing is said. */
const chosen = {
  leaves: array(oneOf(LEAVABLE)).strict().max(LEAVABLE.length).optional(),
  otherSamples: array(id()).strict().max(MOST_OTHERS).optional(),
  makerSaw: boolean().strict().optional(),
};
const issued = { id: id(), language: oneOf(LANGUAGES), person: text(80), ...chosen };
const amending = { ...issued, amends: id(), reason: text(1000) };

/** A report as it is asked for: the first of a sample, or one that amends another. */
export const reportBody = record({
  report: union({
    first: record({ kind: oneOf(['first']), ...issued }),
    correction: record({ kind: oneOf(['correction']), ...amending }),
    'follow-up': record({ kind: oneOf(['follow-up']), ...amending, fate: oneOf(FATES) }),
  }),
});

/** A package, by the name of its file. */
export const packageInput = record({ name: text(240) });

export const phraseQuery = record({ language: oneOf(LANGUAGES) }).strict(false);

export const studyQuery = record({ samples: ids(MOST_IN_STUDY, 'samples'), comparison: id().optional() }).strict(false);

export const draftQuery = record({
  language: oneOf(LANGUAGES),
  leaves: several(
    new RegExp(`^(${LEAVABLE.join('|')})(,(${LEAVABLE.join('|')}))*$`),
    '${path} names no section that may be left out',
  ),
  otherSamples: ids(11, 'samples'),
}).strict(false);
