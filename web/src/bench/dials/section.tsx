import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { ReactNode } from 'react';
import { GREY } from '../../theme.ts';
import { useFolds } from './folds.ts';

interface SectionProps {
  station: string;
  /** By which it is remembered whether it is open. */
  id: string;
  title: string;
  /** Whether it is open before anyone opened or folded it by hand. */
  open?: boolean;
  children: ReactNode;
}

/** Dials or tools under a title, which folds them away. */
export function Section({ station, id, title, open: first = false, children }: SectionProps) {
  const open = useFolds((s) => s.open[`${station} ${id}`] ?? first);
  const setOpen = (next: boolean) =>
    useFolds.setState((s) => ({ open: { ...s.open, [`${station} ${id}`]: next } }));
  return (
    <Box component="fieldset" aria-label={title} sx={{ border: 0, m: 0, p: 0, minWidth: 0 }}>
      <Button
        variant="text"
        onClick={() => setOpen(!open)}
        aria-expanded={open}
        sx={{ justifyContent: 'flex-start', px: 0, fontWeight: 700, width: '100%', gap: 0.75 }}
      >
        {title}
        <span aria-hidden="true" style={{ color: GREY.soft, fontWeight: 400 }}>
          {open ? '–' : '+'}
        </span>
      </Button>
      {open && children}
    </Box>
  );
}
