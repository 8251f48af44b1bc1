// What every station is called and which claims it touches: one line a station, light enough for the first view.
import type { ClaimKind } from '../promise/index.ts';

export interface StationAbout {
  readonly id: string;
  readonly title: string;
  /** Kinds of samples that have the station; left out for all of them. */
  readonly kinds?: readonly string[];
  /** Claims shown beside it; null for all. */
  readonly touches: readonly ClaimKind[] | null;
  /** Claims whose worst state is its own. */
  readonly settles: readonly ClaimKind[];
}

/** What gives power, and what carries it. */
const CHARGERS = ['wall', 'desktop', 'car'] as const;
const CABLES = ['cable'] as const;

/** Stations in the order of the work. */
export const STATIONS_ABOUT = [
  { id: 'intake', title: 'Intake', touches: null, settles: [] },
  { id: 'claims', title: 'Claims', touches: null, settles: [] },
  { id: 'read-out', title: 'Read-out', kinds: CHARGERS, touches: ['port-line', 'range', 'signal'], settles: [] },
  {
    id: 'proof',
    title: 'Proof',
    kinds: CHARGERS,
    touches: ['port-line', 'range', 'total', 'combination'],
    settles: ['port-line', 'range', 'total'],
  },
  { id: 'splits', title: 'Splits', kinds: CHARGERS, touches: ['combination', 'total'], settles: ['combination'] },
  {
    id: 'devices',
    title: 'Devices',
    kinds: CHARGERS,
    touches: ['charge-time', 'port-line', 'total'],
    settles: ['charge-time'],
  },
  { id: 'idle', title: 'Idle', kinds: CHARGERS, touches: ['idle'], settles: ['idle'] },
  {
    id: 'efficiency',
    title: 'Efficiency',
    kinds: CHARGERS,
    touches: ['average-efficiency', 'port-line', 'total', 'combination'],
    settles: ['average-efficiency'],
  },
  { id: 'ripple', title: 'Ripple', kinds: CHARGERS, touches: ['ripple'], settles: ['ripple'] },
  { id: 'heat', title: 'Heat', kinds: CHARGERS, touches: ['surface'], settles: ['surface'] },
  { id: 'safety', title: 'Safety', kinds: CHARGERS, touches: [], settles: [] },
  { id: 'marker', title: 'Marker', kinds: CABLES, touches: ['cable-rating', 'data-rate'], settles: [] },
  { id: 'resistance', title: 'Resistance', kinds: CABLES, touches: ['cable-rating'], settles: ['cable-rating'] },
  { id: 'data', title: 'Data', kinds: CABLES, touches: ['data-rate'], settles: ['data-rate'] },
  { id: 'bends', title: 'Bends', kinds: CABLES, touches: ['bends'], settles: ['bends'] },
  { id: 'verdict', title: 'Verdict', touches: null, settles: [] },
] as const satisfies readonly StationAbout[];

export type StationId = (typeof STATIONS_ABOUT)[number]['id'];

/** The stations a kind of sample has, in the order of the work. */
export const stationsOf = <S extends StationAbout>(stations: readonly S[], kind: string): readonly S[] =>
  stations.filter(({ kinds }) => kinds?.includes(kind) ?? true);

/** What a station is called and touches, by its id; to spread over the station itself. */
export function aboutStation<Id extends StationId>(id: Id): StationAbout & { readonly id: Id } {
  const about = STATIONS_ABOUT.find((one) => one.id === id);
  if (!about) throw new RangeError(`There is no station ${id}.`);
  return { ...about, id };
}
