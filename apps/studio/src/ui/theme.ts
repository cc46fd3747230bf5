import { createTheme } from '@mui/material/styles';
import { STEADY_LIST } from './steadyList';

/** The colours of the house; growth hues live with the growths. */
export const INK = {
  deep: '#0b1316',
  ground: '#10191d',
  panel: '#162228',
  raised: '#1d2c33',
  line: '#2a3c44',
  text: '#e9efe8',
  mute: '#9db0b0',
  sprout: '#c9e86a',
  front: '#ff8a5b',
  fault: '#ff9d9d',
} as const;

/** A box whose content is as large as the box, however large it would like to be. */
export const ONE_CELL = { display: 'grid', gridTemplate: 'minmax(0, 1fr) / minmax(0, 1fr)' } as const;

export const MONO = '"Red Hat Mono Variable", monospace';
const WORDS = '"Figtree Variable", system-ui, sans-serif';
const WORDMARK = '"Bricolage Grotesque Variable", sans-serif';

export const theme = createTheme({
  palette: {
    mode: 'dark',
    primary: { main: INK.sprout, contrastText: '#18220a' },
    secondary: { main: INK.front, contrastText: '#2a0f05' },
    error: { main: INK.fault },
    background: { default: INK.ground, paper: INK.panel },
    text: { primary: INK.text, secondary: INK.mute },
    divider: INK.line,
  },
  shape: { borderRadius: 4 },
  typography: {
    fontFamily: WORDS,
    fontSize: 13,
    h1: { fontFamily: WORDMARK, fontWeight: 700, fontSize: 30, letterSpacing: '-0.02em' },
    h2: { fontWeight: 650, fontSize: 17 },
    body2: { fontSize: 13 },
    caption: { fontSize: 12 },
    button: { textTransform: 'none', fontWeight: 600 },
  },
  components: {
    MuiCssBaseline: {
      styleOverrides: {
        body: { overscrollBehavior: 'none' },
        '*': { scrollbarColor: `${INK.line} transparent`, scrollbarWidth: 'thin' },
        '@media (prefers-reduced-motion: reduce)': {
          '*': { transition: 'none !important', animation: 'none !important' },
        },
      },
    },
    MuiButtonBase: {
      defaultProps: { disableRipple: true },
      styleOverrides: {
        root: { fontFamily: 'inherit', '&.Mui-focusVisible': { outline: `2px solid ${INK.sprout}`, outlineOffset: 1 } },
      },
    },
    MuiButton: {
      defaultProps: { size: 'small', disableElevation: true },
      styleOverrides: { root: { borderRadius: 18, paddingInline: 14 } },
    },
    MuiIconButton: { defaultProps: { size: 'small' } },
    MuiPaper: { styleOverrides: { root: { backgroundImage: 'none' }, rounded: { borderRadius: 12 } } },
    MuiOutlinedInput: { styleOverrides: { root: { borderRadius: 9 } } },
    MuiDialog: { styleOverrides: { paper: { border: `1px solid ${INK.line}`, borderRadius: 16 } } },
    MuiMenu: { styleOverrides: { paper: { border: `1px solid ${INK.line}` } } },
    MuiTooltip: {
      defaultProps: { enterDelay: 500, disableInteractive: true, describeChild: true },
      styleOverrides: {
        tooltip: { background: '#24363e', fontSize: 12, maxWidth: 280, border: `1px solid ${INK.line}` },
      },
    },
    MuiSelect: { defaultProps: STEADY_LIST },
    MuiSlider: { defaultProps: { size: 'small' } },
  },
});

/** The same for those who asked their system for less motion: what opens and closes is there, or gone, at once. */
export const still = createTheme(theme, {
  transitions: {
    create: () => 'none',
    getAutoHeightDuration: () => 0,
    duration: Object.fromEntries(Object.keys(theme.transitions.duration).map((name) => [name, 0])),
  },
});

/** The wordmark's type. */
export const wordmark = {
  fontFamily: WORDMARK,
  fontWeight: 700,
  fontSize: 20,
  letterSpacing: '-0.02em',
  color: INK.sprout,
  textDecoration: 'none',
} as const;
