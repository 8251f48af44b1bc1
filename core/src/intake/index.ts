// Taking in samples from a spreadsheet.
export * from './list.ts';
export { type ListedPort, parsePorts } from './ports.ts';
