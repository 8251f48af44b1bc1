// Pictures as data, and as SVG.

export * from './escaped.ts';
export * from './face.ts';
export * from './svg.ts';
export * from './ticks.ts';
export * from './types.ts';
