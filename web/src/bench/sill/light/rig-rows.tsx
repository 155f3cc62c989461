import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { stableJson } from '@zesty-tile/core';
import { useState } from 'react';
import { answerOf, api } from '../../../api/client.ts';
import { useRemoval } from '../../../api/use-undoable.tsx';
import { NameDialog } from '../../../name-dialog.tsx';
import { GREY } from '../../../theme.ts';
import { pressable } from '../../pressed.ts';
import { SillRow } from '../sill-popover.tsx';
import { useSill } from '../state.ts';

/** Lights that are kept under names: put up again, kept again, or thrown away. */
export function RigRows() {
  const queries = useQueryClient();
  const remove = useRemoval();
  const { rig: chosen, sun, sunStrength, lamps } = useSill();
  const [naming, setNaming] = useState(false);
  const rigs = useQuery({ queryKey: ['rigs'], queryFn: () => answerOf(api.rigs.$get()) }).data?.rigs ?? [];
  const keep = async (name: string) => {
    const { rig } = await answerOf(
      api.rigs.$post({ json: { name, lights: { sun, sunStrength, lamps } } } as never),
    );
    await queries.invalidateQueries({ queryKey: ['rigs'] });
    useSill.setState({ rig: rig.id });
  };
  const put = (id: string) => {
    const rig = rigs.find((one) => one.id === id);
    if (rig) useSill.setState({ ...rig.lights, rig: id, chosenLight: 'sun' });
  };
  const now = stableJson({ sun, sunStrength, lamps });
  // A rig that was changed since is none of those that are kept.
  const present = rigs.find(({ id, lights }) => id === chosen && stableJson(lights) === now);
  return (
    <SillRow
      words={
        <Select
          size="small"
          displayEmpty
          fullWidth
          value={present ? chosen : ''}
          inputProps={{ 'aria-label': 'Rig' }}
          onChange={(event) => put(event.target.value)}
          sx={{ bgcolor: GREY.card, fontSize: 13, '& .MuiSelect-select': { py: 0.5 } }}
        >
          <MenuItem value="" disabled>
            {rigs.length === 0 ? 'No saved rigs yet' : 'Saved rigs …'}
          </MenuItem>
          {rigs.map(({ id, name }) => (
            <MenuItem key={id} value={id}>
              {name}
            </MenuItem>
          ))}
        </Select>
      }
    >
      <Button sx={pressable(false)} onClick={() => setNaming(true)}>
        Keep …
      </Button>
      {present && (
        <Button
          sx={pressable(false)}
          aria-label={`Delete rig ${present.name}`}
          onClick={() => remove(api.rigs, present.id, present.name)}
        >
          Delete
        </Button>
      )}
      {naming && (
        <NameDialog
          title="Keep these lights"
          label="Name of the rig"
          action="Keep"
          onName={keep}
          onClose={() => setNaming(false)}
        />
      )}
    </SillRow>
  );
}
