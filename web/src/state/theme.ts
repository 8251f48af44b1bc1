// One palette in a light and a dim form. States are never told by colour alone.
import { createTheme, type Theme } from '@mui/material/styles';

export type Light = 'light' | 'dim';

const FONT = '"Atkinson Hyperlegible Next", system-ui, sans-serif';

const COLOURS = {
  light: {
    ground: '#e9eeea',
    paper: '#fbfcfa',
    ink: '#16211d',
    soft: '#4a5952',
    line: '#bcc8c1',
    accent: '#0b5a54',
    onAccent: '#ffffff',
    good: '#1c6438',
    bad: '#a1261d',
    onBad: '#ffffff',
    badGround: '#f9e6e3',
    open: '#7a4f00',
    openGround: '#f7edd9',
  },
  dim: {
    ground: '#111715',
    paper: '#19211e',
    ink: '#dfe8e2',
    soft: '#a3b3aa',
    line: '#3a4942',
    accent: '#79cfc4',
    onAccent: '#0c1512',
    good: '#83d19b',
    bad: '#f49a90',
    onBad: '#1a0d0b',
    badGround: '#3a211e',
    open: '#e6bb66',
    openGround: '#332a17',
  },
} as const;

/** Series colours of charts: apart for colour-blind eyes and in grey print; shapes differ too. */
export const SERIES = {
  light: ['#0b5a54', '#b3541e', '#4f4a9c', '#7a7a1a', '#8c2f63', '#3a3a3a'],
  dim: ['#79cfc4', '#f0a36b', '#b3aef2', '#d3d36b', '#e59ac3', '#c9c9c9'],
} as const;

declare module '@mui/material/styles' {
  interface Palette {
    line: string;
    soft: string;
    ground: string;
    /** Ground of what fell short, and of what is open. */
    badGround: string;
    openGround: string;
    series: readonly string[];
  }
  interface PaletteOptions {
    line: string;
    soft: string;
    ground: string;
    badGround: string;
    openGround: string;
    series: readonly string[];
  }
}

/** The usual window at 200 % zoom, and less. */
const NARROW = '@media (max-width: 700px)';

/** The theme in one of its two lights. */
export function makeTheme(light: Light): Theme {
  const colour = COLOURS[light];
  return createTheme({
    palette: {
      mode: light === 'dim' ? 'dark' : 'light',
      background: { default: colour.ground, paper: colour.paper },
      text: { primary: colour.ink, secondary: colour.soft },
      primary: { main: colour.accent, contrastText: colour.onAccent },
      success: { main: colour.good },
      error: { main: colour.bad, contrastText: colour.onBad },
      warning: { main: colour.open },
      divider: colour.line,
      line: colour.line,
      soft: colour.soft,
      ground: colour.ground,
      badGround: colour.badGround,
      openGround: colour.openGround,
      series: SERIES[light],
    },
    typography: {
      fontFamily: FONT,
      fontSize: 14,
      h1: { fontSize: 24, fontWeight: 600, lineHeight: 1.25 },
      h2: { fontSize: 17, fontWeight: 600, lineHeight: 1.3 },
      h3: { fontSize: 15, fontWeight: 600, lineHeight: 1.3 },
      button: { textTransform: 'none', fontWeight: 600 },
    },
    shape: { borderRadius: 5 },
    components: {
      MuiCssBaseline: {
        styleOverrides: {
          body: { fontVariantNumeric: 'tabular-nums' },
          'h1:focus': { outline: 'none' },
          // Links in running text; buttons and the spine have colours of their own.
          'main a:not([class])': { color: colour.accent },
          // Who asked for less motion gets none: every state is reached at once.
          '@media (prefers-reduced-motion: reduce)': {
            '*, *::before, *::after': {
              transition: 'none !important',
              animationDelay: '0s !important',
              animationDuration: '0.01ms !important',
              animationIterationCount: '1 !important',
              scrollBehavior: 'auto !important',
            },
          },
          ':focus-visible': { outline: `3px solid ${colour.accent}`, outlineOffset: 1 },
        },
      },
      MuiButtonBase: {
        defaultProps: { disableRipple: true },
        styleOverrides: { root: { '&.Mui-focusVisible': { outline: `3px solid ${colour.accent}`, outlineOffset: 1 } } },
      },
      MuiButton: { defaultProps: { disableElevation: true } },
      MuiToggleButton: { styleOverrides: { root: { color: colour.ink } } },
      MuiTextField: { defaultProps: { size: 'small', fullWidth: true } },
      MuiPaper: { defaultProps: { elevation: 0 }, styleOverrides: { root: { backgroundImage: 'none' } } },
      MuiTableCell: {
        styleOverrides: {
          root: { padding: '5px 8px', borderColor: colour.line },
          head: { color: colour.soft, fontWeight: 600 },
        },
      },
      MuiFormHelperText: { styleOverrides: { root: { marginLeft: 0 } } },
      MuiDialog: {
        defaultProps: { transitionDuration: 0 },
        // The buttons stay in sight while a long form scrolls.
        styleOverrides: {
          paper: {
            '& > form': { display: 'flex', flexDirection: 'column', minHeight: 0, overflow: 'hidden' },
            [NARROW]: { '&&': { margin: 8, width: 'calc(100% - 16px)', maxHeight: 'calc(100% - 16px)' } },
          },
        },
      },
      MuiDialogContent: {
        styleOverrides: {
          root: {
            // Fields stand below each other where beside each other their names would be cut.
            [NARROW]: {
              '&:has(> .MuiFormControl-root), & :has(> .MuiFormControl-root)': {
                gridTemplateColumns: 'minmax(0, 1fr)',
                '& > *': { gridColumn: 'auto' },
              },
            },
          },
        },
      },
    },
  });
}
