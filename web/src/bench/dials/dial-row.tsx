import Box from '@mui/material/Box';
import type { Setting } from '@zesty-tile/core';
import type { ReactNode } from 'react';
import { DialName } from './dial-name.tsx';

interface DialRowProps {
  setting: Setting;
  changed: boolean;
  onReset(): void;
  /** Columns after the name's; one that takes all room where nothing is said. */
  columns?: string;
  children: ReactNode;
}

/** One row of a dial that is no slider: its name, and what it is set by. */
export function DialRow({ setting, changed, onReset, columns = 'minmax(0, 1fr)', children }: DialRowProps) {
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: `92px ${columns}`,
        alignItems: 'center',
        gap: 1,
        minHeight: 34,
      }}
    >
      <DialName setting={setting} changed={changed} onReset={onReset} />
      {children}
    </Box>
  );
}
