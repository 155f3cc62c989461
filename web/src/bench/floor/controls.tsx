import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import type { StationName } from '@zesty-tile/core';
import { memo } from 'react';
import { hasMap } from '../../engine/has-map.ts';
import { isDetail, VIEW_NAMES, VIEW_WORDS, type ViewName, viewBefore } from '../../engine/views.ts';
import { STATION_VIEWS } from '../../stations/index.ts';
import { GREY } from '../../theme.ts';
import { Choices } from '../choices.tsx';
import { pressable } from '../pressed.ts';
import { FAR, floorViewOf, LAYS, type Lay, useBench, viewInForce } from '../state.ts';
import { STATION_WORDS } from '../words.ts';
import { useBefore } from './before.ts';
import { isOfPhoto } from './of-photo.ts';

const ALWAYS = () => true;

/** The views of the open station to choose between. */
function ViewChoices({ view }: { view: ViewName }) {
  const station = useBench((s) => s.station);
  const { views = {} } = STATION_VIEWS[station];
  if (!(view in views)) return null;
  // Another station may ask other things of the Bench, so its choices are another component.
  return <OfferedViews key={station} station={station} view={view} />;
}

function OfferedViews({ station, view }: { station: StationName; view: ViewName }) {
  const { views = {}, useOffersViews = ALWAYS } = STATION_VIEWS[station];
  const isOffered = useOffersViews();
  const set = useBench((s) => s.set);
  if (!isOffered) return null;
  return (
    <Choices
      label={`At ${STATION_WORDS[station]}`}
      value={view}
      options={Object.entries(views).map(([value, words]) => ({ value: value as ViewName, words: words! }))}
      onChange={(next: ViewName) => set({ chosenView: next === floorViewOf(station) ? null : next })}
    />
  );
}

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
  const { Controls, showsFar } = STATION_VIEWS[station];
  const comparable = compared !== null || viewBefore(view) !== null;
  return (
    <Box sx={{ display: 'flex', gap: 0.75, alignItems: 'center', flexWrap: 'wrap' }}>
      <ViewChoices view={view} />
      {!isOfPhoto(view) && (
        <>
          <Choices
            label="Lay"
            value={lay}
            options={(showsFar ? [...LAYS, FAR] : LAYS).map((value) => ({
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
      {Controls && <Controls view={view} />}
      <Box sx={{ ml: 'auto', display: 'flex', gap: 0.75 }}>
        <Select
          size="small"
          value={view}
          onChange={(event) => set({ chosenView: event.target.value as ViewName })}
          inputProps={{ 'aria-label': 'Map on the Floor' }}
          sx={{ bgcolor: GREY.card, fontSize: 12.5, '& .MuiSelect-select': { py: 0.4 } }}
        >
          {VIEW_NAMES.filter((name) => hasMap(maps, name) && (!isDetail(name) || name === view)).map(
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
