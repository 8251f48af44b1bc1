// USB Power Delivery objects and messages: decoded, encoded, checked.
export * from './cable-marker.ts';
export * from './check.ts';
export * from './describe.ts';
export * from './finding.ts';
export * from './hex-text.ts';
export { type ExplainedField, explain, wordOf, wordText } from './layout.ts';
export * from './message.ts';
export * from './power-rules.ts';
export * from './request.ts';
export * from './sees.ts';
export * from './source.ts';
export * from './source-extended.ts';
export * from './source-info.ts';
export { sourceLayout } from './source-layouts.ts';
export * from './usable.ts';
