// Copied files, and the links they prove.
export * from './link.ts';
export * from './station.ts';
export * from './table.ts';
export * from './typed.ts';
