import '@fontsource-variable/instrument-sans/index.css';
import '@fontsource-variable/spline-sans-mono/index.css';
import CssBaseline from '@mui/material/CssBaseline';
import { ThemeProvider } from '@mui/material/styles';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { SnackbarProvider } from 'notistack';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, RouterProvider } from 'react-router';
import { Lost } from './lost.tsx';
import { theme } from './theme.ts';

const HydrateFallback = () => null;

const router = createBrowserRouter([
  {
    path: '/',
    lazy: async () => ({ Component: (await import('./yard/yard.tsx')).Yard }),
    HydrateFallback,
    ErrorBoundary: Lost,
  },
  {
    path: '/tiles/:id/:station',
    lazy: async () => ({ Component: (await import('./bench/page.tsx')).BenchPage }),
    HydrateFallback,
    ErrorBoundary: Lost,
  },
  { path: '*', Component: Lost },
]);

const queries = new QueryClient({
  defaultOptions: { queries: { staleTime: 5000, refetchOnWindowFocus: false } },
});

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <ThemeProvider theme={theme}>
      <CssBaseline />
      <QueryClientProvider client={queries}>
        <SnackbarProvider anchorOrigin={{ vertical: 'bottom', horizontal: 'center' }}>
          <RouterProvider router={router} />
        </SnackbarProvider>
      </QueryClientProvider>
    </ThemeProvider>
  </StrictMode>,
);
