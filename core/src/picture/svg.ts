// Pictures as SVG: real text and lines, told apart in grey print by dash and mark as well as by colour.
import { escaped } from './escaped.ts';
import { ticksOf, tickWords } from './ticks.ts';
import type { Bars, Picture, Plot, Series } from './types.ts';

/** Colours of series; in grey print their dashes and marks tell them apart. */
const COLOURS = ['#0b5a54', '#b3541e', '#4f4a9c', '#7a7a1a', '#8c2f63', '#3a3a3a'];
const DASHES = ['', '7 4', '2 3', '10 3 2 3', '12 4', '4 2'];
const INK = '#16211d';
const SOFT = '#4a5952';
const LINE = '#bcc8c1';
const BAD = '#a1261d';

export interface SvgStyle {
  readonly width: number;
  readonly height: number;
  /** Family of its text. */
  readonly font: string;
  /** How numbers are written: decimal sign and words. */
  readonly words: (text: string) => string;
  /**
   * A page may look into it: the plot says what its axes span (`data-across`, `data-up`: low, high and where those lie), what moves with
   * the horizontal one stands in `data-inside`, and its numbers in `data-ticks`.
   */
  readonly lookInto: boolean;
}

export const PLAIN: SvgStyle = { width: 520, height: 220, font: 'sans-serif', words: (text) => text, lookInto: false };

const n = (value: number): string => String(Number(value.toFixed(2)));

type Anchor = 'start' | 'middle' | 'end';

interface TextMore {
  readonly anchor?: Anchor;
  readonly size?: number;
  readonly colour?: string;
  readonly bold?: boolean;
  readonly turned?: boolean;
}

function text(style: SvgStyle, x: number, y: number, words: string, more: TextMore = {}): string {
  const { anchor = 'start', size = 9, colour = INK, bold = false, turned = false } = more;
  const turn = turned ? ` transform="rotate(-90 ${n(x)} ${n(y)})"` : '';
  const weight = bold ? ' font-weight="bold"' : '';
  return `<text x="${n(x)}" y="${n(y)}" font-family="${style.font}" font-size="${size}" fill="${colour}" text-anchor="${anchor}"${weight}${turn}>${escaped(style.words(words))}</text>`;
}

interface LineMore {
  readonly colour?: string;
  readonly width?: number;
  readonly dash?: string;
}

const line = (x1: number, y1: number, x2: number, y2: number, more: LineMore = {}): string => {
  const { colour = INK, width = 1, dash = '' } = more;
  return `<line x1="${n(x1)}" y1="${n(y1)}" x2="${n(x2)}" y2="${n(y2)}" stroke="${colour}" stroke-width="${width}"${dash ? ` stroke-dasharray="${dash}"` : ''}/>`;
};

/** A mark of its own for each series. */
function mark(index: number, x: number, y: number, colour: string): string {
  const r = 3;
  const common = `fill="${index % 2 === 0 ? colour : '#ffffff'}" stroke="${colour}" stroke-width="1.2"`;
  switch (index % 4) {
    case 0:
      return `<circle cx="${n(x)}" cy="${n(y)}" r="${r}" ${common}/>`;
    case 1:
      return `<rect x="${n(x - r)}" y="${n(y - r)}" width="${2 * r}" height="${2 * r}" ${common}/>`;
    case 2:
      return `<path d="M${n(x)} ${n(y - r - 0.6)}L${n(x + r + 0.4)} ${n(y + r)}L${n(x - r - 0.4)} ${n(y + r)}Z" ${common}/>`;
    default:
      return `<path d="M${n(x)} ${n(y - r - 0.8)}L${n(x + r + 0.8)} ${n(y)}L${n(x)} ${n(y + r + 0.8)}L${n(x - r - 0.8)} ${n(y)}Z" ${common}/>`;
  }
}

const wrap = ({ width, height }: SvgStyle, title: string, parts: readonly string[], more = ''): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}" role="img" aria-label="${escaped(title)}"${more}>${parts.join('')}</svg>`;

interface Span {
  readonly low: number;
  readonly high: number;
}

/** What values span, with a little room; nought to one where there are none. */
function spanOf(values: readonly number[], fromZero: boolean): Span {
  const known = values.filter(Number.isFinite);
  if (known.length === 0) return { low: 0, high: 1 };
  const low = Math.min(...known, ...(fromZero ? [0] : []));
  const high = Math.max(...known, ...(fromZero ? [0] : []));
  const room = (high - low) * 0.06 || Math.abs(high) * 0.05 || 1;
  return { low: fromZero && low === 0 ? 0 : low - room, high: high + room };
}

