// The published schema of `sample.json`: what every part of a sample looks like, beside it in each package.
import { ANSWERS, type Operation, type Shape } from '@lastmark/contract';

/** A newer Lastmark may write more than this one knows: readers pass over it. */
function open({ additionalProperties, properties, items, ...rest }: Shape): Shape {
  return {
    ...rest,
    ...(properties && {
      properties: Object.fromEntries(Object.entries(properties).map(([name, shape]) => [name, open(shape)])),
    }),
    ...(items && { items: open(items) }),
    ...(additionalProperties ? { additionalProperties: open(additionalProperties) } : {}),
  };
}

function shapeOf(operation: Operation): Shape {
  const known = ANSWERS[operation];
  if (!known) throw new RangeError(`The answer of ${operation} is not described.`);
  return open(known.shape);
}

/** One entry of a list that is answered. */
const entryOf = (operation: Operation): Shape => shapeOf(operation).properties?.items?.items ?? {};

/** The same with where its file lies in the archive. */
const withPath = (shape: Shape): Shape => ({
  ...shape,
  properties: { ...shape.properties, path: { type: 'string' } },
  required: [...(shape.required ?? []), 'path'].sort(),
});

const PARTS = ['dossier', 'conclusion', 'sheets', 'attachments', 'reports'] as const;

const DRAFT = 'https://json-schema.org/draft/2020-12/schema';

/** What trials of a study look like. */
export const trialsSchema = (): Readonly<Record<string, unknown>> => ({
  $schema: DRAFT,
  title: 'Trials of Lastmark',
  description:
    'Trials as planned, with their runs. Values are in SI units without prefixes; moments are UTC, ISO 8601.',
  type: 'array',
  items: shapeOf('getTrial'),
});

/** JSON Schema, draft 2020-12. */
export function sampleSchema(): Readonly<Record<string, unknown>> {
  const dossier = shapeOf('getDossier');
  const { revisions: _, ...parts } = dossier.properties ?? {};
  const list = (operation: Operation): Shape => ({ type: 'array', items: entryOf(operation) });
  const properties: Readonly<Record<(typeof PARTS)[number], Shape>> = {
    // A dossier is always whole here.
    dossier: { ...dossier, properties: parts, required: Object.keys(parts).sort() },
    conclusion: shapeOf('getConclusion'),
    sheets: list('listSheets'),
    attachments: { type: 'array', items: withPath(entryOf('listAttachments')) },
    reports: { type: 'array', items: withPath(entryOf('listReports')) },
  };
  return {
    $schema: DRAFT,
    title: 'A sample of Lastmark',
    description: 'Everything known of one sample. Values are in SI units without prefixes; moments are UTC, ISO 8601.',
    type: 'object',
    required: PARTS,
    properties,
  };
}
