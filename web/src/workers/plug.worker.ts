// Tries every arrangement and simulates the evening, away from the screen.
import {
  type Advice,
  type Arrangement,
  adviseArrangement,
  adviseSeveral,
  eveningWith,
  type Fewer,
  judgeArrangement,
  type KitDevice,
  MOST_TOGETHER,
  type PlugDevice,
  type PlugSource,
  type PlugStation,
  plugCharger,
  plugSource,
  type SeveralAdvice,
  simulateEvening,
  wouldDo,
} from '@lastmark/core/split';
import { createJudge, type Dossier } from '@lastmark/core/verdict';
import { expose } from 'comlink';

/** Another charger: its dossier as far as the judgement reads it. */
export interface OtherCharger {
  readonly id: string;
  readonly dossier: Dossier;
}

/** What is measured counts where anything is; a charger nobody swept is taken at its word. */
function stationOf({ id, dossier }: OtherCharger, by: PlugSource['by']): PlugStation {
  const { splits } = createJudge()(dossier).results;
  const known = by === 'measured' && splits.rule.budgets.length > 0 ? 'measured' : 'promised';
  return { id, mass: dossier.sample.mass, charger: plugCharger(plugSource(dossier, splits, known)) };
}

const work = {
  advise: (source: PlugSource, devices: readonly PlugDevice[]): Advice => {
    const charger = plugCharger(source);
    const advice = adviseArrangement(charger, devices);
    if (!devices.some(({ needs }) => needs)) return advice;
    // Times are kept before watts are counted.
    const [timed] = adviseSeveral([{ id: 'own', charger }], devices).chargers;
    const best = judgeArrangement(charger, devices, timed?.arrangement ?? {});
    const same = JSON.stringify(best.arrangement) === JSON.stringify(advice.best.arrangement);
    return same ? advice : { ...advice, best, runnerUp: advice.best, why: 'Otherwise fewer would be ready in time.' };
  },
  /** One arrangement as it stands: its score and its evening. */
  evening: (source: PlugSource, devices: readonly PlugDevice[], arrangement: Arrangement, seconds: number) => {
    const charger = plugCharger(source);
    return {
      ranked: judgeArrangement(charger, devices, arrangement),
      evening: simulateEvening(charger, devices, arrangement, seconds),
    };
  },
  /** Devices shared among several chargers; which of them would do alone. */
  several: (
    own: { readonly id: string; readonly mass: number | null; readonly source: PlugSource },
    others: readonly OtherCharger[],
    devices: readonly PlugDevice[],
  ): { readonly advice: SeveralAdvice; readonly fewer: readonly Fewer[] } => {
    const stations: PlugStation[] = [
      { id: own.id, mass: own.mass, charger: plugCharger(own.source) },
      ...others.map((other) => stationOf(other, own.source.by)),
    ];
    const fewer = devices.length > MOST_TOGETHER ? [] : wouldDo(stations, devices);
    return { advice: adviseSeveral(stations, devices), fewer };
  },
  /** An evening with some chargers and nothing else. */
  evenings: (
    chargers: readonly OtherCharger[],
    devices: readonly PlugDevice[],
    seconds: number,
  ): readonly KitDevice[] =>
    eveningWith(
      chargers.map((one) => stationOf(one, 'measured')),
      devices,
      seconds,
    ),
};

export type PlugWork = typeof work;

expose(work);