/** The path of a series; gaps where a value is none. */
function path({ points }: Series, x: (at: number) => number, y: (at: number) => number): string {
  let pen = 'M';
  return points
    .map(([px, py]) => {
      if (!Number.isFinite(px) || !Number.isFinite(py)) {
        pen = 'M';
        return '';
      }
      const step = `${pen}${n(x(px))} ${n(y(py))}`;
      pen = 'L';
      return step;
    })
    .join('');
}

type Place = (value: number) => number;

/** One series: its line, whiskers and marks. */
function seriesSvg(one: Series, index: number, x: Place, y: Place): readonly string[] {
  const colour = COLOURS[index % COLOURS.length] ?? INK;
  const dash = DASHES[index % DASHES.length] ?? '';
  const whiskers = (one.whiskers ?? []).flatMap((half, at) => {
    const [px, py] = one.points[at] ?? [Number.NaN, Number.NaN];
    if (!(half > 0) || !Number.isFinite(half) || !Number.isFinite(py)) return [];
    return [
      line(x(px), y(py - half), x(px), y(py + half), { colour }),
      line(x(px) - 2.5, y(py - half), x(px) + 2.5, y(py - half), { colour }),
      line(x(px) - 2.5, y(py + half), x(px) + 2.5, y(py + half), { colour }),
    ];
  });
  return [
    ...(one.as === 'marks'
      ? []
      : [
          `<path d="${path(one, x, y)}" fill="none" stroke="${colour}" stroke-width="1.3"${dash ? ` stroke-dasharray="${dash}"` : ''}/>`,
        ]),
    ...whiskers,
    ...(one.as === 'line'
      ? []
      : one.points.flatMap(([px, py]) =>
          Number.isFinite(px) && Number.isFinite(py) ? [mark(index, x(px), y(py), colour)] : [],
        )),
  ];
}

function plotSvg(plot: Plot, style: SvgStyle): string {
  const left = 46;
  const right = style.width - 10;
  const rows = Math.ceil(plot.series.length / 3);
  const top = plot.series.length > 1 ? 10 + rows * 13 : 10;
  const bottom = style.height - 32;
  const all = plot.series.flatMap(({ points, whiskers = [] }) =>
    points.flatMap(([, y], at) => [y - (whiskers[at] ?? 0), y + (whiskers[at] ?? 0)]),
  );
  const atY = plot.limits.filter(({ along }) => along === 'y').map(({ at }) => at);
  const atX = plot.limits.filter(({ along }) => along === 'x').map(({ at }) => at);
  const ys = spanOf([...all, ...atY], plot.fromZero);
  const xs = spanOf([...plot.series.flatMap(({ points }) => points.map(([x]) => x)), ...atX], false);
  const x = (at: number) => left + ((at - xs.low) / (xs.high - xs.low)) * (right - left);
  const y = (at: number) => bottom - ((at - ys.low) / (ys.high - ys.low)) * (bottom - top);
  const xTicks = ticksOf(xs.low, xs.high, 8);
  const yTicks = ticksOf(ys.low, ys.high, 6);
  const xWords = tickWords(xTicks);
  const yWords = tickWords(yTicks);
  const across = xTicks.flatMap((tick, at) => [
    line(x(tick), bottom, x(tick), bottom + 3, { colour: SOFT }),
    text(style, x(tick), bottom + 12, xWords[at] ?? '', { anchor: 'middle', colour: SOFT }),
  ]);
  const upright = plot.limits
    .filter(({ along }) => along === 'x')
    .map(({ name, at }) => {
      const drawn = [
        line(x(at), top, x(at), bottom, { width: 1.4, dash: '5 3' }),
        text(style, x(at) + 3, top + 8, name, { size: 8 }),
      ].join('');
      return style.lookInto ? `<g data-at="${n(x(at))}">${drawn}</g>` : drawn;
    });
  const drawn = [...upright, ...plot.series.flatMap((one, index) => seriesSvg(one, index, x, y))];
  // One drawing in the other ends what stands outside.
  const inside = `<svg data-inside="" x="${n(left)}" y="${n(top)}" width="${n(right - left)}" height="${n(bottom - top)}" viewBox="${n(left)} ${n(top)} ${n(right - left)} ${n(bottom - top)}">${drawn.join('')}</svg>`;
  const spans = style.lookInto
    ? ` data-across="${[xs.low, xs.high, n(left), n(right)].join(' ')}" data-up="${[ys.low, ys.high, n(bottom), n(top)].join(' ')}"`
    : '';
  const parts = [
    ...yTicks.map((tick) => line(left, y(tick), right, y(tick), { colour: LINE, width: 0.5 })),
    line(left, bottom, right, bottom, { colour: SOFT }),
    line(left, top, left, bottom, { colour: SOFT }),
    ...(style.lookInto ? [`<g data-ticks="">${across.join('')}</g>`] : across),
    ...yTicks.map((tick, at) => text(style, left - 4, y(tick) + 3, yWords[at] ?? '', { anchor: 'end', colour: SOFT })),
    text(style, (left + right) / 2, style.height - 6, plot.x, { anchor: 'middle' }),
    text(style, 11, (top + bottom) / 2, plot.y, { anchor: 'middle', turned: true }),
    ...plot.limits.flatMap(({ name, at, along }) =>
      along === 'y'
        ? [
            line(left, y(at), right, y(at), { width: 1.4, dash: '5 3' }),
            text(style, right - 2, y(at) - 3, name, { anchor: 'end', size: 8 }),
          ]
        : [],
    ),
    ...(style.lookInto ? [inside] : drawn),
    ...(plot.series.length > 1
      ? plot.series.flatMap((one, index) => {
          const colour = COLOURS[index % COLOURS.length] ?? INK;
          const at = left + 4 + (index % 3) * ((right - left) / 3);
          const row = 10 + Math.floor(index / 3) * 13;
          return [
            ...(one.as === 'marks'
              ? []
              : [
                  line(at, row - 3, at + 18, row - 3, {
                    colour,
                    width: 1.3,
                    dash: DASHES[index % DASHES.length] ?? '',
                  }),
                ]),
            ...(one.as === 'line' ? [] : [mark(index, at + 9, row - 3, colour)]),
            text(style, at + 22, row, one.name.length > 34 ? `${one.name.slice(0, 33)}…` : one.name, { size: 8 }),
          ];
        })
      : []),
  ];
  return wrap(style, plot.title, parts, spans);
}

