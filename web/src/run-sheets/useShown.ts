// What the meters of a rig show at this moment, as a person would type it.

import type { SheetRun } from '@lastmark/contract/plan';
import type { StoredRig } from '@lastmark/contract/types';
import { toldNumber } from '@lastmark/core/instrument';
import { loadedPlaces } from '@lastmark/core/plan';
import { fixed, type QuantityId } from '@lastmark/core/quantity';
import { useQuery } from '@tanstack/react-query';
import { dossierQuery } from '../api/queries.ts';
import { useLive } from '../state/useLive.ts';
import type { Asked } from './RecordFields.tsx';

/** What an instrument told last, by port; null where it told no such thing. */
export function useTold(run: SheetRun, wanted: boolean) {
  const live = useLive(wanted);
  const { data: dossier } = useQuery(dossierQuery(run.sample.id));
  const ports = dossier ? loadedPlaces(dossier.sample.model) : [];
  const told = (id: string | null | undefined, quantity: QuantityId, port: string | null): number | null => {
    const event = live.events.find(({ instrumentId }) => instrumentId === id);
    return event
      ? toldNumber(event.class, event.values, quantity, port === null ? null : ports.indexOf(port) + 1)
      : null;
  };
  return { told, live };
}

/** @param wanted whether somebody types now */
export function useShown(run: SheetRun, rig: StoredRig | undefined, wanted: boolean): (asked: Asked) => string {
  const { told } = useTold(run, wanted);
  return ({ quantity, place, port }) => {
    if (!rig) return '';
    const { mains, outputVolts, outputAmps } = rig.meters;
    if (place === 'mains') {
      const watts = quantity === 'power' ? told(mains, 'power', null) : null;
      return watts === null ? '' : `${fixed(watts, 2)} W`;
    }
    const [volts, amps] = [told(outputVolts, 'voltage', port), told(outputAmps, 'current', port)];
    if (quantity === 'voltage') return volts === null ? '' : `${fixed(volts, 3)} V`;
    if (quantity === 'current') return amps === null ? '' : `${fixed(amps, 4)} A`;
    return quantity === 'power' && volts !== null && amps !== null ? `${fixed(volts * amps, 3)} W` : '';
  };
}
