// Where the files beside the program are. Holds for the sources and for the bundle, both one folder deep.
import { fileURLToPath } from 'node:url';

const beside = (path: string): string => fileURLToPath(new URL(path, import.meta.url));

export const MIGRATIONS = beside('../migrations');
export const WEB = beside('../../web/dist');
export const PACKAGE = beside('../package.json');
export const SCRIPTS = beside('../../scripts');
/** Where backups go: the data folder of this start. */
export const DATA = process.env.LASTMARK_DATA ?? beside('../../.lastmark');
/** The worker threads' program, always as built. */
export const WORKER = beside('../dist/worker.js');
/** The simulated bench’s program, as built. */
export const BENCH = beside('../../bench/dist/main.js');
