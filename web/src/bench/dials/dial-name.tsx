import RestartAlt from '@mui/icons-material/RestartAlt';
import IconButton from '@mui/material/IconButton';
import Tooltip from '@mui/material/Tooltip';
import type { Setting } from '@zesty-tile/core';
import { memo } from 'react';

interface DialNameProps {
  setting: Setting;
  /** What is in the place of its name. */
  words?: string;
  changed: boolean;
  onReset(): void;
}

/** A dial's name with its help; where it was moved, the way back to its default. */
export const DialName = memo(function DialName({ setting, words, changed, onReset }: DialNameProps) {
  return (
    <span style={{ display: 'flex', alignItems: 'center', minWidth: 0 }}>
      <Tooltip title={setting.help} placement="left">
        <span style={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
          {words ?? setting.label}
        </span>
      </Tooltip>
      {changed && (
        <Tooltip title="Back to its default">
          <IconButton
            size="small"
            aria-label={`${setting.label} back to its default`}
            onClick={onReset}
            sx={{ p: 0.25, ml: 0.25 }}
          >
            <RestartAlt sx={{ fontSize: 14 }} />
          </IconButton>
        </Tooltip>
      )}
    </span>
  );
});
