import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import Popover from '@mui/material/Popover';
import { useState } from 'react';
import { hasMap } from '../../engine/has-map.ts';
import { VIEW_WORDS } from '../../engine/views.ts';
import { pressable } from '../pressed.ts';
import { useBench } from '../state.ts';
import { SILL_MAPS, useSill } from './state.ts';

/** Takes single maps out of the lit view, and puts them back. */
export function MapsInPlay() {
  const off = useSill((s) => s.off);
  const made = useBench((s) => s.maps);
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const maps = SILL_MAPS.filter((map) => hasMap(made, map));
  return (
    <>
      <Button
        aria-haspopup="dialog"
        sx={pressable(off.length > 0)}
        onClick={(event) => setAnchor(event.currentTarget)}
      >
        {off.length === 0 ? 'All maps on' : `${off.map((map) => VIEW_WORDS[map]).join(', ')} off`}
      </Button>
      <Popover
        open={anchor !== null}
        anchorEl={anchor}
        onClose={() => setAnchor(null)}
        anchorOrigin={{ vertical: 'top', horizontal: 'left' }}
        transformOrigin={{ vertical: 'bottom', horizontal: 'left' }}
        slotProps={{
          paper: { role: 'dialog', 'aria-label': 'Maps in play', sx: { px: 2, py: 1 } } as object,
        }}
      >
        <div style={{ display: 'grid' }}>
          {maps.map((map) => (
            <FormControlLabel
              key={map}
              label={VIEW_WORDS[map]}
              control={
                <Checkbox
                  size="small"
                  sx={{ py: 0.4 }}
                  checked={!off.includes(map)}
                  onChange={(event) =>
                    useSill.setState({
                      off: event.target.checked ? off.filter((one) => one !== map) : [...off, map],
                    })
                  }
                />
              }
            />
          ))}
          <Button disabled={off.length === 0} onClick={() => useSill.setState({ off: [] })}>
            All on
          </Button>
        </div>
      </Popover>
    </>
  );
}
