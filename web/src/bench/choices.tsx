import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import type { ReactNode } from 'react';
import { GREY } from '../theme.ts';

/** Words beside an icon, which a narrow place may leave to the icon's name. */
export const BESIDE_ICON = 'beside-icon';

interface ChoicesProps<T extends string | number> {
  label: string;
  value: T;
  options: readonly { value: T; words: string; icon?: ReactNode }[];
  onChange(value: T): void;
  /** The one that is taken was pressed again. */
  onAgain?(): void;
  /** They share the width there is, and give up their room before any is cut off. */
  fills?: boolean;
}

/** A few choices side by side, one of them taken. */
export function Choices<T extends string | number>({
  label,
  value,
  options,
  onChange,
  onAgain,
  fills = false,
}: ChoicesProps<T>) {
  return (
    <ToggleButtonGroup
      exclusive
      size="small"
      value={value}
      aria-label={label}
      onChange={(_event, next: T | null) => (next === null ? onAgain?.() : onChange(next))}
      sx={{
        bgcolor: GREY.card,
        ...(fills ? { flex: 1, minWidth: 0 } : {}),
        '& .MuiToggleButton-root': {
          ...(fills ? { flex: '1 1 auto', minWidth: 0, whiteSpace: 'nowrap' } : {}),
          px: fills ? 0.4 : 0.9,
          py: 0.25,
          color: GREY.ink,
          borderColor: GREY.line,
          fontSize: fills ? 12 : 12.5,
        },
        '& .Mui-selected, & .Mui-selected:hover': {
          bgcolor: `${GREY.ink} !important`,
          color: `${GREY.onInk} !important`,
        },
      }}
    >
      {options.map((option) => (
        <ToggleButton
          key={option.value}
          value={option.value}
          aria-label={option.icon ? option.words : undefined}
          title={option.icon ? option.words : undefined}
        >
          {option.icon}
          {option.icon ? <span className={BESIDE_ICON}>{option.words}</span> : option.words}
        </ToggleButton>
      ))}
    </ToggleButtonGroup>
  );
}
