// Where things are, and where a run keeps its data.
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

/** Folder of the project. */
export const ROOT = dirname(dirname(dirname(fileURLToPath(import.meta.url))));

/** Folder for database files and logs: LASTMARK_DATA, or .lastmark in the project. */
export const dataFolder = () => resolve(process.env.LASTMARK_DATA ?? join(ROOT, '.lastmark'));
