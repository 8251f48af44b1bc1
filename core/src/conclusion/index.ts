// What a sample comes to in words: drafted by rules, kept by a person, bound to the evidence.
export * from './draft.ts';
export * from './languages.ts';
export * from './lines.ts';
export * from './sentences.ts';
