import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Link, useRouteError } from 'react-router';
import { Mark } from './mark.tsx';

/** Where an address leads nowhere, or a page broke: what happened, and the way back. */
export function Lost() {
  const error = useRouteError();
  const what = error instanceof Error ? error.message : 'Page not found.';
  return (
    <main style={{ display: 'grid', placeContent: 'center', gap: 16, height: '100%', justifyItems: 'start' }}>
      <Mark />
      <Typography variant="h1">Nothing here</Typography>
      <Typography color="text.secondary">{what} What you saved is in the Yard.</Typography>
      <Button component={Link} to="/" variant="contained">
        Go to the Yard
      </Button>
    </main>
  );
}
