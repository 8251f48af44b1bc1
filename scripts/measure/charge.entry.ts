export { chargeOf, predictCharge, profileOf } from '../../core/src/charge/index.ts';
export { seededNormal, seededRandom } from '../../core/src/random/index.ts';
export { readTrace } from '../../core/src/trace/index.ts';
