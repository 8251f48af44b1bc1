// A device as it comes to an evening: its level, when it comes, what it must have by when; and how it fills, from its charges.
import type { StoredDevice } from '@lastmark/contract/types';
import { type DeviceEvidence, type DeviceProfile, profileOf } from '@lastmark/core/charge';
import { demandShown, type PlugDevice, plugDevice } from '@lastmark/core/split';

/** How one device comes to the evening, as typed. */
export interface Coming {
  readonly level: string;
  readonly comes: string;
  readonly staysOn: boolean;
  /** Level it needs, %, and after how many hours; empty for none. */
  readonly needs?: string | undefined;
  readonly by?: string | undefined;
}
export const USUAL: Coming = { level: '20', comes: '0', staysOn: false };

const EVENING_HOURS = 12;

const numberIn = (text: string, low: number, high: number, otherwise: number): number => {
  const value = Number(text.replace(',', '.'));
  return text.trim() !== '' && Number.isFinite(value) ? Math.min(high, Math.max(low, value)) : otherwise;
};

/** What every device was seen to do, by its id; left out where its charges tell no course. */
export function profilesOf(evidence: DeviceEvidence | undefined): ReadonlyMap<string, DeviceProfile> {
  const ids = new Set(evidence?.charges.map(({ deviceId }) => deviceId));
  return new Map(
    [...ids].flatMap((id) => {
      const own = evidence?.charges.filter(({ deviceId }) => deviceId === id) ?? [];
      const profile = profileOf(own.flatMap(({ course }) => course ?? []));
      return profile ? [[id, profile] as const] : [];
    }),
  );
}

export function toPlug(
  device: StoredDevice,
  { level, comes, staysOn, needs = '', by = '' }: Coming,
  profile: DeviceProfile | undefined,
): PlugDevice {
  const known = plugDevice(device, profile?.top);
  const wanted = numberIn(needs, 0, 100, 0) / 100;
  return {
    ...known,
    level: numberIn(level, 0, 100, 20) / 100,
    comes: numberIn(comes, 0, EVENING_HOURS, 0) * 3600,
    staysOn,
    needs: wanted > 0 ? { level: wanted, by: numberIn(by, 0, EVENING_HOURS, EVENING_HOURS) * 3600 } : null,
    ...(profile ? demandShown(profile, known.watts) : {}),
  };
}
