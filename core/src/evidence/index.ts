// Evidence: what each kind of it can prove, and the tests it is put to.
export * from './delivered.ts';
export * from './interval.ts';
export * from './test.ts';
export * from './tolerance.ts';
export * from './types.ts';
