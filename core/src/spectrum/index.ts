// Spectra of evenly sampled signals, and the lines in them.
export * from './lines.ts';
export * from './picture.ts';
export * from './power.ts';
