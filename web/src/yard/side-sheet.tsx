import Box from '@mui/material/Box';
import type { ReactNode } from 'react';
import { GREY } from '../theme.ts';

/** Of what is beside the tiles, in pixels. */
export const SHEET_WIDTH = 316;

/** What is beside the tiles of the Yard: about a project, a tile, or those that are selected. */
export function SideSheet({ label, children }: { label: string; children: ReactNode }) {
  return (
    <Box
      component="aside"
      aria-label={label}
      sx={{
        width: SHEET_WIDTH,
        flex: 'none',
        overflowY: 'auto',
        bgcolor: GREY.sheet,
        borderLeft: `1px solid ${GREY.line}`,
        px: 2,
        py: 1.5,
        display: 'grid',
        alignContent: 'start',
        gap: 1,
      }}
    >
      {children}
    </Box>
  );
}
