import CloseFullscreen from '@mui/icons-material/CloseFullscreen';
import OpenInFull from '@mui/icons-material/OpenInFull';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ListSubheader from '@mui/material/ListSubheader';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import Tooltip from '@mui/material/Tooltip';
import { hasMap } from '../../engine/has-map.ts';
import { VIEW_WORDS } from '../../engine/views.ts';
import { GREY } from '../../theme.ts';
import { BESIDE_ICON, Choices } from '../choices.tsx';
import { pressable } from '../pressed.ts';
import { useBench } from '../state.ts';
import { BesidePanel } from './beside/beside-panel.tsx';
import { DepthPanel } from './depth/depth-panel.tsx';
import { SHAPE_GLYPHS } from './glyphs.tsx';
import { LightPanel } from './light/light-panel.tsx';
import { ShapePanel } from './shape-panel.tsx';
import { SHAPE_WORDS, SHAPES, type Shape } from './shapes.ts';
import { returnViewer, type Show, SILL_MAPS, useSill } from './state.ts';
import { StillPanel } from './still/still-panel.tsx';

const SHOW_WORDS: [Show, string][] = [
  ['finished', 'Finished'],
  ['clay', 'Clay'],
  ['side', 'Side light'],
  ['sheen', 'Sheen only'],
  ['light', 'Light only'],
  ['unlit', 'Unlit'],
  ['eye', 'Next to grey steps'],
];

/** One row of controls that never wraps: what has no room gives way within itself. */
const ROW = { display: 'flex', gap: 0.5, minWidth: 0, alignItems: 'stretch' } as const;

/** What the Sill shows: all maps in play, one way of seeing them, or one map alone. */
function ShowField() {
  const maps = useBench((s) => s.maps);
  const show = useSill((s) => s.show);
  return (
    <Select
      size="small"
      value={show}
      inputProps={{ 'aria-label': 'What the Sill shows' }}
      onChange={(event) => useSill.setState({ show: event.target.value as Show })}
      sx={{
        bgcolor: GREY.card,
        fontSize: 12.5,
        flex: show === 'eye' ? '0 1 auto' : '0 1 132px',
        minWidth: 0,
        '& .MuiSelect-select': { py: 0.4 },
      }}
    >
      {SHOW_WORDS.map(([value, words]) => (
        <MenuItem key={value} value={value}>
          {words}
        </MenuItem>
      ))}
      <ListSubheader sx={{ bgcolor: 'inherit', lineHeight: 2.2 }}>One map</ListSubheader>
      {SILL_MAPS.filter((map) => hasMap(maps, map)).map((map) => (
        <MenuItem key={map} value={map}>
          {VIEW_WORDS[map]}
        </MenuItem>
      ))}
    </Select>
  );
}

/** The controls of the Sill, two rows at any width: which shape, and how it is seen. */
export function SillBar() {
  const { show, grown, shape } = useSill();
  const hasOwn = useSill((s) => s.own !== null);
  const words = grown ? 'Collapse the Sill (L)' : 'Expand the Sill (L)';
  const isEye = show === 'eye';
  return (
    <Box
      sx={{
        containerType: 'inline-size',
        display: 'grid',
        gap: 0.5,
        maxWidth: grown ? 760 : 560,
        [`& .${BESIDE_ICON}`]: { ml: 0.6 },
        '@container (max-width: 620px)': { [`& .${BESIDE_ICON}`]: { display: 'none' } },
      }}
    >
      <Box sx={ROW}>
        <Choices
          label="Shape"
          fills
          value={shape}
          options={SHAPES.filter((value) => value !== 'own' || hasOwn).map((value) => ({
            value,
            words: SHAPE_WORDS[value],
            icon: SHAPE_GLYPHS[value],
          }))}
          onChange={(next: Shape) => useSill.setState({ shape: next })}
          onAgain={returnViewer}
        />
        {!isEye && (
          <>
            <BesidePanel />
            <StillPanel />
          </>
        )}
        <Tooltip title={words}>
          <Button
            aria-pressed={grown}
            aria-label={words}
            sx={{ ...pressable(grown), px: 0.6, flex: 'none' }}
            onClick={() => useSill.setState({ grown: !grown })}
          >
            {grown ? <CloseFullscreen sx={{ fontSize: 15 }} /> : <OpenInFull sx={{ fontSize: 15 }} />}
          </Button>
        </Tooltip>
      </Box>
      <Box sx={ROW}>
        <ShowField />
        {!isEye && (
          <>
            <LightPanel />
            <DepthPanel />
            <ShapePanel />
          </>
        )}
      </Box>
    </Box>
  );
}
