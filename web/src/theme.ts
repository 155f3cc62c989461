import { createTheme } from '@mui/material/styles';

/** Neutral surroundings: every surface near a picture has R = G = B. */
export const GREY = {
  stage: '#7A7A7A',
  walls: '#E2E2E2',
  sheet: '#F4F4F4',
  card: '#FFFFFF',
  ink: '#1D1D1D',
  soft: '#5C5C5C',
  line: '#C9C9C9',
};

export const ZEST = '#C8DE1F';
export const FIGURES = '"Spline Sans Mono Variable", monospace';

export const theme = createTheme({
  palette: {
    primary: { main: GREY.ink, contrastText: '#FFFFFF' },
    secondary: { main: ZEST, dark: '#B7CC18', contrastText: GREY.ink },
    success: { main: '#1F6B3A' },
    warning: { main: '#A94B00' },
    error: { main: '#9B1C1C' },
    text: { primary: GREY.ink, secondary: GREY.soft },
    divider: GREY.line,
    background: { default: GREY.walls, paper: GREY.card },
  },
  shape: { borderRadius: 6 },
  typography: {
    fontFamily: '"Instrument Sans Variable", sans-serif',
    fontSize: 13,
    button: { textTransform: 'none', fontWeight: 500, letterSpacing: 0 },
    h1: { fontSize: 19, fontWeight: 700, lineHeight: 1.25 },
    h2: { fontSize: 13, fontWeight: 700, lineHeight: 1.3 },
    body1: { fontSize: 13, lineHeight: 1.4 },
    body2: { fontSize: 12.5, lineHeight: 1.4 },
  },
  components: {
    MuiButtonBase: { defaultProps: { disableRipple: true } },
    MuiButton: {
      defaultProps: { size: 'small', variant: 'outlined', color: 'primary', disableElevation: true },
      styleOverrides: {
        root: { fontSize: 13, lineHeight: 1.5 },
        outlined: { background: GREY.card, borderColor: GREY.line },
      },
    },
    MuiCssBaseline: {
      styleOverrides: {
        'html, body, #root': { height: '100%' },
        body: { fontVariantNumeric: 'tabular-nums', minWidth: 1100 },
        ':focus-visible': { outline: `2px solid ${GREY.ink}`, outlineOffset: 2 },
        '@media (prefers-reduced-motion: reduce)': {
          '*': { animation: 'none !important', transition: 'none !important' },
        },
      },
    },
    MuiTooltip: { defaultProps: { enterDelay: 500 } },
  },
});
