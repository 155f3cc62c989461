import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { COAT_GROUP_SETTINGS, type CoatGroup } from '@zesty-tile/core';
import { NumberDial } from '../../bench/dials/number-dial.tsx';
import { pressable } from '../../bench/pressed.ts';
import { CARD } from '../../theme.ts';
import { MaskParts } from './mask-parts.tsx';
import { NameField } from './name-field.tsx';
import { changeGroup, removeGroup } from './use-coats.ts';

/** The open group: its name, and the strength and mask that its coats have in common. */
export function OpenGroup({ group }: { group: CoatGroup }) {
  const { id } = group;
  return (
    <Box sx={{ ...CARD, gap: 0.5 }}>
      <Box sx={{ display: 'flex', gap: 0.75, alignItems: 'center' }}>
        <NameField
          label="Name of the group"
          name={group.name}
          onName={(name) => changeGroup(id, (now) => ({ ...now, name }))}
        />
        <Button sx={pressable(false)} onClick={() => removeGroup(id)}>
          Ungroup
        </Button>
      </Box>
      <NumberDial
        setting={COAT_GROUP_SETTINGS.strength}
        value={group.strength}
        onChange={(strength) => changeGroup(id, (now) => ({ ...now, strength }), 'strength')}
      />
      <MaskParts owner={{ kind: 'group', id }} parts={group.parts} />
    </Box>
  );
}
