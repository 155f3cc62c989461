import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { type ReactNode, useState } from 'react';
import { pressable } from '../../bench/pressed.ts';
import { GREY } from '../../theme.ts';

interface ItemCardProps {
  /** What it is called, for who does not see it. */
  label: string;
  head: ReactNode;
  onRemove(): void;
  children: ReactNode;
  /** Settings that are needed less often, under a button. */
  more?: ReactNode;
  moreWords?: string;
}

/** A part of a mask, or an output: its head, its dials, and what is needed less often. */
export function ItemCard({ label, head, onRemove, children, more, moreWords }: ItemCardProps) {
  const [open, setOpen] = useState(false);
  return (
    <Box
      role="group"
      aria-label={label}
      sx={{ borderTop: `1px solid ${GREY.line}`, pt: 0.75, display: 'grid', gap: 0.25 }}
    >
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 0.75 }}>
        {head}
        <Button
          sx={{ ...pressable(false), ml: 'auto', minWidth: 0 }}
          aria-label={`Remove ${label}`}
          onClick={onRemove}
        >
          Remove
        </Button>
      </Box>
      {children}
      {more && (
        <>
          <Button
            sx={{ ...pressable(open), justifySelf: 'start' }}
            aria-expanded={open}
            onClick={() => setOpen(!open)}
          >
            {moreWords}
          </Button>
          {open && more}
        </>
      )}
    </Box>
  );
}
