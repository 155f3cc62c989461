import CssBaseline from '@mui/material/CssBaseline';
import { ThemeProvider } from '@mui/material/styles';
import { type ReactNode, useLayoutEffect, useMemo } from 'react';
import { useSettings } from './settings/settings.ts';
import { themeOf } from './theme.ts';

/** The chosen theme and stage grey around everything. */
export function AppTheme({ children }: { children: ReactNode }) {
  const name = useSettings((s) => s.theme);
  const stage = useSettings((s) => s.stage);
  const theme = useMemo(() => themeOf(name), [name]);
  useLayoutEffect(() => {
    document.documentElement.style.setProperty('--stage', `rgb(${stage} ${stage} ${stage})`);
  }, [stage]);
  return (
    <ThemeProvider theme={theme}>
      <CssBaseline />
      {children}
    </ThemeProvider>
  );
}
