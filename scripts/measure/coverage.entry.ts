// What the measurement of coverage runs: synthetic chargers by the bench's own laws, read by meters with errors, judged.
export { idleMean, lossWatts } from '../../bench/src/sim/physics.ts';
export { compare, intervalOf } from '../../core/src/decision/index.ts';
export { AVERAGE_LOADS, efficiencySeries } from '../../core/src/efficiency/index.ts';
export { idleResults } from '../../core/src/idle/index.ts';
export { seededNormal, seededRandom } from '../../core/src/random/index.ts';
export { accept } from '../../core/src/reading/index.ts';
export { expandedUncertainty, NO_SPEC } from '../../core/src/uncertainty/index.ts';
