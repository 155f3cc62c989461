import Autocomplete from '@mui/material/Autocomplete';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import TextField from '@mui/material/TextField';
import type { ChoiceSetting } from '@zesty-tile/core';
import { GREY } from '../../theme.ts';
import { DialRow } from './dial-row.tsx';

interface ChoiceDialProps {
  setting: ChoiceSetting;
  value: string | number;
  onChange(value: string | number): void;
}

const LONG = 12;

/** One row with a choice; long lists are searched by name. */
export function ChoiceDial({ setting, value, onChange }: ChoiceDialProps) {
  const words = (option: string | number) => setting.names[setting.options.indexOf(option)] ?? String(option);
  return (
    <DialRow setting={setting} changed={value !== setting.default} onReset={() => onChange(setting.default)}>
      {setting.options.length > LONG ? (
        <Autocomplete
          size="small"
          disableClearable
          options={setting.options as (string | number)[]}
          value={value}
          getOptionLabel={words}
          onChange={(_event, next) => onChange(next)}
          renderInput={(params) => (
            <TextField
              {...params}
              aria-label={setting.label}
              slotProps={{
                ...params.slotProps,
                htmlInput: { ...params.slotProps?.htmlInput, 'aria-label': setting.label },
              }}
            />
          )}
          sx={{ '& .MuiInputBase-root': { bgcolor: GREY.card, fontSize: 13, py: '2px !important' } }}
        />
      ) : (
        <Select
          size="small"
          value={value}
          inputProps={{ 'aria-label': setting.label }}
          onChange={(event) => onChange(event.target.value)}
          sx={{ bgcolor: GREY.card, fontSize: 13, '& .MuiSelect-select': { py: 0.5 } }}
        >
          {setting.options.map((option) => (
            <MenuItem key={option} value={option}>
              {words(option)}
            </MenuItem>
          ))}
        </Select>
      )}
    </DialRow>
  );
}
