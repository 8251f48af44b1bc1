// What the measurements of traces use of the core.
export { soakOf } from '@lastmark/core/heat';
export { seededNormal, seededRandom } from '@lastmark/core/random';
export { rippleOf } from '@lastmark/core/ripple';
export { packTrace, readTrace, TraceReader } from '@lastmark/core/trace';
