import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { Mark } from './mark.tsx';
import { GREY } from './theme.ts';

/** The slim band at the top of every page. */
export function Head({ children }: { children?: ReactNode }) {
  return (
    <Box
      component="header"
      sx={{
        height: 46,
        flex: 'none',
        display: 'flex',
        alignItems: 'center',
        gap: 2,
        px: 2,
        bgcolor: GREY.sheet,
        borderBottom: `1px solid ${GREY.line}`,
      }}
    >
      <Link
        to="/"
        style={{ display: 'flex', alignItems: 'center', gap: 9, color: 'inherit', textDecoration: 'none' }}
      >
        <Mark />
        <Typography component="span" sx={{ fontWeight: 700, fontSize: 15 }}>
          Zesty Tile
        </Typography>
      </Link>
      {children}
    </Box>
  );
}
