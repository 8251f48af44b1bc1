// The efficiency surface: every level at every mains against load, with its losses and its full spread.
import { type Mains, mainsLabel } from '../reading/index.ts';
import type { Table } from '../table/index.ts';
import type { LoadResult, MainsResult, SeriesResult } from './series.ts';

/** One loading at one mains, across the loads of the whole surface. */
export interface SurfaceRow {
  readonly setupId: string;
  readonly name: string;
  readonly mains: Mains;
  readonly result: MainsResult;
  /** One a load of the surface; null where it was not measured. */
  readonly cells: readonly (LoadResult | null)[];
}

/** An extreme of the surface, with everything that gave it. */
export interface SurfacePoint {
  readonly row: SurfaceRow;
  readonly at: LoadResult;
}

export interface EfficiencySurface {
  /** Loads measured anywhere, ascending, as fractions of nameplate current. */
  readonly loads: readonly number[];
  readonly rows: readonly SurfaceRow[];
  readonly best: SurfacePoint | null;
  readonly worst: SurfacePoint | null;
  readonly mostLoss: SurfacePoint | null;
}

const sameLoad = (a: number, b: number): boolean => Math.abs(a - b) < 1e-6;

/** All loadings of a sample as one surface, by name and then mains. */
export function efficiencySurface(series: readonly SeriesResult[]): EfficiencySurface {
  const every = series.flatMap(({ byMains }) => byMains.flatMap((one) => one.loads.map(({ load }) => load)));
  const loads = [...every]
    .sort((a, b) => a - b)
    .filter((load, index, all) => index === 0 || !sameLoad(load, all[index - 1] ?? -1));
  const rows = series.flatMap(({ setup, byMains }) =>
    byMains.map(
      (result): SurfaceRow => ({
        setupId: setup.id,
        name: setup.name,
        mains: result.mains,
        result,
        cells: loads.map((load) => result.loads.find((one) => sameLoad(one.load, load)) ?? null),
      }),
    ),
  );
  const points = rows.flatMap((row) => row.cells.flatMap((at): SurfacePoint[] => (at ? [{ row, at }] : [])));
  const most = (value: (at: LoadResult) => number): SurfacePoint | null =>
    points.reduce<SurfacePoint | null>((found, one) => (found && value(found.at) >= value(one.at) ? found : one), null);
  return {
    loads,
    rows,
    best: most(({ efficiency }) => efficiency.value),
    worst: most(({ efficiency }) => -efficiency.value),
    mostLoss: most(({ loss }) => loss.value),
  };
}

/** The surface as a table, heads first: one line a point. */
export function surfaceTable({ rows }: EfficiencySurface): Table {
  const lines = rows.flatMap(({ name, mains, cells }) =>
    cells.flatMap((at) =>
      at
        ? [
            [
              name,
              mainsLabel(mains),
              at.load * 100,
              at.input.value,
              at.output.value,
              at.loss.value,
              at.efficiency.value * 100,
              at.powerFactor,
            ],
          ]
        : [],
    ),
  );
  return [
    [
      'loading',
      'mains',
      'load_percent',
      'input_watts',
      'output_watts',
      'loss_watts',
      'efficiency_percent',
      'power_factor',
    ],
    ...lines,
  ];
}
