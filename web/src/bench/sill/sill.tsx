import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ListSubheader from '@mui/material/ListSubheader';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import Tooltip from '@mui/material/Tooltip';
import Typography from '@mui/material/Typography';
import { hasMap } from '../../engine/has-map.ts';
import { VIEW_WORDS } from '../../engine/views.ts';
import { FIGURES, GREY } from '../../theme.ts';
import { Choices } from '../choices.tsx';
import { pressable } from '../pressed.ts';
import { useBench } from '../state.ts';
import { BesidePanel } from './beside/beside-panel.tsx';
import { DepthPanel } from './depth/depth-panel.tsx';
import { GREY_STEPS } from './grey-steps.tsx';
import { LightPanel } from './light/light-panel.tsx';
import { useOwnSurroundings } from './light/own-surroundings.ts';
import { SunDisc, useChosenLight } from './light/sun-disc.tsx';
import { SURROUNDINGS, SURROUNDINGS_WORDS } from './light/surroundings.ts';
import { MapsInPlay } from './maps-in-play.tsx';
import { partAt } from './scene/drop.ts';
import { lay } from './scene/laid.ts';
import { SceneTray, TILE_DRAG } from './scene/tray.tsx';
import { ShapePanel } from './shape-panel.tsx';
import { SHAPE_WORDS, SHAPES, type Shape } from './shapes.ts';
import { type Around, type Show, SILL_MAPS, useSill } from './state.ts';
import { SillView } from './view.tsx';

const SHOW_WORDS: [Show, string][] = [
  ['finished', 'Finished'],
  ['clay', 'Clay'],
  ['side', 'Side light'],
  ['sheen', 'Sheen only'],
  ['light', 'Light only'],
  ['unlit', 'Unlit'],
  ['eye', 'Beside grey steps'],
];

/** The lit view: all maps in play, under a sun that is moved by hand. */
export function Sill() {
  const hasMaps = useBench((s) => s.maps !== null);
  const maps = useBench((s) => s.maps);
  const { shape, show, grown, around } = useSill();
  const projectId = useBench((s) => s.projectId);
  const ownSurroundings = useOwnSurroundings();
  const { name: lightName, light } = useChosenLight();
  const hasOwn = useSill((s) => s.own !== null);
  const select = { bgcolor: GREY.card, fontSize: 12.5, '& .MuiSelect-select': { py: 0.4 } };
  return (
    <Box
      component="section"
      aria-label="Sill"
      data-grown={grown ? 'yes' : undefined}
      sx={{
        height: '100%',
        display: 'flex',
        flexDirection: 'column',
        p: 1.25,
        gap: 1,
        background: `linear-gradient(color-mix(in srgb, ${GREY.stage}, white 14%), color-mix(in srgb, ${GREY.stage}, black 24%))`,
        ...(grown ? { position: 'absolute', inset: 0, zIndex: 3 } : {}),
      }}
    >
      <Box sx={{ display: 'flex', gap: 0.75, flexWrap: 'wrap' }}>
        <Choices
          label="Shape"
          value={shape}
          options={SHAPES.filter((value) => value !== 'own' || hasOwn).map((value) => ({
            value,
            words: SHAPE_WORDS[value],
          }))}
          onChange={(next: Shape) => useSill.setState({ shape: next })}
        />
        <Select
          size="small"
          value={show}
          inputProps={{ 'aria-label': 'What the Sill shows' }}
          onChange={(event) => useSill.setState({ show: event.target.value as Show })}
          sx={select}
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
        {show !== 'eye' && (
          <>
            <Select
              size="small"
              value={around.name}
              inputProps={{ 'aria-label': 'What lies around' }}
              onChange={(event) =>
                useSill.setState({ around: { ...around, name: event.target.value as Around['name'] } })
              }
              sx={select}
            >
              {SURROUNDINGS.map((name) => (
                <MenuItem key={name} value={name}>
                  {SURROUNDINGS_WORDS[name]}
                </MenuItem>
              ))}
              {ownSurroundings.map(({ id, name }) => (
                <MenuItem key={id} value={`own:${id}`}>
                  {name}
                </MenuItem>
              ))}
            </Select>
            <LightPanel />
            <DepthPanel />
            <ShapePanel />
            <BesidePanel />
          </>
        )}
        <Tooltip title={grown ? 'Collapse the Sill (L)' : 'Expand the Sill (L)'}>
          <Button
            aria-pressed={grown}
            sx={{ ...pressable(grown), ml: 'auto' }}
            onClick={() => useSill.setState({ grown: !grown })}
          >
            {grown ? 'Collapse' : 'Expand'}
          </Button>
        </Tooltip>
      </Box>
      <Box
        sx={{ flex: 1, minHeight: 0, position: 'relative' }}
        data-sill={hasMaps ? 'lit' : 'waiting'}
        data-show={show}
        onDragOver={(event) => {
          if (shape === 'scene' && event.dataTransfer.types.includes(TILE_DRAG)) event.preventDefault();
        }}
        onDrop={(event) => {
          const part = partAt(event.clientX, event.clientY);
          if (part) lay(projectId, part, event.dataTransfer.getData(TILE_DRAG));
        }}
      >
        <SillView />
      </Box>
      {show === 'eye' && (
        <Box
          sx={{ bgcolor: GREY.sheet, borderRadius: 1, px: 1.25, py: 0.5, lineHeight: 1.35 }}
          data-testid="grey-steps"
        >
          White light, no sheen. Steps from the left, Y:{' '}
          <span style={{ fontFamily: FIGURES, fontSize: 12 }}>{GREY_STEPS.join('  ')}</span>
        </Box>
      )}
      <Box sx={{ display: 'flex', gap: 0.75, alignItems: 'flex-end', flexWrap: 'wrap' }}>
        <Box
          sx={{
            display: 'flex',
            alignItems: 'center',
            gap: 1.25,
            bgcolor: GREY.sheet,
            borderRadius: 1,
            px: 1.25,
            py: 0.6,
          }}
        >
          <SunDisc />
          <Typography variant="body2" sx={{ lineHeight: 1.25, whiteSpace: 'nowrap' }}>
            {lightName} {Math.round(light.turn)}°, {Math.round(light.rise)}° high
            <br />
            <span style={{ color: GREY.soft }}>drag to move</span>
          </Typography>
        </Box>
        <MapsInPlay />
        {shape === 'scene' && show !== 'eye' && <SceneTray />}
      </Box>
    </Box>
  );
}
