import '@fontsource-variable/instrument-sans/index.css';
import '@fontsource-variable/spline-sans-mono/index.css';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { SnackbarProvider } from 'notistack';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, RouterProvider } from 'react-router';
import { AppTheme } from './app-theme.tsx';
import { Help } from './help.tsx';
import { Lost } from './lost.tsx';
import { askAhead } from './yard/queries.ts';

const HydrateFallback = () => null;

const page = (path: string, load: () => Promise<{ Component: React.ComponentType }>) => ({
  path,
  lazy: load,
  HydrateFallback,
  ErrorBoundary: Lost,
});

const router = createBrowserRouter([
  page('/', async () => ({ Component: (await import('./yard/yard.tsx')).Yard })),
  page('/tiles/:id/:station', async () => ({ Component: (await import('./bench/page.tsx')).BenchPage })),
  page('/tiles/:id/sheet', async () => ({
    Component: (await import('./proof-sheet/proof-sheet-page.tsx')).ProofSheetPage,
  })),
  page('/projects/:id/palettes', async () => ({
    Component: (await import('./palettes/palettes-page.tsx')).PalettesPage,
  })),
  page('/charts', async () => ({ Component: (await import('./charts/charts-page.tsx')).ChartsPage })),
  page('/recipes', async () => ({ Component: (await import('./recipes/recipes-page.tsx')).RecipesPage })),
  page('/crates', async () => ({ Component: (await import('./crates/crates-page.tsx')).CratesPage })),
  page('/settings', async () => ({ Component: (await import('./settings/settings-page.tsx')).SettingsPage })),
  { path: '*', Component: Lost },
]);

const queries = new QueryClient({
  defaultOptions: { queries: { staleTime: 5000, refetchOnWindowFocus: false } },
});

if (location.pathname === '/') void askAhead(queries);

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <AppTheme>
      <QueryClientProvider client={queries}>
        <SnackbarProvider anchorOrigin={{ vertical: 'bottom', horizontal: 'center' }} maxSnack={3}>
          <RouterProvider router={router} />
          <Help />
        </SnackbarProvider>
      </QueryClientProvider>
    </AppTheme>
  </StrictMode>,
);
