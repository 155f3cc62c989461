import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { GREY } from '../theme.ts';

interface ChoicesProps<T extends string | number> {
  label: string;
  value: T;
  options: readonly { value: T; words: string }[];
  onChange(value: T): void;
}

/** A few choices side by side, one of them taken. */
export function Choices<T extends string | number>({ label, value, options, onChange }: ChoicesProps<T>) {
  return (
    <ToggleButtonGroup
      exclusive
      size="small"
      value={value}
      aria-label={label}
      onChange={(_event, next: T | null) => next !== null && onChange(next)}
      sx={{
        bgcolor: GREY.card,
        '& .MuiToggleButton-root': {
          px: 0.9,
          py: 0.25,
          color: GREY.ink,
          borderColor: GREY.line,
          fontSize: 12.5,
        },
        '& .Mui-selected, & .Mui-selected:hover': {
          bgcolor: `${GREY.ink} !important`,
          color: `${GREY.onInk} !important`,
        },
      }}
    >
      {options.map((option) => (
        <ToggleButton key={option.value} value={option.value}>
          {option.words}
        </ToggleButton>
      ))}
    </ToggleButtonGroup>
  );
}
