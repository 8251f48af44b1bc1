// Heat: soaks, what surfaces approach, what happened to the output, touch limits, predictions.
export * from './compare.ts';
export * from './cooling.ts';
export * from './events.ts';
export * from './fit.ts';
export * from './image.ts';
export * from './narrowing.ts';
export * from './predict.ts';
export * from './soak.ts';
export * from './station.ts';
export * from './touch.ts';
