import Box from '@mui/material/Box';
import Switch from '@mui/material/Switch';
import Tooltip from '@mui/material/Tooltip';
import type { FlagSetting } from '@zesty-tile/core';

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
    <Tooltip title={setting.help} placement="left">
      <Box
        component="label"
        sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between', minHeight: 30 }}
      >
        <span>{setting.label}</span>
        <Switch size="small" checked={value} onChange={(event) => onChange(event.target.checked)} />
      </Box>
    </Tooltip>
  );
}
