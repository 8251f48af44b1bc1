// Pictures of a report that are drawn from recordings: ripple, soaks, whole charges.
import type { Picture, Plot, PlotLimit } from '../picture/index.ts';
import type { Verdict } from '../verdict/types.ts';

/** A stretch of a recording as it is drawn. */
export interface RecordedColumn {
  readonly name: string;
  readonly quantity: string | null;
  readonly points: readonly { readonly x: number; readonly y: number }[];
}

/** Columns by the recording they belong to. */
export type Recorded = Readonly<Record<string, readonly RecordedColumn[]>>;

const xy = (
  points: RecordedColumn['points'],
  by: number,
  scale = 1,
  less = 0,
): readonly (readonly [number, number])[] => points.map(({ x, y }) => [x * by, (y - less) * scale] as const);

/** Long recordings are drawn by few points, and their whole length stands in the package. */
const tableOf = (columns: readonly RecordedColumn[]) => [
  ['column', 'seconds', 'value'],
  ...columns.flatMap(({ name, points }) => points.map(({ x, y }) => [name, x, y])),
];

/** Units of time a recording is drawn in. */
const timeOf = (seconds: number): { readonly by: number; readonly unit: string } =>
  seconds >= 600
    ? { by: 1 / 60, unit: 'min' }
    : seconds >= 1
      ? { by: 1, unit: 's' }
      : seconds >= 1e-3
        ? { by: 1e3, unit: 'ms' }
        : { by: 1e6, unit: 'µs' };

const lengthOf = (columns: readonly RecordedColumn[]): number =>
  Math.max(0, ...columns.flatMap(({ points }) => points.at(-1)?.x ?? 0));

function ripple({ results }: Verdict, recorded: Recorded): Picture[] {
  return results.ripple.cells.flatMap((cell): Plot[] => {
    const [column] = recorded[cell.captureId] ?? [];
    if (!column || column.points.length === 0) return [];
    const { by, unit } = timeOf(lengthOf([column]));
    return [
      {
        kind: 'plot',
        id: `ripple ${cell.captureId}`,
        title: `Ripple: ${cell.port} ${cell.volts} V, ${cell.load}`,
        caption: `${(cell.figures.peakToPeak * 1000).toFixed(1)} mV peak to peak; ${cell.conditions}.`,
        table: tableOf([column]),
        x: `Time, ${unit}`,
        y: 'About its mean, mV',
        series: [{ name: cell.conditions, points: xy(column.points, by, 1000, cell.figures.mean), as: 'line' }],
        limits: [],
        fromZero: false,
      },
    ];
  });
}

function soaks({ results }: Verdict, recorded: Recorded): Picture[] {
  return results.heat.soaks.flatMap(({ captureId, conditions, figures, hottest, touch }): Plot[] => {
    const columns = (recorded[captureId] ?? []).filter(
      ({ quantity, name }) => quantity === 'temperature' || figures.sensors.some((one) => one.name === name),
    );
    if (columns.length === 0) return [];
    const { by, unit } = timeOf(lengthOf(columns));
    const limits: PlotLimit[] = [
      ...touch.slice(0, 1).map(({ high }) => ({ name: `touch, ${high} °C`, at: high, along: 'y' as const })),
      ...figures.events.slice(0, 3).map(({ at, kind }) => ({ name: kind, at: at * by, along: 'x' as const })),
    ];
    return [
      {
        kind: 'plot',
        id: `soak ${captureId}`,
        title: `Soak: ${conditions}`,
        caption:
          hottest?.steady == null
            ? 'Where it leads is not known.'
            : `${hottest.name} leads to ${hottest.steady.toFixed(1)} °C at this ambient.`,
        table: tableOf(columns),
        x: `Time, ${unit}`,
        y: 'Temperature, °C',
        series: columns.map(({ name, points }) => ({ name, points: xy(points, by), as: 'line' })),
        limits,
        fromZero: false,
      },
    ];
  });
}

function charges({ results }: Verdict, recorded: Recorded): Picture[] {
  return results.devices.sessions.flatMap(({ captureId, title, headline }): Plot[] => {
    const columns = (recorded[captureId] ?? []).filter(({ quantity }) => quantity === 'power');
    if (columns.length === 0) return [];
    const { by, unit } = timeOf(lengthOf(columns));
    return [
      {
        kind: 'plot',
        id: `charge ${captureId}`,
        title: `Charge: ${title}`,
        caption: `${headline}.`,
        table: tableOf(columns),
        x: `Time, ${unit}`,
        y: 'Power, W',
        series: columns.map(({ name, points }) => ({ name, points: xy(points, by), as: 'line' })),
        limits: [],
        fromZero: true,
      },
    ];
  });
}

/** Recordings whose pictures a report has. */
export const recordingsOf = ({ results }: Verdict, kind: string): readonly string[] =>
  kind === 'cable'
    ? []
    : [
        ...results.ripple.cells.map(({ captureId }) => captureId),
        ...results.heat.soaks.map(({ captureId }) => captureId),
        ...results.devices.sessions.map(({ captureId }) => captureId),
      ];

/** Pictures of recordings by the station they belong to. */
export function recordedPictures(
  verdict: Verdict,
  kind: string,
  recorded: Recorded,
): Readonly<Record<string, readonly Picture[]>> {
  if (kind === 'cable') return {};
  return {
    devices: charges(verdict, recorded),
    ripple: ripple(verdict, recorded),
    heat: soaks(verdict, recorded),
  };
}
