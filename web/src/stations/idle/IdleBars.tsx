// Idle draw at each mains, what was attached by name, with the limits and the promise it is held against.
import { drawWords } from '@lastmark/core/idle';
import { mainsLabel } from '@lastmark/core/reading';
import { expandedUncertainty } from '@lastmark/core/uncertainty';
import { BarsChart } from '../../parts/BarsChart.tsx';
import { EmptyFigure } from '../../parts/EmptyFigure.tsx';
import { focusEntry } from '../../parts/focusEntry.ts';
import { useSample } from '../../state/sample.tsx';

export function IdleBars() {
  const { dossier, verdict } = useSample();
  const { draws, limits } = verdict.results.idle;
  const { model, tag } = dossier.sample;
  if (draws.length === 0)
    return <EmptyFigure says="What it draws with nothing to do shows here, beside its limits." height={170} />;
  const promised = dossier.claims.flatMap(({ promise }) => (promise.kind === 'idle' ? [promise.watts] : []));
  const lines = draws.map((draw) => {
    const { mains, attached, watts, below } = draw;
    const u = expandedUncertainty(watts);
    const held = limits.filter((line) => attached === 'nothing' && mainsLabel(line.mains) === mainsLabel(mains));
    const high = held.flatMap(({ limit }) => (limit.kind === 'at-most' ? [limit.high] : []));
    const most = below ?? watts.value + (Number.isFinite(u) ? u : 0);
    return {
      name: `${mainsLabel(mains)}, ${attached}`,
      value: below === null ? watts.value : null,
      known: [below === null ? Math.max(0, watts.value - (Number.isFinite(u) ? u : 0)) : 0, most] as const,
      outline: attached === 'nothing' ? (promised[0] ?? null) : null,
      limits: [...new Set(high)],
      words: drawWords(draw),
      exception: held.some(({ decision }) => decision.outcome === 'short'),
    };
  });
  return (
    <BarsChart
      lines={lines}
      caption={`${model.maker} ${model.model}, unit ${tag}: idle draw; ticks: limits${promised.length > 0 ? ', outline: promised' : ''}`}
      title="Draw, W"
      table={[
        ['mains', 'attached', 'watts', 'expanded_uncertainty_watts', 'at_most_watts'],
        ...draws.map(({ mains, attached, watts, below }) => [
          mainsLabel(mains),
          attached,
          below === null ? watts.value : '',
          below === null ? expandedUncertainty(watts) : '',
          below ?? '',
        ]),
      ]}
      onPick={(index) => focusEntry(`${lines[index]?.name ?? ''} attached`)}
    />
  );
}
