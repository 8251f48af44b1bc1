// What the measurement of arrangements runs.
export {
  adviseArrangement,
  adviseSeveral,
  inferRule,
  simulateEvening,
  sweepSets,
  USUAL_PROFILE,
} from '../../core/src/split/index.ts';
export { measured } from '../../core/src/uncertainty/index.ts';
