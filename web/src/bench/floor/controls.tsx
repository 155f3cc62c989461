import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { memo } from 'react';
import { hasMap } from '../../engine/has-map.ts';
import {
  bandOf,
  FLOOR_VIEW_OF,
  VIEW_NAMES,
  VIEW_WORDS,
  type ViewName,
  viewBefore,
} from '../../engine/views.ts';
import { FarControls } from '../../stations/proof/far-controls.tsx';
import { GREY } from '../../theme.ts';
import { Choices } from '../choices.tsx';
import { pressable } from '../pressed.ts';
import { FAR, LAYS, type Lay, useBench, viewInForce } from '../state.ts';
import { useBefore } from './before.ts';
import { useSight } from './sight.ts';

/** What to lay and how often, and what lies on it: in the stage's margin, off the picture. */
export const FloorControls = memo(function FloorControls() {
  const lay = useBench((s) => s.lay);
  const halfShift = useBench((s) => s.halfShift);
  const station = useBench((s) => s.station);
  const view = useBench(viewInForce);
  const maps = useBench((s) => s.maps);
  const set = useBench((s) => s.set);
  const divided = useBefore((s) => s.divider !== null);
  const compared = useBefore((s) => s.compared);
  const { cut, heat, hatching, luminance } = useSight();
  const hasPatches = useBench((s) => s.recipe.stations.gauge.patches.length > 0);
  const comparable = compared !== null || viewBefore(view) !== null;
  return (
    <Box sx={{ display: 'flex', gap: 0.75, alignItems: 'center', flexWrap: 'wrap' }}>
      {station === 'square' && (view === 'photo' || view === 'crop') ? (
        <Choices
          label="At Square"
          value={view}
          options={[
            { value: 'photo', words: 'Set the crop' },
            { value: 'crop', words: 'Crop laid' },
          ]}
          onChange={(next: ViewName) => set({ chosenView: next === FLOOR_VIEW_OF.square ? null : next })}
        />
      ) : null}
      {station === 'even' && (view === 'evened' || view === 'light' || view === 'left') ? (
        <Choices
          label="At Even"
          value={view}
          options={[
            { value: 'evened', words: 'Evened' },
            { value: 'light', words: 'Light taken out' },
            { value: 'left', words: 'Left alone' },
          ]}
          onChange={(next: ViewName) => set({ chosenView: next === FLOOR_VIEW_OF.even ? null : next })}
        />
      ) : null}
      {station === 'join' && (view === 'photo' || view === 'joined') ? (
        <Choices
          label="At Join"
          value={view}
          options={[
            { value: 'joined', words: 'Joined' },
            { value: 'photo', words: 'Where it is taken' },
          ]}
          onChange={(next: ViewName) => set({ chosenView: next === FLOOR_VIEW_OF.join ? null : next })}
        />
      ) : null}
      {view !== 'photo' && (
        <>
          <Choices
            label="Lay"
            value={lay}
            options={(station === 'proof' ? [...LAYS, FAR] : LAYS).map((value) => ({
              value,
              words: value === 1 ? '1' : `${value} × ${value}`,
            }))}
            onChange={(value: Lay) => set({ lay: value })}
          />
          <Button
            aria-pressed={halfShift}
            sx={pressable(halfShift)}
            onClick={() => set({ halfShift: !halfShift })}
          >
            Half shift
          </Button>
        </>
      )}
      <Button
        aria-pressed={divided && comparable}
        disabled={!comparable}
        sx={pressable(divided && comparable)}
        onClick={() => useBefore.setState({ divider: divided ? null : 0.5, compared: null })}
      >
        Before | after
      </Button>
      {station === 'proof' && view !== 'photo' && <FarControls />}
      {station === 'join' && view === 'joined' && (
        <>
          <Button aria-pressed={cut} sx={pressable(cut)} onClick={() => useSight.setState({ cut: !cut })}>
            Cut
          </Button>
          <Button aria-pressed={heat} sx={pressable(heat)} onClick={() => useSight.setState({ heat: !heat })}>
            Seam heat
          </Button>
        </>
      )}
      {station === 'gauge' && hasPatches && (view === 'photo' || view === 'albedo') ? (
        <Choices
          label="At Gauge"
          value={view}
          options={[
            { value: 'albedo', words: 'Albedo' },
            { value: 'photo', words: 'Patches' },
          ]}
          onChange={(next: ViewName) => set({ chosenView: next === FLOOR_VIEW_OF.gauge ? null : next })}
        />
      ) : null}
      {station === 'gauge' && view === 'albedo' && (
        <>
          <Button
            aria-pressed={hatching}
            sx={pressable(hatching)}
            onClick={() => useSight.setState({ hatching: !hatching })}
          >
            Hatching
          </Button>
          <Button
            aria-pressed={luminance}
            sx={pressable(luminance)}
            onClick={() => useSight.setState({ luminance: !luminance })}
          >
            Luminance
          </Button>
        </>
      )}
      <Box sx={{ ml: 'auto', display: 'flex', gap: 0.75 }}>
        <Select
          size="small"
          value={view}
          onChange={(event) => set({ chosenView: event.target.value as ViewName })}
          inputProps={{ 'aria-label': 'Map on the Floor' }}
          sx={{ bgcolor: GREY.card, fontSize: 12.5, '& .MuiSelect-select': { py: 0.4 } }}
        >
          {VIEW_NAMES.filter((name) => hasMap(maps, name) && (bandOf(name) < 0 || name === view)).map(
            (name) => (
              <MenuItem key={name} value={name}>
                {VIEW_WORDS[name]}
              </MenuItem>
            ),
          )}
        </Select>
      </Box>
    </Box>
  );
});
