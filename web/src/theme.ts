import { createTheme } from '@mui/material/styles';

/** Neutral surroundings: every surface near a picture has R = G = B. The values stand in `THEMES`. */
export const GREY = {
  stage: 'var(--stage)',
  walls: 'var(--walls)',
  sheet: 'var(--sheet)',
  card: 'var(--card)',
  ink: 'var(--ink)',
  /** Words on ink. */
  onInk: 'var(--on-ink)',
  soft: 'var(--soft)',
  line: 'var(--line)',
};

/** A card: one thing among others of its kind. */
export const CARD = {
  bgcolor: GREY.card,
  border: `1px solid ${GREY.line}`,
  borderRadius: 1,
  p: 1.25,
  display: 'grid',
  gap: 1,
};

/** A panel at the side of the work that scrolls by itself. */
export const PANEL = {
  height: '100%',
  overflowY: 'auto',
  bgcolor: GREY.sheet,
  p: 2,
  display: 'flex',
  flexDirection: 'column',
  gap: 1.5,
} as const;

/** The one accent, and the words on it. */
export const ZEST = 'var(--zest)';
export const ON_ZEST = '#1D1D1D';
export const FIGURES = '"Spline Sans Mono Variable", monospace';

export const THEME_NAMES = ['light', 'dim'] as const;
export type ThemeName = (typeof THEME_NAMES)[number];

const THEMES: Record<ThemeName, Record<string, string>> = {
  light: {
    walls: '#E2E2E2',
    sheet: '#F4F4F4',
    card: '#FFFFFF',
    ink: '#1D1D1D',
    'on-ink': '#FFFFFF',
    soft: '#5C5C5C',
    line: '#C9C9C9',
    zest: '#C8DE1F',
    'zest-deep': '#B7CC18',
    fine: '#1F6B3A',
    look: '#A94B00',
    wrong: '#9B1C1C',
  },
  dim: {
    walls: '#2A2A2A',
    sheet: '#333333',
    card: '#3E3E3E',
    ink: '#EDEDED',
    'on-ink': '#1D1D1D',
    soft: '#BDBDBD',
    line: '#5A5A5A',
    zest: '#EFE8A0',
    'zest-deep': '#DDD58A',
    fine: '#8FD6A5',
    look: '#FFB673',
    wrong: '#FFA39B',
  },
};

/** Fields with their words above them, square switches: one look for whatever is set. */
const fields = (is: Record<string, string>) => ({
  MuiInputLabel: {
    defaultProps: { shrink: true },
    styleOverrides: {
      root: {
        position: 'static' as const,
        transform: 'none',
        fontSize: 12.5,
        lineHeight: 1.4,
        marginBottom: 3,
        color: is.soft,
        maxWidth: 'none',
        '&.Mui-focused': { color: is.ink },
      },
    },
  },
  MuiOutlinedInput: {
    styleOverrides: {
      root: { background: is.card },
      notchedOutline: { top: 0, borderColor: is.line, '& legend': { display: 'none' } },
    },
  },
  MuiSwitch: {
    defaultProps: { size: 'small' as const },
    styleOverrides: {
      root: { width: 32, height: 18, padding: 0, overflow: 'visible' },
      switchBase: {
        padding: 3,
        '&.Mui-checked': { transform: 'translateX(14px)' },
        '&.Mui-checked + .MuiSwitch-track': { opacity: 1, backgroundColor: is.ink },
        '&.Mui-checked .MuiSwitch-thumb': { backgroundColor: is.zest },
      },
      thumb: { width: 12, height: 12, borderRadius: 2, boxShadow: 'none', backgroundColor: is.card },
      track: { borderRadius: 4, opacity: 1, backgroundColor: is.soft },
    },
  },
  MuiAutocomplete: { defaultProps: { noOptionsText: 'Nothing is called that.' } },
});

/** The theme of every component, light or dim. */
export function themeOf(name: ThemeName) {
  const is = THEMES[name];
  return createTheme({
    motion: { reducedMotion: 'system' },
    palette: {
      mode: name === 'dim' ? 'dark' : 'light',
      primary: { main: is.ink, contrastText: is['on-ink'] },
      secondary: { main: is.zest, dark: is['zest-deep'], contrastText: ON_ZEST },
      success: { main: is.fine },
      warning: { main: is.look },
      error: { main: is.wrong },
      text: { primary: is.ink, secondary: is.soft },
      divider: is.line,
      background: { default: is.walls, paper: is.card },
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
          root: { fontSize: 13, lineHeight: 1.5, whiteSpace: 'nowrap' },
          outlined: { background: is.card, borderColor: is.line },
        },
      },
      MuiPaper: { styleOverrides: { root: { backgroundImage: 'none' } } },
      MuiDialogTitle: { styleOverrides: { root: { fontSize: 17, fontWeight: 700 } } },
      MuiMenuItem: { styleOverrides: { root: { fontSize: 13 } } },
      MuiTextField: { defaultProps: { size: 'small' } },
      MuiInputBase: { styleOverrides: { root: { fontSize: 13 } } },
      MuiCssBaseline: {
        styleOverrides: {
          ':root': Object.fromEntries(Object.entries(is).map(([key, value]) => [`--${key}`, value])),
          'html, body, #root': { height: '100%' },
          body: { fontVariantNumeric: 'tabular-nums', minWidth: 1100 },
          // The ring has two colours, so that it is seen on light and on dark alike.
          '*:focus-visible, *:has(> input[type=checkbox]:focus-visible), *:has(> input[type=radio]:focus-visible), *:has(> input[type=range]:focus-visible)':
            {
              outline: `2px solid ${is.ink} !important`,
              outlineOffset: '1px',
              boxShadow: `0 0 0 5px ${is.card} !important`,
            },
          // A field shows it on its frame.
          'input.MuiInputBase-input:focus-visible, textarea.MuiInputBase-input:focus-visible, .MuiSelect-select:focus-visible':
            { outline: 'none !important', boxShadow: 'none !important' },
          // A canvas lies in a box that cuts off what lies outside it, and covers what lies inside.
          'div:has(> canvas:focus-visible)::after': {
            content: '""',
            position: 'absolute',
            inset: 14,
            pointerEvents: 'none',
            outline: `2px solid ${is.ink}`,
            boxShadow: `inset 0 0 0 3px ${is.card}`,
          },
          '@media (prefers-reduced-motion: reduce)': {
            '*': { animation: 'none !important', transition: 'none !important' },
          },
        },
      },
      ...fields(is),
      // Its frame cuts off what lies outside.
      MuiTab: { styleOverrides: { root: { '&:focus-visible': { outlineOffset: '-3px !important' } } } },
      MuiTooltip: { defaultProps: { enterDelay: 500 } },
    },
  });
}
