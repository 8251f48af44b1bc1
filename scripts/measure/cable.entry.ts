export { seededNormal, seededRandom } from '../../core/src/random/index.ts';
export { repeatsNeeded } from '../../core/src/repeats/index.ts';
export { readDrops, resistanceOf } from '../../core/src/resistance/index.ts';
export { analyseBlocks, analyseMatrix, trialOrder } from '../../core/src/trial/index.ts';
export { difference, expandedUncertainty, NO_SPEC } from '../../core/src/uncertainty/index.ts';
