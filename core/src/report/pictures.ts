// Pictures of a report that are drawn from what was concluded: each station's figures as plots and bars.

import type { Bar, Bars, Picture, Plot } from '../picture/index.ts';
import { formatMeasured, formatPlain } from '../quantity/index.ts';
import { mainsLabel } from '../reading/index.ts';
import { SIDE_WORDS } from '../resistance/index.ts';
import { nearestToLimits } from '../safety/index.ts';
import { setKey } from '../split/index.ts';
import { expandedUncertainty, isStated, type Measured } from '../uncertainty/index.ts';
import { portsAtAGlance } from '../verdict/glance.ts';
import type { Dossier, Verdict } from '../verdict/types.ts';

/** Expanded uncertainty to draw; none where it is not known. */
const half = (of: Measured): number => (isStated(of) ? expandedUncertainty(of) : 0);
const loud = (state: string | null): boolean => state === 'short' || state === 'unreachable';

/** What each port was promised and proved. */
function ports(dossier: Dossier, verdict: Verdict): Picture[] {
  const all = portsAtAGlance(dossier, verdict).filter(({ promised }) => promised !== null);
  if (all.length === 0) return [];
  const bars = all.map(({ port, promised, proven, state }): Bar => {
    const words =
      proven === null
        ? `${formatPlain(promised ?? 0, 'power')}: ${state ?? ''}`
        : `${formatPlain(proven, 'power')} of ${formatPlain(promised ?? 0, 'power')}`;
    return { name: port, value: proven, outline: promised, words, exception: loud(state) };
  });
  const table = [
    ['port', 'promised_watts', 'proven_watts', 'state'],
    ...all.map(({ port, promised, proven, state }) => [port, promised, proven, state]),
  ];
  const picture: Bars = {
    kind: 'bars',
    id: 'ports',
    title: 'Ports: promised and proven',
    caption: 'Promised as an outline, proven as fill.',
    table,
    x: 'Power, W',
    bars,
  };
  return [picture];
}

/** Efficiency against load, and the loss behind it, a pair a loading. */
function efficiency({ results }: Verdict): Picture[] {
  return results.efficiency.series
    .filter(({ byMains }) => byMains.some(({ loads }) => loads.length > 0))
    .flatMap(({ setup, byMains }): Plot[] => {
      const table = [
        ['mains', 'load', 'efficiency', 'expanded_uncertainty', 'input_watts', 'output_watts', 'loss_watts'],
        ...byMains.flatMap(({ mains, loads }) =>
          loads.map((one) => [
            mainsLabel(mains),
            one.load,
            one.efficiency.value,
            isStated(one.efficiency) ? expandedUncertainty(one.efficiency) : null,
            one.input.value,
            one.output.value,
            one.loss.value,
          ]),
        ),
      ];
      const plot = (id: string, title: string, y: string, of: 'efficiency' | 'loss', by: number): Plot => ({
        kind: 'plot',
        id: `${id} ${setup.id}`,
        title: `${title}: ${setup.name}`,
        caption: 'Whiskers are U (k = 2).',
        table,
        x: 'Load, %',
        y,
        series: byMains.map(({ mains, loads }) => ({
          name: mainsLabel(mains),
          points: loads.map((one) => [one.load * 100, one[of].value * by] as const),
          whiskers: loads.map((one) => half(one[of]) * by),
          as: 'both',
        })),
        limits: [],
        fromZero: of === 'loss',
      });
      return [
        plot('efficiency', 'Efficiency', 'Efficiency, %', 'efficiency', 100),
        plot('loss', 'Loss', 'Loss, W', 'loss', 1),
      ];
    });
}

/** Idle draw at each mains, with the strictest promise as a limit. */
function idle({ claims }: Dossier, { results }: Verdict): Picture[] {
  const { draws } = results.idle;
  if (draws.length === 0) return [];
  const promised = claims.flatMap(({ promise }) => (promise.kind === 'idle' ? [promise.watts] : []));
  const picture: Bars = {
    kind: 'bars',
    id: 'idle',
    title: 'Idle draw',
    caption: promised.length > 0 ? 'The tick is what is promised at most.' : 'Nothing is promised.',
    table: [
      ['mains', 'attached', 'watts', 'expanded_uncertainty', 'below_watts'],
      ...draws.map(({ mains, attached, watts, below }) => [
        mainsLabel(mains),
        attached,
        watts.value,
        isStated(watts) ? expandedUncertainty(watts) : null,
        below,
      ]),
    ],
    x: 'Power, W',
    bars: draws.map(({ mains, attached, watts, below }) => ({
      name: `${mainsLabel(mains)}, ${attached}`,
      value: below ?? watts.value,
      whisker: below === null ? half(watts) : undefined,
      limits: attached === 'nothing' ? promised : [],
      words:
        below === null
          ? formatMeasured(watts.value, expandedUncertainty(watts), 'power')
          : `below ${formatPlain(below, 'power')}`,
    })),
  };
  return [picture];
}

