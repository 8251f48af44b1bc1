// What is drawn on a chart by hand: always of what is shown now. A chart takes its plugins once, when it is made.
import type { ChartType, Plugin } from 'chart.js';
import { useState } from 'react';

type Draws<Kind extends ChartType> = Plugin<Kind> & { readonly id: string };

/**
 * @param newest the marks as they are to be drawn now; the next drawing takes them
 * @returns the one plugin a chart is made with
 */
export function useMarks<Kind extends ChartType>(newest: Draws<Kind>): Plugin<Kind>[] {
  const [{ held, plugins }] = useState(() => {
    const own = { newest };
    const plugin: Plugin<Kind> = {
      id: newest.id,
      beforeDatasetsDraw: (...drawing) => own.newest.beforeDatasetsDraw?.(...drawing),
      afterDatasetsDraw: (...drawing) => own.newest.afterDatasetsDraw?.(...drawing),
    };
    return { held: own, plugins: [plugin] };
  });
  held.newest = newest;
  return plugins;
}
