// How every chart here looks: lines of the theme, our font, titles in the soft ink.
import { useTheme } from '@mui/material/styles';
import { Chart } from 'chart.js';
import annotation from 'chartjs-plugin-annotation';

// Before any chart is made: one that was made without it fails at its next change once another page has brought it.
Chart.register(annotation);

export function useChartStyle() {
  const { palette, typography } = useTheme();
  Chart.defaults.font.family = typography.fontFamily ?? 'sans-serif';
  Chart.defaults.font.size = 13;
  return {
    palette,
    /** Grid, ticks and border of an axis. */
    axis: {
      grid: { color: palette.line },
      ticks: { color: palette.text.secondary },
      border: { color: palette.line },
    },
    /** Title of an axis. */
    title: (text: string) => ({ display: true, text, color: palette.text.secondary }),
    /** Colour of the nth series, of one palette that survives colour-blindness and grey printing. */
    colourOf: (index: number) => palette.series[index % palette.series.length] ?? palette.text.primary,
  };
}
