import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { VIEW_NAMES, VIEW_WORDS, type ViewName } from '../../engine/views.ts';
import { GREY } from '../../theme.ts';
import { Choices } from '../choices.tsx';
import { LAYS, useBench, viewInForce } from '../state.ts';

/** What to lay, how often, and how near: in the stage's margin, off the picture. */
export function FloorControls({ onFit, onPixels }: { onFit(): void; onPixels(): void }) {
  const lay = useBench((s) => s.lay);
  const halfShift = useBench((s) => s.halfShift);
  const edgeLines = useBench((s) => s.edgeLines);
  const view = useBench(viewInForce);
  const hasAlpha = useBench((s) => s.maps?.opacity != null);
  const set = useBench((s) => s.set);
  const pressed = { bgcolor: GREY.ink, color: '#fff', '&:hover': { bgcolor: GREY.ink } };
  const button = { minWidth: 0, px: 1.1, py: 0.25, fontSize: 12.5 };
  return (
    <Box sx={{ display: 'flex', gap: 0.75, alignItems: 'center', flexWrap: 'wrap' }}>
      <Choices
        label="Lay"
        value={lay}
        options={LAYS.map((value) => ({ value, words: value === 1 ? '1' : `${value} × ${value}` }))}
        onChange={(value) => set({ lay: value })}
      />
      <Button
        aria-pressed={halfShift}
        sx={{ ...button, ...(halfShift ? pressed : {}) }}
        onClick={() => set({ halfShift: !halfShift })}
      >
        Half shift
      </Button>
      <Button
        aria-pressed={edgeLines}
        sx={{ ...button, ...(edgeLines ? pressed : {}) }}
        onClick={() => set({ edgeLines: !edgeLines })}
      >
        Edges
      </Button>
      <Button sx={button} onClick={onFit}>
        Fit
      </Button>
      <Button sx={button} onClick={onPixels}>
        Pixels
      </Button>
      <Select
        size="small"
        value={view}
        onChange={(event) => set({ chosenView: event.target.value as ViewName })}
        inputProps={{ 'aria-label': 'Map on the Floor' }}
        sx={{ ml: 'auto', bgcolor: GREY.card, fontSize: 12.5, '& .MuiSelect-select': { py: 0.4 } }}
      >
        {VIEW_NAMES.filter((name) => name !== 'opacity' || hasAlpha).map((name) => (
          <MenuItem key={name} value={name}>
            {VIEW_WORDS[name]}
          </MenuItem>
        ))}
      </Select>
    </Box>
  );
}
