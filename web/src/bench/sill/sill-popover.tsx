import Button from '@mui/material/Button';
import Popover from '@mui/material/Popover';
import { type ReactNode, useState } from 'react';
import { Choices } from '../choices.tsx';
import { pressable } from '../pressed.ts';
import { type SillState, useSill } from './state.ts';

/** A button of the Sill and what it opens; filled while what it sets is not as usual. */
export function SillPopover({
  words,
  label,
  isOn = false,
  says,
  icon,
  children,
}: {
  words: string;
  /** In place of the words, which are its name then. */
  icon?: ReactNode;
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
        aria-label={says ?? (icon ? words : undefined)}
        title={says ?? (icon ? words : undefined)}
        sx={{ ...pressable(isOn), px: 0.7, flex: '0 0 auto' }}
        onClick={(event) => setAnchor(event.currentTarget)}
      >
        {icon ?? words}
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

type Options<T> = readonly (readonly [value: T, words: string])[];

/** A row of a Sill's popover in which one of a few values is chosen. */
export function SillChoice<T extends string | number>({
  words,
  label,
  value,
  options,
  onChange,
}: {
  words: string;
  /** What is chosen, for those who do not see the rows around. */
  label: string;
  value: T;
  /** Each value with its words. */
  options: Options<T>;
  onChange(value: T): void;
}) {
  return (
    <SillRow words={words}>
      <Choices
        label={label}
        value={value}
        options={options.map(([one, wordsOfOne]) => ({ value: one, words: wordsOfOne }))}
        onChange={onChange}
      />
    </SillRow>
  );
}

/** Parts of what the Sill shows that are one of a few values. */
type ChosenKey = 'tone' | 'corners' | 'opacityAs' | 'filtering' | 'split' | 'stillFormat';

/** A row in which a part of what the Sill shows is chosen, by its name in the Sill's state. */
export function StateChoice<K extends ChosenKey>({
  of,
  ...row
}: {
  of: K;
  words: string;
  label: string;
  options: Options<SillState[K]>;
}) {
  const value = useSill((sill) => sill[of]);
  return <SillChoice {...row} value={value} onChange={(next) => useSill.setState({ [of]: next })} />;
}
