import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { FIGURES, GREY } from '../../theme.ts';
import { useBench } from '../state.ts';
import { GREY_STEPS } from './grey-steps.tsx';
import { SunDisc, useChosenLight } from './light/sun-disc.tsx';
import { MapsInPlay } from './maps-in-play.tsx';
import { partAt } from './scene/drop.ts';
import { SceneTray, TILE_DRAG } from './scene/tray.tsx';
import { useLay } from './scene/use-lay.ts';
import { SillBar } from './sill-bar.tsx';
import { useSill } from './state.ts';
import { SillView } from './view.tsx';

/** The lit view: all maps in play, under a sun that is moved by hand. */
export function Sill() {
  const hasMaps = useBench((s) => s.maps !== null);
  const { shape, show, grown } = useSill();
  const lay = useLay(useBench((s) => s.projectId));
  const { name: lightName, light } = useChosenLight();
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
      <SillBar />
      <Box
        sx={{ flex: 1, minHeight: 0, position: 'relative' }}
        data-sill={hasMaps ? 'lit' : 'waiting'}
        data-show={show}
        onDragOver={(event) => {
          if (shape === 'scene' && event.dataTransfer.types.includes(TILE_DRAG)) event.preventDefault();
        }}
        onDrop={(event) => {
          const part = partAt(event.clientX, event.clientY);
          if (part) void lay(part, event.dataTransfer.getData(TILE_DRAG));
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
