// The tables, one file a subject. Readings are only ever added: a correction is a new row that supersedes.
export * from './schema/bench.ts';
export * from './schema/cables.ts';
export * from './schema/changes.ts';
export * from './schema/compare.ts';
export * from './schema/day.ts';
export * from './schema/files.ts';
export * from './schema/measured.ts';
export * from './schema/methods.ts';
export * from './schema/people.ts';
export * from './schema/practice.ts';
export * from './schema/reports.ts';
export * from './schema/rules.ts';
export * from './schema/runs.ts';
export * from './schema/safety.ts';
export * from './schema/searches.ts';
export * from './schema/shelf.ts';
export * from './schema/traces.ts';
