// Whole charges: from a log to stages, times, and what came after full.
export * from './board.ts';
export * from './compare.ts';
export * from './course.ts';
export * from './ending.ts';
export * from './level.ts';
export * from './profile.ts';
export * from './series.ts';
export * from './session.ts';
export * from './settled.ts';
export * from './stages.ts';
export * from './station.ts';
export * from './words.ts';
