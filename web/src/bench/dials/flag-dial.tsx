import Box from '@mui/material/Box';
import Switch from '@mui/material/Switch';
import type { FlagSetting } from '@zesty-tile/core';
import { DialName } from './dial-name.tsx';

/** One row that is on or off. */
export function FlagDial({
  setting,
  value,
  onChange,
}: {
  setting: FlagSetting;
  value: boolean;
  onChange(value: boolean): void;
}) {
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between', minHeight: 30 }}>
      <DialName
        setting={setting}
        changed={value !== setting.default}
        onReset={() => onChange(setting.default)}
      />
      <Switch
        size="small"
        checked={value}
        onChange={(event) => onChange(event.target.checked)}
        slotProps={{ input: { 'aria-label': setting.label } }}
      />
    </Box>
  );
}
