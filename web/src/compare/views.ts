// A set with its measures as the pictures and tables of a comparison take them.
import type {
  ComparisonBody,
  MeasureColumn,
  OwnMeasure,
  SetAnswer,
  SetMember,
  WantedMeasure,
} from '@lastmark/contract/types';
import type { Compared, ConditionCount } from '@lastmark/core/compare';
import type { Formula } from '@lastmark/core/formula';
import { type Better, measureAbout, measureWords } from '@lastmark/core/measure';

/** One measure of a comparison, under its one condition. */
export interface MeasureView {
  readonly id: string;
  readonly title: string;
  readonly unit: string;
  readonly factor: number;
  readonly better: Better;
  readonly condition: string;
  /** What its values are of, in one line: another one is asked about anew. */
  readonly key: string;
  /** How many have a value. */
  readonly count: number;
  readonly values: readonly Compared[];
  readonly byId: ReadonlyMap<string, Compared>;
  /** Other conditions there are, the most shared first. */
  readonly shared: readonly ConditionCount[];
}

export const sampleTitle = ({ maker, model, serial, tag }: SetMember): string => `${maker} ${model}, ${serial || tag}`;

/** The currency of a price, from its condition; empty for what is no price. */
export const currencyOf = ({ unit, condition }: MeasureView): string =>
  unit === '' || unit.startsWith('/') ? (/^([A-Z]{3}), /.exec(condition)?.[1] ?? '') : '';

/** Title with its unit, as an axis has it: `Idle, mW`; money takes its currency from the condition. */
export const axisTitle = (view: MeasureView): string => {
  const { title, unit, condition } = view;
  const shown = `${currencyOf(view)}${unit}`;
  return [shown === '' ? title : `${title}, ${shown}`, condition].filter(Boolean).join(' · ');
};

/** A value of a measure: money with its currency. */
export function words(view: MeasureView, value: Pick<Compared, 'value' | 'u' | 'below'>): string {
  const currency = currencyOf(view);
  return currency === '' ? measureWords(view, value) : `${currency} ${measureWords(view, value)}`;
}

/** A spread of a measure: two digits say enough. */
export const spreadWords = (view: MeasureView, value: number): string =>
  plainWords(view, Number((value * view.factor).toPrecision(2)) / view.factor);

/** A number of a measure without an uncertainty, such as a mean. */
export const plainWords = (view: MeasureView, value: number): string => words(view, { value, u: 0, below: false });

function comparedOf({ members, meters }: SetAnswer, column: MeasureColumn): readonly Compared[] {
  return column.of.map((place, at) => ({
    id: members[place]?.id ?? '',
    value: column.value[at] ?? Number.NaN,
    u: column.u[at] ?? null,
    common: column.common[at] ?? 0,
    meters: meters[column.meters[at] ?? -1] ?? '',
    below: column.below[at] ?? false,
    at: column.at[at] ?? null,
  }));
}

/** Worked out when it is first asked for: of ten thousand samples most views are never looked at. */
function once<T>(make: () => T): () => T {
  let made: { readonly it: T } | null = null;
  return () => {
    made ??= { it: make() };
    return made.it;
  };
}

type ViewHead = Omit<MeasureView, 'byId' | 'values' | 'count'>;

function viewOf(head: ViewHead, count: number, make: () => readonly Compared[]): MeasureView {
  const values = once(make);
  const byId = once(() => new Map(values().map((one) => [one.id, one])));
  return {
    ...head,
    count,
    get values() {
      return values();
    },
    get byId() {
      return byId();
    },
  };
}

/** Views of the measures a set brought, each named once. */
function plainViews(set: SetAnswer): ReadonlyMap<string, MeasureView> {
  return new Map(
    set.columns.map((column) => {
      const { title, unit, factor, better } = measureAbout(column.measure);
      const shared = set.conditions.find(({ measure }) => measure === column.measure)?.shared ?? [];
      const head = {
        id: column.measure,
        title,
        unit,
        factor,
        better,
        condition: column.condition,
        key: `${column.measure} ${column.condition}`,
        shared,
      };
      return [column.measure, viewOf(head, column.of.length, () => comparedOf(set, column))];
    }),
  );
}

/** A formula that can be worked out, with what it is called. */
export interface OwnFormula {
  readonly own: OwnMeasure;
  readonly formula: Formula;
  readonly value: (of: readonly Compared[]) => { readonly value: number; readonly u: number | null } | null;
}

function ownView({ own, formula, value }: OwnFormula, plain: ReadonlyMap<string, MeasureView>): MeasureView | null {
  const views = formula.measures.map((id) => plain.get(id));
  if (views.some((view) => view === undefined)) return null;
  const all = views as readonly MeasureView[];
  const ids = [...(all[0]?.byId.keys() ?? [])].filter((id) => all.every(({ byId }) => byId.has(id)));
  const values = ids.flatMap((id): Compared[] => {
    const of = all.map(({ byId }) => byId.get(id) as Compared);
    const told = value(of);
    if (!told) return [];
    const dates = of.flatMap(({ at }) => at ?? []).sort();
    return [{ id, ...told, common: 0, meters: '', below: of.some(({ below }) => below), at: dates.at(-1) ?? null }];
  });
  const head = {
    id: own.id,
    title: own.title,
    unit: formula.unit,
    factor: 1,
    better: own.better,
    condition: all
      .map(({ condition }) => condition)
      .filter(Boolean)
      .join('; '),
    key: `${own.formula} ${own.better}`,
    shared: [],
  };
  return viewOf(head, values.length, () => values);
}

/** Measures that must be fetched: those shown, and those formulas stand on. */
export function wantedOf({ measures }: ComparisonBody, own: readonly OwnFormula[]): readonly WantedMeasure[] {
  const shown = measures.filter(({ measure }) => !measure.startsWith('own-'));
  const behind = own
    .flatMap(({ formula }) => formula.measures)
    .filter((id) => !shown.some((one) => one.measure === id));
  return [...shown, ...[...new Set(behind)].map((measure) => ({ measure, condition: null }))];
}

/** Every measure of a comparison that has values, in its order. */
export function viewsOf(
  { measures }: ComparisonBody,
  set: SetAnswer,
  own: readonly OwnFormula[],
): readonly MeasureView[] {
  const plain = plainViews(set);
  return measures.flatMap(({ measure }): MeasureView[] => {
    const formula = own.find((one) => one.own.id === measure);
    const view = formula ? ownView(formula, plain) : plain.get(measure);
    return view ? [view] : [];
  });
}

/** Measures nobody of the set has a value of. */
export const emptyMeasures = ({ measures, own }: ComparisonBody, views: readonly MeasureView[]): readonly string[] =>
  measures
    .filter(({ measure }) => !views.some(({ id, count }) => id === measure && count > 0))
    .map(({ measure }) => own.find(({ id }) => id === measure)?.title ?? measureAbout(measure).title);