/** Who gets what in each combination. */
function splits({ results }: Verdict): Picture[] {
  const rows = results.splits.rows.filter(({ lines }) =>
    lines.some(({ measured, promised }) => measured || promised !== null),
  );
  if (rows.length === 0) return [];
  const lines = rows.flatMap(({ occupied, lines: own }) => own.map((line) => ({ occupied, line })));
  const picture: Bars = {
    kind: 'bars',
    id: 'splits',
    title: 'Combinations: who gets what',
    caption: 'Promised as an outline, measured as fill.',
    table: [
      ['combination', 'ports', 'promised_watts', 'low_watts', 'high_watts', 'metered_watts', 'state'],
      ...lines.map(({ occupied, line }) => [
        setKey(occupied),
        setKey(line.ports),
        line.promised,
        line.measured?.low ?? null,
        line.measured && Number.isFinite(line.measured.high) ? line.measured.high : null,
        line.value,
        line.state,
      ]),
    ],
    x: 'Power, W',
    bars: lines.map(({ occupied, line: { ports: own, promised, measured, value, state } }): Bar => {
      const words =
        value !== null
          ? `${formatPlain(value, 'power')}${promised === null ? '' : ` of ${formatPlain(promised, 'power')}`}`
          : measured
            ? `${formatPlain(measured.low, 'power')} to ${Number.isFinite(measured.high) ? formatPlain(measured.high, 'power') : 'more'}`
            : (state ?? 'not tested');
      const name = occupied.length === 1 ? `${setKey(own)} alone` : `${setKey(own)} of ${setKey(occupied)}`;
      return { name, value, outline: promised, words, exception: loud(state) };
    }),
  };
  return [picture];
}

/** Levels proved under load: volts against amps, a series a port. */
function levels({ results }: Verdict): Picture[] {
  const points = results.proof.steps.flatMap(({ state, step, outputs }) =>
    step.load > 0 && outputs.length === 1 && outputs[0]
      ? [{ state, port: outputs[0].port, volts: outputs[0].volts, amps: outputs[0].amps }]
      : [],
  );
  if (points.length === 0) return [];
  const own = [...new Set(points.map(({ port }) => port))];
  const picture: Plot = {
    kind: 'plot',
    id: 'levels',
    title: 'Levels read under load',
    caption: 'Each mark is a level as read at the port.',
    table: [
      ['port', 'volts', 'amps', 'state'],
      ...points.map(({ port, volts, amps, state }) => [port, volts.value, amps.value, state]),
    ],
    x: 'Voltage, V',
    y: 'Current, A',
    series: own.map((port) => ({
      name: port,
      points: points.filter((one) => one.port === port).map(({ volts, amps }) => [volts.value, amps.value] as const),
      as: 'marks',
    })),
    limits: [],
    fromZero: true,
  };
  return [picture];
}

/** Harmonics of the capture nearest to its limits. */
function harmonics({ results }: Verdict): Picture[] {
  const { harmonics: all, limited } = results.safety;
  if (limited === false) return [];
  const worst = nearestToLimits(all);
  if (!worst || worst.lines.length === 0) return [];
  const picture: Plot = {
    kind: 'plot',
    id: `harmonics ${worst.captureId}`,
    title: 'Harmonics of the mains current',
    caption: `Parts of what class A allows; ${worst.conditions}.`,
    table: [
      ['order', 'amps', 'limit_amps', 'state'],
      ...worst.lines.map(({ order, amps, most, state }) => [order, amps, most, state]),
    ],
    x: 'Order',
    y: 'Of its limit, %',
    series: [
      {
        name: worst.conditions,
        points: worst.lines.map(({ order, amps, most }) => [order, (amps / most) * 100]),
        as: 'marks',
      },
    ],
    limits: [{ name: 'limit', at: 100, along: 'y' }],
    fromZero: true,
  };
  return [picture];
}

/** Drop against current, and resistance against bends. */
function cable({ results }: Verdict): Picture[] {
  const { series } = results.resistance;
  if (series.length === 0) return [];
  const drop: Plot = {
    kind: 'plot',
    id: 'drops',
    title: 'Drop against current',
    caption: 'Every reading of every plugging.',
    table: [
      ['conductors', 'bends', 'amps', 'millivolts'],
      ...series.flatMap(({ side, bends, readings }) =>
        readings.map((one) => [SIDE_WORDS[side], bends, one.amps, one.drop * 1000]),
      ),
    ],
    x: 'Current, A',
    y: 'Drop, mV',
    series: series.map(({ side, bends, readings }) => ({
      name: `${SIDE_WORDS[side]}${bends > 0 ? `, ${bends} bends` : ''}`,
      points: [...readings].sort((a, b) => a.amps - b.amps).map((one) => [one.amps, one.drop * 1000] as const),
      as: 'both',
    })),
    limits: [],
    fromZero: true,
  };
  const sides = [...new Set(series.map(({ side }) => side))];
  const bent = series.some(({ bends }) => bends > 0);
  const wear: Plot = {
    kind: 'plot',
    id: 'wear',
    title: 'Resistance against bends',
    caption: 'At 20 °C where the temperature is known. Whiskers are U (k = 2).',
    table: [
      ['conductors', 'bends', 'milliohms', 'expanded_uncertainty'],
      ...series.map(({ side, bends, at20, ohms }) => [
        SIDE_WORDS[side],
        bends,
        (at20 ?? ohms).value * 1000,
        half(at20 ?? ohms) * 1000,
      ]),
    ],
    x: 'Bends',
    y: 'Resistance, mΩ',
    series: sides.map((side) => {
      const own = series.filter((one) => one.side === side);
      return {
        name: SIDE_WORDS[side],
        points: own.map(({ bends, at20, ohms }) => [bends, (at20 ?? ohms).value * 1000] as const),
        whiskers: own.map(({ at20, ohms }) => half(at20 ?? ohms) * 1000),
        as: 'both',
      };
    }),
    limits: [],
    fromZero: false,
  };
  return bent ? [drop, wear] : [drop];
}

/** Pictures by the station they belong to, in the order of the work; none where there is nothing to draw. */
export function picturesOf(dossier: Dossier, verdict: Verdict): Readonly<Record<string, readonly Picture[]>> {
  if (dossier.sample.kind === 'cable') return { resistance: cable(verdict) };
  return {
    claims: ports(dossier, verdict),
    proof: levels(verdict),
    splits: splits(verdict),
    idle: idle(dossier, verdict),
    efficiency: efficiency(verdict),
    safety: harmonics(verdict),
  };
}
