// Taking in samples from a spreadsheet.
export * from './list.ts';
