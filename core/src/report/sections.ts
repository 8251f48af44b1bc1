// Sections of a report that may be left out; what a record must hold always stays.
import { STATIONS_ABOUT, type StationId } from '../station/index.ts';

/** Parts every report has: they are no choice. */
const ALWAYS: readonly StationId[] = ['intake', 'claims', 'verdict'];

export type LeavableId = Exclude<StationId, 'intake' | 'claims' | 'verdict'> | 'limits' | 'photos';

/**
 * What may be left out of a report, in the order of its pages: limit sets, the stations, chosen photos. The conclusion,
 * what the sample is, its promises, and how it was measured stay (ISO/IEC 17025:2017, 7.8.2), and what was left out is said.
 */
export const LEAVABLE: readonly LeavableId[] = [
  'limits',
  ...STATIONS_ABOUT.map(({ id }) => id).filter(
    (id): id is Exclude<LeavableId, 'limits' | 'photos'> => !ALWAYS.includes(id),
  ),
  'photos',
];

/** More samples than so many beside each other nobody compares on paper. */
export const MOST_OTHERS = 11;
