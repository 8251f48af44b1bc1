// What the measurement of meter files runs: the parsing library alone, and the whole reading.
export { LOAD_POINTS } from '../../core/src/efficiency/index.ts';
export { readMeterFile, sniffFile } from '../../core/src/meter-file/index.ts';
export { REGULATORY_PAIR } from '../../core/src/reading/index.ts';
