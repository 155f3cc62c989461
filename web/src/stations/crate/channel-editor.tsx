import Box from '@mui/material/Box';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import TextField from '@mui/material/TextField';
import { type Channel, MAP_NAMES, type MapName, planesOf } from '@zesty-tile/core';
import { Picture } from '../../bench/picture.tsx';
import type { Thumbnail } from '../../engine/protocol.ts';
import { VIEW_WORDS } from '../../engine/views.ts';
import { GREY } from '../../theme.ts';
import { Swatch } from './swatches.tsx';

const VALUE = 'value';
const PARTS = { normal: ['x', 'y', 'z'] } as Partial<Record<MapName, string[]>>;
const COLOUR = ['red', 'green', 'blue'];
const CHANNELS = ['Red', 'Green', 'Blue', 'Alpha'];

const OPTIONS = MAP_NAMES.flatMap((map) =>
  Array.from({ length: planesOf(map) }, (_, plane) => ({
    key: `${map} ${plane}`,
    words: planesOf(map) === 1 ? VIEW_WORDS[map] : `${VIEW_WORDS[map]}, ${(PARTS[map] ?? COLOUR)[plane]}`,
  })),
);

interface ChannelEditorProps {
  index: number;
  /** A file of one channel is grey. */
  isGrey: boolean;
  channel: Channel;
  picture: Thumbnail | undefined;
  onChange(channel: Channel): void;
}

/** What is in one channel: its picture, which map, inverted or not, or one value. */
export function ChannelEditor({ index, isGrey, channel, picture, onChange }: ChannelEditorProps) {
  const name = isGrey ? 'Grey' : CHANNELS[index];
  const isMap = 'map' in channel;
  const choose = (key: string) => {
    if (key === VALUE) return onChange({ value: 1 });
    const [map, plane] = key.split(' ');
    onChange({
      map: map as MapName,
      plane: Number(plane) as 0 | 1 | 2,
      turned: isMap ? channel.turned : false,
    });
  };
  return (
    <Box
      role="group"
      aria-label={name}
      sx={{
        display: 'grid',
        gridTemplateColumns: '74px 70px minmax(0, 1fr) 118px',
        gap: 1.5,
        alignItems: 'center',
      }}
    >
      <Box
        sx={{
          width: 74,
          height: 74,
          border: `1px solid ${GREY.line}`,
          bgcolor: GREY.walls,
          display: 'grid',
          placeItems: 'center',
        }}
      >
        {picture && <Picture picture={picture} edge={72} label={`${name} as a picture`} />}
      </Box>
      <span style={{ fontWeight: 700 }}>
        {!isGrey && <Swatch channel={index} />}
        {name}
      </span>
      <Select
        size="small"
        value={isMap ? `${channel.map} ${channel.plane}` : VALUE}
        inputProps={{ 'aria-label': `${name} holds` }}
        onChange={(event) => choose(event.target.value)}
        sx={{ bgcolor: GREY.card, fontSize: 13, '& .MuiSelect-select': { py: 0.6 } }}
      >
        {OPTIONS.map(({ key, words }) => (
          <MenuItem key={key} value={key}>
            {words}
          </MenuItem>
        ))}
        <MenuItem value={VALUE}>Constant value</MenuItem>
      </Select>
      {isMap ? (
        <FormControlLabel
          label="inverted"
          sx={{ whiteSpace: 'nowrap', '& .MuiFormControlLabel-label': { fontSize: 13 } }}
          control={
            <Checkbox
              size="small"
              checked={channel.turned}
              onChange={(event) => onChange({ ...channel, turned: event.target.checked })}
            />
          }
        />
      ) : (
        <TextField
          type="number"
          value={channel.value}
          onChange={(event) => onChange({ value: Math.min(1, Math.max(0, Number(event.target.value))) })}
          slotProps={{
            htmlInput: { min: 0, max: 1, step: 0.05, 'aria-label': `Value of ${name.toLowerCase()}` },
          }}
        />
      )}
    </Box>
  );
}
