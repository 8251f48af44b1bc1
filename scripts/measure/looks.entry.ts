// What the measurement of a long soak runs: the memory of what instruments told.
export { Looks } from '../../server/src/runner/looks.ts';
