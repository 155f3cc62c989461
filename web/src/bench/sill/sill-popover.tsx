import Button from '@mui/material/Button';
import Popover from '@mui/material/Popover';
import { type ReactNode, useState } from 'react';
import { pressable } from '../pressed.ts';

/** A button of the Sill and what it opens; filled while what it sets is not as usual. */
export function SillPopover({
  words,
  label,
  isOn = false,
  says,
  children,
}: {
  words: string;
  /** Name of what opens. */
  label: string;
  isOn?: boolean;
  /** What the button says to those who do not see it, and under the pointer; its words where nothing is given. */
  says?: string;
  children: ReactNode;
}) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  return (
    <>
      <Button
        aria-haspopup="dialog"
        aria-label={says}
        title={says}
        sx={{ ...pressable(isOn), px: 0.7, flex: '0 0 auto' }}
        onClick={(event) => setAnchor(event.currentTarget)}
      >
        {words}
      </Button>
      <Popover
        open={anchor !== null}
        anchorEl={anchor}
        onClose={() => setAnchor(null)}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}
        slotProps={{
          paper: { role: 'dialog', 'aria-label': label, sx: { p: 2, width: 340 } } as object,
        }}
      >
        {children}
      </Popover>
    </>
  );
}

/** A row of a Sill's popover: words at the left, what is chosen at the right. */
export function SillRow({ words, children }: { words: ReactNode; children: ReactNode }) {
  return (
    <div style={{ display: 'flex', alignItems: 'center', gap: 8, minHeight: 34 }}>
      <span
        style={{ flex: 1, minWidth: 0, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}
      >
        {words}
      </span>
      {children}
    </div>
  );
}
