// How long a sample takes to cool, by its own soaks.
import { type SoakRecord, standingSoaks } from './station.ts';

/** What may be left of its rise when it counts as cold. */
const LEFT = 0.05;

interface Sensors {
  readonly sensors?: readonly { readonly name: string; readonly timeConstants: readonly number[] }[];
}

/**
 * Time until a twentieth is left of the rise over the room, by the slowest time constant its soaks were fitted with: a body cools
 * as it warmed while the air about it is the same, θ = θ₀·e^(−t/τ).
 * @returns s; null where no soak tells
 * @example coolingSeconds(soaksWithTauOf(840)) // 2516 s, 42 min
 */
export function coolingSeconds(captures: readonly SoakRecord[]): number | null {
  const taus = standingSoaks(captures).flatMap(({ figures }) =>
    figures.kind === 'soak'
      ? ((figures as Sensors).sensors ?? []).filter(({ name }) => name !== 'room').flatMap((one) => one.timeConstants)
      : [],
  );
  const known = taus.filter((tau) => Number.isFinite(tau) && tau > 0);
  return known.length > 0 ? Math.max(...known) * Math.log(1 / LEFT) : null;
}
