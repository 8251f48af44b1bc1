// What may be written of things that sit in the line: their intake, what was done with them, and trials. Values are SI.
import { BEND_COUNTS } from '@lastmark/core/bends';
import { BEND_FAULTS, CHARGES, DIRECTIONS, ENDS, RELIEFS, SIDES } from '@lastmark/core/cable';
import { QUANTITIES } from '@lastmark/core/quantity';
import { ELEMENT_KINDS } from '@lastmark/core/reading';
import { boolean, string } from 'yup';
import { id, list, moment, oneOf, optionalText, record, si, text, union, whole } from './parts.ts';

export const cableFacts = record({
  form: oneOf(ELEMENT_KINDS),
  length: si(0.005, 100).nullable().defined(),
  ends: list(oneOf(ENDS), 2).min(2, 'It has two ends'),
  braid: boolean().strict().defined(),
  strainRelief: oneOf(RELIEFS),
  stiffness: union(
    {
      droop: record({ how: oneOf(['droop']), over: si(0.01, 5).required(), droop: si(0, 5).required() }),
      'bend radius': record({ how: oneOf(['bend radius']), radius: si(0.001, 1).required() }),
    },
    true,
    'how',
  ),
  pack: whole(1, 1000).required(),
});

const bends = () => whole(0, 10_000_000).required();
const runHead = {
  id: id(),
  takenAt: moment().required(),
  bends: bends(),
  note: optionalText(400),
  supersedes: id().nullable().defined(),
  withdrawn: boolean().strict().defined(),
};
const volts = () => si(-60, 60).nullable().defined();
const link = () => si(1e6, 1e12).nullable().defined();

export const cableRunInput = union({
  resistance: record({
    kind: oneOf(['resistance']),
    ...runHead,
    rigId: id(),
    how: oneOf(['four wires', 'two meters']),
    side: oneOf(SIDES),
    steps: list(
      record({
        amps: si(0, 20).required(),
        near: volts(),
        far: volts(),
        drop: volts(),
        temperature: si(200, 450).nullable().defined(),
      }),
      200,
    ).min(1, 'A series has one reading or more'),
  }),
  copy: record({
    kind: oneOf(['copy']),
    ...runHead,
    mix: text(80),
    direction: oneOf(DIRECTIONS),
    bytes: si(1, 1e15).required(),
    seconds: si(0.001, 1e6).required(),
    host: text(120),
    link: link(),
    hostLink: link(),
    errors: whole(0, 1_000_000).required(),
    fellBack: boolean().strict().defined(),
  }),
  bend: record({
    kind: oneOf(['bend']),
    ...runHead,
    count: bends(),
    angle: si(1, 360).required(),
    radius: si(0.0001, 1).required(),
    tension: si(0, 1000).nullable().defined(),
    rate: si(0.01, 1000).required(),
    fault: oneOf(BEND_FAULTS),
    charging: oneOf(CHARGES),
    wiggle: record({
      quantity: oneOf(['voltage', 'current']),
      seconds: si(0, 1e6).required(),
      interruptions: whole(0, 1_000_000).required(),
      longest: si(0, 1e6).required(),
      silent: si(0, 1e6).optional(),
      outline: list(record({ least: si(-100, 100).required(), most: si(-100, 100).required() }), 100).min(
        1,
        'A trace has an outline',
      ),
    })
      .nullable()
      .defined(),
  }),
});

export const cableRunBody = record({ run: cableRunInput });

/** How this bench bends. */
export const bendMethod = record({
  to: oneOf(BEND_COUNTS),
  margin: si(0, 5).required(),
  count: whole(1, 10_000_000).required(),
  angle: si(1, 360).required(),
  radius: si(0.0001, 1).required(),
  tension: si(0, 1000).nullable().defined(),
  rate: si(0.01, 1000).required(),
  looks: whole(1, 100).required(),
})
  .nullable()
  .optional()
  .default(undefined);

const arm = record({ name: text(60), sampleId: id().nullable().defined() });
const arms = (most: number) =>
  list(arm, most)
    .min(2, 'Two or more are compared')
    .test('unlike', 'Two have the same name; give each its own', (all) => {
      const names = (all as { name?: string }[] | undefined)?.map(({ name }) => name?.toLowerCase()) ?? [];
      return new Set(names).size === names.length;
    });

const trialHead = {
  question: text(200),
  measure: record({
    name: text(60),
    quantity: oneOf(QUANTITIES.map(({ id: one }) => one)),
    better: string().strict().oneOf(['lower', 'higher']).nullable().defined(),
  }),
  held: list(record({ name: text(60), value: text(80) }), 12),
  blocks: whole(1, 200).required(),
  seed: whole(0, 4_294_967_295).required(),
};

export const trialInput = record({
  trial: union({
    blocks: record({
      kind: oneOf(['blocks']),
      ...trialHead,
      factor: text(40),
      arms: arms(8),
      matters: si(0, 1e9).nullable().defined(),
      expected: si(0, 1e9).nullable().defined(),
      blind: boolean().strict().defined(),
    }),
    matrix: record({
      kind: oneOf(['matrix']),
      ...trialHead,
      factors: list(record({ name: text(40), levels: arms(12) }), 3).min(2, 'A table has two things or three'),
    }),
  }),
});

export const trialRunBody = record({
  run: record({
    id: id(),
    block: whole(0, 199).required(),
    cell: list(whole(0, 11).required(), 3).min(1, 'Say which it was'),
    value: si(-1e9, 1e9).required(),
    held: list(record({ name: text(60), value: text(80) }), 12),
    note: optionalText(400),
    takenAt: moment().required(),
    supersedes: id().nullable().defined(),
    withdrawn: boolean().strict().defined(),
  }),
});

export const trialListQuery = record({ sampleId: id().optional() }).strict(false);
