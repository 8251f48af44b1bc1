// Where the points of a rig's thermometer stand: the room, and places of the sample.

export const POINT_PLACES = ['room', 'front', 'back', 'side', 'plug', 'device', 'elsewhere'] as const;
export type PointPlace = (typeof POINT_PLACES)[number];

/** In the order a thermometer tells them, where a rig says nothing else: the room first. */
export const USUAL_POINTS: readonly PointPlace[] = ['room', 'front', 'back', 'side', 'plug'];

/** Most points one thermometer tells. */
export const MOST_POINTS = 16;

const placeAt = (points: readonly PointPlace[] | null | undefined, index: number): PointPlace =>
  (points ?? USUAL_POINTS)[index] ?? 'elsewhere';

/**
 * What a thermometer told, as the room and the hottest of the others, in the unit it was told in.
 *
 * @param told one value a point, null where it told nothing
 * @param points where they stand; left out for the usual ones
 * @returns null where nothing was told
 * @example roomAndHottest([41, 23.5, 52], ['front', 'room', 'plug']) // { room: 23.5, hottest: 52 }
 */
export function roomAndHottest(
  told: readonly (number | null)[],
  points?: readonly PointPlace[] | null,
): { readonly room: number | null; readonly hottest: number | null } {
  const known = told.flatMap((value, index) =>
    value !== null && Number.isFinite(value) ? [{ value, place: placeAt(points, index) }] : [],
  );
  const others = known.filter(({ place }) => place !== 'room').map(({ value }) => value);
  return {
    room: known.find(({ place }) => place === 'room')?.value ?? null,
    hottest: others.length > 0 ? Math.max(...others) : null,
  };
}

/**
 * A name for each point: its place, counted where several stand at one.
 * @example pointNames(3, ['room', 'front', 'front']) // ['ambient', 'front', 'front 2']
 */
export function pointNames(count: number, points?: readonly PointPlace[] | null): readonly string[] {
  const names: string[] = [];
  const seen = new Map<PointPlace, number>();
  for (let index = 0; index < count; index += 1) {
    const place = placeAt(points, index);
    const before = seen.get(place) ?? 0;
    seen.set(place, before + 1);
    const name = place === 'room' ? 'ambient' : place === 'elsewhere' ? 'point' : place;
    names.push(
      before > 0 || place === 'elsewhere' ? `${name} ${place === 'elsewhere' ? index + 1 : before + 1}` : name,
    );
  }
  return names;
}

/**
 * Places typed in a line: "room, front, back".
 * @returns the places, or the word that is none
 * @example pointsTyped('Room front; plug') // ['room', 'front', 'plug']
 */
export function pointsTyped(text: string): readonly PointPlace[] | { readonly unknown: string } {
  const words = text
    .toLowerCase()
    .split(/[\s,;]+/)
    .filter(Boolean);
  const unknown = words.find((word) => !POINT_PLACES.includes(word as PointPlace));
  return unknown === undefined ? (words as PointPlace[]) : { unknown };
}
