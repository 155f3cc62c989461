import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useLocation } from 'react-router';
import { GREY } from '../theme.ts';
import { useImport } from './import-state.ts';

/** How far an import is, on every page but the Yard, which shows it itself. */
export function ImportNote() {
  const at = useImport((state) => state.at);
  const { pathname } = useLocation();
  if (!at || pathname === '/') return null;
  return (
    <Box
      role="status"
      aria-label="Import"
      sx={{ display: 'flex', alignItems: 'center', gap: 0.5, color: GREY.soft, whiteSpace: 'nowrap' }}
    >
      Importing {at.index} of {at.of}
      <Button
        variant="text"
        sx={{ minWidth: 0 }}
        onClick={() => void import('./importing.ts').then(({ cancelImport }) => cancelImport())}
      >
        Cancel
      </Button>
    </Box>
  );
}
