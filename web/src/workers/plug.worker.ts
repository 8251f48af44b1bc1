// Tries every arrangement and simulates the evening, away from the screen.
import {
  type Arrangement,
  adviseArrangement,
  judgeArrangement,
  type PlugDevice,
  type PlugSource,
  plugCharger,
  simulateEvening,
} from '@lastmark/core/split';
import { expose } from 'comlink';

const work = {
  advise: (source: PlugSource, devices: readonly PlugDevice[]) => adviseArrangement(plugCharger(source), devices),
  /** One arrangement as it stands: its score and its evening. */
  evening: (source: PlugSource, devices: readonly PlugDevice[], arrangement: Arrangement, seconds: number) => {
    const charger = plugCharger(source);
    return {
      ranked: judgeArrangement(charger, devices, arrangement),
      evening: simulateEvening(charger, devices, arrangement, seconds),
    };
  },
};

export type PlugWork = typeof work;

expose(work);
