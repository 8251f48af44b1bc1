// Several samples beside each other: every measure under the one condition most of them share, as rows and as bars.
import { sharedConditions } from '../compare/index.ts';
import { inLanguage, type Language } from '../conclusion/index.ts';
import { MEASURES, type MeasureId, type MeasureValue, measureWords } from '../measure/index.ts';
import type { Bars } from '../picture/index.ts';

/** A sample with its values, under the name it has in the report. */
export interface SampleValues {
  readonly name: string;
  readonly values: readonly MeasureValue[];
}

export interface BesideRow {
  readonly measure: MeasureId;
  readonly title: string;
  /** Which way is better; null for neither. */
  readonly better: 'less' | 'more' | null;
  readonly condition: string;
  /** A cell a sample; null where it has no value under the condition. */
  readonly cells: readonly ({ readonly words: string; readonly value: MeasureValue } | null)[];
}

const DE: Readonly<Record<MeasureId, string>> = {
  watts: 'Nennleistung',
  ports: 'Anschlüsse',
  mass: 'Masse',
  volume: 'Volumen',
  'mass-per-watt': 'Masse je Watt',
  'size-per-watt': 'Volumen je Watt',
  price: 'Preis',
  'price-per-watt': 'Preis je Watt',
  'price-per-port': 'Preis je Anschluss',
  'price-per-metre': 'Preis je Meter',
  'proven-share': 'Belegte Zusagen',
  hold: 'Volle Leistung gehalten',
  idle: 'Leerlauf',
  'use-loss': 'Verlust in einem Jahr Gebrauch',
  'average-efficiency': 'Mittlerer Wirkungsgrad',
  'light-load-efficiency': 'Wirkungsgrad bei 10 % Last',
  'full-load-loss': 'Verlust bei voller Last',
  served: 'Leistung für meine Geräte',
  'charge-time': 'Ladezeit',
  ripple: 'Welligkeit',
  'touch-rise': 'Erwärmung der wärmsten Stelle',
  'rise-per-watt': 'Erwärmung je Watt Verlust',
  length: 'Länge',
  'loop-resistance': 'Widerstand hin und zurück',
  'resistance-per-metre': 'Widerstand je Meter',
  bends: 'Biegungen überstanden',
};

/** Title of a measure in a language. */
export const measureTitle = (id: MeasureId, language: Language): string =>
  language === 'de' ? DE[id] : (MEASURES.find((one) => one.id === id)?.title ?? id);

/** Money takes its currency from the condition it stands under. */
const moneyOf = (condition: string): string => /^[A-Z]{3}(?=, )/.exec(condition)?.[0] ?? '';

/**
 * Measures at least two samples have under one condition, in the order of the work. Where several conditions are shared by as
 * many, the first by name; values under another are left out, never mixed in.
 */
export function besideMeasures(samples: readonly SampleValues[], language: Language): readonly BesideRow[] {
  return MEASURES.flatMap((about): BesideRow[] => {
    const all = samples.flatMap(({ values }, at) =>
      values
        .filter(({ measure }) => measure === about.id)
        .map((value) => ({ id: String(at), condition: value.condition })),
    );
    const [most] = sharedConditions(all);
    if (!most || most.count < 2) return [];
    const { condition } = most;
    const money = about.dimension.startsWith('money') ? `${moneyOf(condition)} ` : '';
    return [
      {
        measure: about.id,
        title: measureTitle(about.id, language),
        better: about.better,
        condition: inLanguage(condition, language),
        cells: samples.map(({ values }) => {
          const value = values.find((one) => one.measure === about.id && one.condition === condition);
          return value ? { words: `${money}${inLanguage(measureWords(about, value), language)}`, value } : null;
        }),
      },
    ];
  });
}

/** Bars of the measures that have a better side, a bar a sample. */
export const besidePictures = (samples: readonly SampleValues[], language: Language): readonly Bars[] =>
  besideMeasures(samples, language)
    .filter(({ better }) => better !== null)
    .map(({ measure, title, condition, cells }): Bars => {
      const about = MEASURES.find(({ id }) => id === measure);
      const factor = about?.factor ?? 1;
      const unit = about?.unit ?? '';
      return {
        kind: 'bars',
        id: `beside-${measure}`,
        title: condition === '' ? title : `${title}: ${condition}`,
        caption: language === 'de' ? 'Die Striche sind U (k = 2).' : 'Whiskers are U (k = 2).',
        x: unit === '' ? title : `${title}, ${unit}`,
        table: [
          ['sample', 'value', 'standard_uncertainty', 'unit', 'condition'],
          ...samples.map(({ name }, at) => {
            const value = cells[at]?.value;
            return [name, value?.value ?? null, value?.u ?? null, 'SI', value?.condition ?? ''];
          }),
        ],
        bars: samples.map(({ name }, at) => {
          const cell = cells[at];
          return {
            name,
            value: cell ? cell.value.value * factor : null,
            whisker: cell?.value.u ? 2 * cell.value.u * Math.abs(factor) : undefined,
            words: cell?.words ?? '–',
          };
        }),
      };
    });
