// Every view there is, as the folders that draw them list theirs: for the journeys that look at all of them, and for the pictures.
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './paths.mjs';

const WEB = join(ROOT, 'web', 'src');
const read = (...path) => JSON.parse(readFileSync(join(WEB, ...path, 'views.json'), 'utf8'));

/**
 * All views. A station's folder without its list is an error: nobody would look at it.
 * @returns for each its name; its path, where {id} stands for the sample; the sample by serial: null for one without
 * anything, undefined where no sample is looked at; the name of its picture, if one is taken
 */
export function allViews() {
  const folders = readdirSync(join(WEB, 'stations'), { withFileTypes: true }).filter((entry) => entry.isDirectory());
  const stations = folders.flatMap(({ name: id }) =>
    read('stations', id).map(({ query, ...view }) => ({ ...view, path: `/samples/{id}/${id}${query}` })),
  );
  return [...read('app'), ...stations];
}