const BAR = 17;

/** Height bars need, with their axis. */
export const barsHeight = ({ bars }: Bars): number => bars.length * BAR + 40;

function barsSvg(picture: Bars, style: SvgStyle): string {
  const longest = Math.max(...picture.bars.map(({ name }) => name.length), 4);
  const left = Math.min(190, 10 + longest * 4.9);
  const right = style.width - 10;
  const bottom = style.height - 32;
  const most = Math.max(
    ...picture.bars.flatMap(({ value, outline, limits = [], whisker = 0 }) => [
      (value ?? 0) + whisker,
      outline ?? 0,
      ...limits,
    ]),
    0,
  );
  const x = (at: number) => left + (at / ((most || 1) * 1.45)) * (right - left);
  const ticks = ticksOf(0, most || 1, 6);
  const words = tickWords(ticks);
  return wrap(style, picture.title, [
    line(left, 4, left, bottom, { colour: SOFT }),
    line(left, bottom, right, bottom, { colour: SOFT }),
    ...ticks.flatMap((tick, at) => [
      line(x(tick), 4, x(tick), bottom, { colour: LINE, width: 0.5 }),
      text(style, x(tick), bottom + 12, words[at] ?? '', { anchor: 'middle', colour: SOFT }),
    ]),
    text(style, (left + right) / 2, style.height - 6, picture.x, { anchor: 'middle' }),
    ...picture.bars.flatMap((bar, at) => {
      const middle = 6 + at * BAR + BAR / 2;
      const { value, whisker, outline, limits = [], exception = false } = bar;
      const end = Math.max(x(value ?? 0), x(outline ?? 0), x((value ?? 0) + (whisker ?? 0)), ...limits.map(x));
      return [
        text(style, left - 4, middle + 3, bar.name.length > 36 ? `${bar.name.slice(0, 35)}…` : bar.name, {
          anchor: 'end',
          size: 8.5,
        }),
        ...(value === null
          ? []
          : [
              `<rect x="${n(left)}" y="${n(middle - 4)}" width="${n(Math.max(0, x(value) - left))}" height="8" fill="${COLOURS[0]}"/>`,
            ]),
        ...(outline == null
          ? []
          : [
              `<rect x="${n(left)}" y="${n(middle - 6)}" width="${n(x(outline) - left)}" height="12" fill="none" stroke="${INK}"${value === null ? ' stroke-dasharray="3 2"' : ''}/>`,
            ]),
        ...limits.map((limit) => line(x(limit), middle - 7, x(limit), middle + 7, { width: 2 })),
        ...(value !== null && whisker !== undefined && Number.isFinite(whisker)
          ? [line(x(value - whisker), middle, x(value + whisker), middle, { colour: INK })]
          : []),
        text(style, end + 5, middle + 3, exception ? `▼ ${bar.words}` : bar.words, {
          size: 8.5,
          bold: exception,
          colour: exception ? BAD : INK,
        }),
      ];
    }),
  ]);
}

/**
 * A picture as SVG.
 * @returns one element with `role="img"` and its title as name
 */
export function toSvg(picture: Picture, style: Partial<SvgStyle> = {}): string {
  const whole = { ...PLAIN, ...(picture.kind === 'bars' ? { height: barsHeight(picture) } : null), ...style };
  return picture.kind === 'plot' ? plotSvg(picture, whole) : barsSvg(picture, whole);
}
