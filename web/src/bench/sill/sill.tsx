import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useEffect, useRef } from 'react';
import { FIGURES, GREY } from '../../theme.ts';
import { useBench } from '../state.ts';
import { gathered, gatheringState } from './frame/gathered.ts';
import { GREY_STEPS } from './grey-steps.tsx';
import { SunDisc, useChosenLight } from './light/sun-disc.tsx';
import { isAroundDrawn, useAroundNow } from './light/use-around.ts';
import { LookoutChoices } from './lookout-choices.tsx';
import { MapsInPlay } from './maps-in-play.tsx';
import { partAt, useDragging } from './scene/drop.ts';
import { DropWords } from './scene/drop-words.tsx';
import { SceneTray, TILE_DRAG } from './scene/tray.tsx';
import { useLay } from './scene/use-lay.ts';
import { SillBar } from './sill-bar.tsx';
import { useSill } from './state.ts';
import { SillView } from './view.tsx';

/** The ground under a shape ends in the stage, not at the edge of its picture. */
const FADED = {
  '& canvas': {
    maskImage:
      'linear-gradient(to right, transparent, #000 30px, #000 calc(100% - 30px), transparent), linear-gradient(#000 calc(100% - 34px), transparent)',
    maskComposite: 'intersect',
  },
};

/** The lit view: all maps in play, under a sun that is moved by hand. */
export function Sill() {
  const hasMaps = useBench((s) => s.maps !== null);
  const hasLight = useAroundNow((s) => s.light !== null);
  const { shape, show, grown } = useSill();
  const isPlace = shape === 'scene' || shape === 'field';
  const view = useRef<HTMLDivElement>(null);
  useEffect(() => {
    // Not by drawing the page again: it would have the view drawn again too.
    const mark = () => {
      const isReady = isAroundDrawn(useAroundNow.getState());
      if (view.current)
        view.current.dataset.gathered = isReady ? gatheringState(gathered.getState()) : 'waits';
    };
    mark();
    const stops = [gathered.subscribe(mark), useAroundNow.subscribe(mark)];
    return () => {
      for (const stop of stops) stop();
    };
  }, []);
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
        sx={{ flex: 1, minHeight: 0, position: 'relative', mx: -1.25, ...(isPlace ? {} : FADED) }}
        data-sill={hasMaps && hasLight ? 'lit' : 'waiting'}
        data-show={show}
        ref={view}
        onDragOver={(event) => {
          if (shape !== 'scene' || !event.dataTransfer.types.includes(TILE_DRAG)) return;
          event.preventDefault();
          useDragging.setState({ isOver: true, part: partAt(event.clientX, event.clientY) });
        }}
        onDragLeave={() => useDragging.setState({ isOver: false })}
        onDrop={(event) => {
          useDragging.setState({ isOver: false });
          const part = partAt(event.clientX, event.clientY);
          if (part) {
            useSill.setState({ part });
            void lay(part, { tile: event.dataTransfer.getData(TILE_DRAG), metres: null });
          }
        }}
      >
        <SillView />
        <DropWords />
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
        {isPlace && show !== 'eye' && <LookoutChoices />}
        {shape === 'scene' && show !== 'eye' && <SceneTray />}
      </Box>
    </Box>
  );
}
