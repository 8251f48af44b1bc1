// A body on its plug pulls at the socket sideways.
import { GRAVITY, LEVER } from './limits.ts';

/**
 * What a plug-in body bears on the socket, N·m: its weight times how far its centre of gravity hangs in front of the axis.
 * @param mass kg, plug included
 * @param reach m from the face of the socket to the centre of gravity
 * @returns null for what is no mass or no reach
 * @example leverOf(0.3, 0.04) // 0.1412
 */
export const leverOf = (mass: number | null, reach: number | null): number | null =>
  mass !== null && reach !== null && mass > 0 && reach >= 0 && Number.isFinite(mass * reach)
    ? mass * GRAVITY * (reach + LEVER.behind)
    : null;
