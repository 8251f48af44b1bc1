// Writing a study: several samples, each a whole package, with the trials among them and the comparison they are of.
import { MOST_IN_STUDY, type StoredTrial } from '@lastmark/contract';
import { quantityOf } from '@lastmark/core/quantity';
import { csvText, type Field } from '@lastmark/core/table';
import { standingRuns, type Trial } from '@lastmark/core/trial';
import { strToU8 } from 'fflate';
import { getComparison } from '../compare/store.ts';
import type { Database } from '../db/database.ts';
import type { TableField } from '../export/fields.ts';
import { refused } from '../http/problem.ts';
import { getTrial } from '../trials/store.ts';
import { ROWS, STUDY_FORM, STUDY_VERSION } from './form.ts';
import { packedRows, SPANNING, trialsWithin } from './rows.ts';
import { trialsSchema } from './schema.ts';
import { json, Packing, packageOf, plainName } from './write.ts';

/** What a study is of: chosen samples, or those a comparison was kept with. */
export interface StudyOf {
  readonly sampleIds: readonly string[] | null;
  readonly comparisonId: string | null;
}

const RUN_FIELDS: readonly TableField[] = [
  { name: 'trial', type: 'string', description: 'ULID of the trial' },
  { name: 'question', type: 'string', description: 'What it settles' },
  { name: 'run', type: 'string', description: 'ULID of the run' },
  { name: 'block', type: 'integer', description: 'Pair or repeat it belongs to, from 1' },
  { name: 'what', type: 'string', description: 'Which of what is compared; of a table one of each' },
  { name: 'value', type: 'number', description: 'What was measured, in the SI unit of its line' },
  { name: 'unit', type: 'string', description: 'SI unit of the value' },
  { name: 'taken_at', type: 'datetime', description: 'When it was taken, UTC, ISO 8601' },
];

/** Which of what is compared a run was of, by name. */
const whatOf = (trial: Trial, cell: readonly number[]): string => {
  const lists = trial.kind === 'blocks' ? [trial.arms] : trial.factors.map(({ levels }) => levels);
  return lists.map((list, at) => list[cell[at] ?? -1]?.name ?? '').join(' × ');
};

/** Standing runs of trials, one a line, as they were taken. */
export function trialsCsv(trials: readonly StoredTrial[]): string {
  const rows = trials.flatMap(({ id, trial, runs }) =>
    standingRuns(runs).map((run): readonly Field[] => [
      id,
      trial.question,
      run.id,
      run.block + 1,
      whatOf(trial, run.cell),
      run.value,
      quantityOf(trial.measure.quantity).si,
      run.takenAt,
    ]),
  );
  return csvText([RUN_FIELDS.map(({ name }) => name), ...rows]);
}

/**
 * Several samples as one archive: a package of each, trials whose samples all are among them, and what they were compared by.
 * Trials in which somebody still has to stay blind stay here.
 * @throws 404 for a sample or a comparison that is not there, 422 where there are none or too many
 */
export async function studyOf(
  db: Database,
  { sampleIds, comparisonId }: StudyOf,
  made = new Date(),
): Promise<{ name: string; bytes: Uint8Array }> {
  const comparison = comparisonId === null ? null : await getComparison(db, comparisonId);
  const ids = [...new Set(sampleIds ?? comparison?.members ?? [])];
  if (ids.length === 0) throw refused('samples', 'There is no sample in it.');
  if (ids.length > MOST_IN_STUDY)
    throw refused('samples', `A study has ${MOST_IN_STUDY} samples at most; these are ${ids.length}. Narrow the set.`);
  const packing = new Packing();
  const samples: { id: string; title: string; file: string }[] = [];
  for (const id of ids) {
    const { name, title, bytes } = await packageOf(db, id, made);
    const file = `samples/${id}-${plainName(name)}`;
    packing.add(file, bytes, 'package of a sample', 0);
    samples.push({ id, title, file });
  }
  const trialIds = await trialsWithin(db, ids);
  const trials = await Promise.all(trialIds.map((id) => getTrial(db, id)));
  packing.add(ROWS, json(await packedRows(db, SPANNING, { trialIds, comparisonId })), 'rows');
  if (trials.length > 0) {
    packing.add('trials.json', json(trials), 'trials');
    packing.add('trials.schema.json', json(trialsSchema()), 'trials schema');
    packing.add('tables/trials.csv', strToU8(trialsCsv(trials)), 'table');
    packing.add('tables/trials.schema.json', json({ path: 'trials.csv', fields: RUN_FIELDS }), 'table schema');
  }
  if (comparison) packing.add('comparison.json', json(comparison), 'comparison');
  const title = comparison?.title ?? (samples.length === 1 ? (samples[0]?.title ?? '') : `${samples.length} samples`);
  const bytes = packing.done({ form: STUDY_FORM, version: STUDY_VERSION, made: made.toISOString(), title, samples });
  return { name: `${title}.study.zip`, bytes };
}
