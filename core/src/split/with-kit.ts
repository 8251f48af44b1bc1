// An evening with a kit of chargers: every device in the best place there is, and when each is full.

import type { PlugDevice } from './devices.ts';
import { simulateEvening } from './evening.ts';
import { adviseSeveral, type PlugStation } from './several.ts';

/** How a device fares in an evening with a kit. */
export interface KitDevice {
  readonly id: string;
  /** The charger it hangs on; null where it waits for a port. */
  readonly charger: string | null;
  /** s until full; null where it is not by the end, has no battery, or nobody knows what it gets. */
  readonly fullAt: number | null;
  /** Level at the end, 0…1; null without a battery, and where nobody knows what it gets. */
  readonly level: number | null;
  /** Nothing says what its port gives. */
  readonly unknown: boolean;
}

/**
 * Every device plugged in as is best for all, and left for some time.
 * @param seconds how long the evening lasts, above 0
 * @returns in the order of the devices
 * @throws RangeError for an evening without length, or more chargers and devices than are tried
 */
export function eveningWith(
  stations: readonly PlugStation[],
  devices: readonly PlugDevice[],
  seconds: number,
): readonly KitDevice[] {
  if (!(seconds > 0) || !Number.isFinite(seconds)) throw new RangeError('An evening lasts for some time.');
  if (stations.length === 0 || devices.length === 0)
    return devices.map(({ id, battery, level }) => ({
      id,
      charger: null,
      fullAt: null,
      level: battery === null ? null : level,
      unknown: false,
    }));
  const { chargers } = adviseSeveral(stations, devices);
  return devices.map((device): KitDevice => {
    const place = chargers.find(({ arrangement }) => arrangement[device.id] !== undefined);
    const station = stations.find(({ id }) => id === place?.id);
    const none = device.battery === null;
    if (!place || !station)
      return { id: device.id, charger: null, fullAt: null, level: none ? null : device.level, unknown: false };
    if (place.ranked.met[device.id]?.watts == null)
      return { id: device.id, charger: place.id, fullAt: null, level: null, unknown: true };
    const evening = simulateEvening(station.charger, devices, place.arrangement, seconds);
    const own = evening.devices.find(({ id }) => id === device.id);
    return {
      id: device.id,
      charger: place.id,
      fullAt: own?.fullAt ?? null,
      level: none ? null : (own?.levels.at(-1) ?? null),
      unknown: false,
    };
  });
}
