// Reports: their pictures, their words, and the code they are known by.

export * from './beside.ts';
export * from './changes.ts';
export * from './code.ts';
export * from './fates.ts';
export * from './pictures.ts';
export * from './recorded.ts';
export * from './sections.ts';
export * from './words.ts';
