import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { type RefObject, useMemo } from 'react';
import { VIEW_WORDS, viewBefore } from '../../engine/views.ts';
import { overlayOf } from '../../stations/index.ts';
import type { FloorScene } from '../../stations/station.ts';
import { GREY } from '../../theme.ts';
import { GuideStrip } from '../guide/guide-strip.tsx';
import { useBench } from '../state.ts';
import { useBefore, useBeforePicture } from './before.ts';
import { FloorControls } from './controls.tsx';
import { Divider } from './divider.tsx';
import { EngineLine } from './engine-line.tsx';
import { FloorFoot, PILL } from './foot.tsx';
import { pixelAt, type Size } from './geometry.ts';
import { isOfPhoto } from './of-photo.ts';
import { PickLayer } from './pick-layer.tsx';
import { ShownNote } from './shown-note.tsx';
import { useSight } from './sight.ts';
import { useDrawing } from './use-drawing.ts';
import { useLook } from './use-look.ts';
import { usePick } from './use-pick.ts';
import { usePictures } from './use-pictures.ts';
import { useReadout } from './use-readout.ts';
import { useSpace } from './use-space.ts';
import { useStage } from './use-stage.ts';

const NOTHING: Size = { width: 1, height: 1 };

/** Between before and after, with what each is. */
function BeforeLine({ isMade }: { isMade: boolean }) {
  const shown = useBench((s) => s.shown);
  const { divider, compared } = useBefore();
  const earlier = shown && viewBefore(shown.view);
  if (divider === null || !shown || !(compared || earlier)) return null;
  return (
    <Divider
      before={`${compared ? `Version ${compared.number}` : VIEW_WORDS[earlier!]}${isMade ? '' : ', being made …'}`}
      after={compared ? 'Now' : VIEW_WORDS[shown.view]}
    />
  );
}

const ReadingPhoto = () => (
  <Typography component="div" sx={{ position: 'absolute', inset: 0, display: 'grid', placeItems: 'center' }}>
    <Box component="span" sx={PILL}>
      Reading the photo …
    </Box>
  </Typography>
);

interface PictureProps {
  canvasRef: RefObject<HTMLCanvasElement | null>;
  scene: FloorScene | null;
  look: FloorScene['look'];
  repeats: number;
  isHatched: boolean;
  hasBefore: boolean;
}

/** The picture and what lies over it. */
function Picture({ canvasRef, scene, look, repeats, isHatched, hasBefore }: PictureProps) {
  const station = useBench((s) => s.station);
  const { divider, held } = useBefore();
  const isPicking = usePick((s) => s.pick !== null);
  const Overlay = overlayOf(station);
  const shown = scene?.shown;
  return (
    <>
      <canvas
        ref={canvasRef}
        role="img"
        aria-label={
          shown
            ? `${VIEW_WORDS[shown.view]}, ${shown.width} × ${shown.height} px, tiled ${repeats} × ${repeats}`
            : 'Nothing to show yet'
        }
        data-view={shown?.view}
        data-size={shown?.width}
        data-look={JSON.stringify(look)}
        data-hatched={isHatched ? 'yes' : undefined}
        data-before={hasBefore && (held || divider !== null) ? 'shown' : undefined}
        style={{ width: '100%', height: '100%', display: 'block' }}
      />
      {scene && <Overlay {...scene} />}
      {scene && <ShownNote shown={scene.shown} />}
      {scene && isPicking && <PickLayer shown={scene.shown} plane={scene.plane} />}
      <BeforeLine isMade={hasBefore} />
      {!scene && <ReadingPhoto />}
    </>
  );
}

/** The flat view: the tile repeated, or the photo while Source or Square is looked at. */
export function Floor() {
  const shown = useBench((s) => s.shown);
  const lay = useBench((s) => s.lay);
  const isShifted = useBench((s) => s.halfShift);
  const edgeLines = useBench((s) => s.edgeLines);
  const { divider, held } = useBefore();
  const guides = useSight((s) => s.guides);
  const { stageRef, canvasRef, stage } = useStage();
  const isPanning = useSpace();
  const { picture, beforePicture, hatches } = usePictures();
  useBeforePicture();
  const isPhoto = isOfPhoto(shown?.view);
  const repeats = isPhoto ? 1 : lay;
  const halfShift = isShifted && !isPhoto;
  const tile: Size = shown ?? NOTHING;
  const until = held ? 1 : divider;
  const { look, pointer, fit, toPixels, handlers } = useLook({
    ...{ stageRef, canvasRef, stage, tile, repeats, isPhoto, isPanning },
  });
  const plane = useMemo(() => ({ look, tile, halfShift }), [look, tile, halfShift]);
  useDrawing({
    ...{
      canvasRef,
      picture,
      beforePicture,
      until,
      hatches,
      stage,
      tile,
      repeats,
      halfShift,
      edgeLines,
      look,
    },
  });
  const readout = useReadout(
    shown,
    pointer && shown ? pixelAt(look, tile, repeats, halfShift, pointer.x, pointer.y) : null,
  );
  const over = { plane, look, tile, stage, repeats, halfShift, isPhoto, isBefore: held, isPanning };
  return (
    <Box
      component="section"
      aria-label="Floor"
      onClick={(event) => {
        // A button pressed with the pointer gives Space back to the view.
        if (event.detail > 0) (document.activeElement as HTMLElement | null)?.blur();
      }}
      sx={{ height: '100%', display: 'flex', flexDirection: 'column', bgcolor: GREY.stage, p: 1.25, gap: 1 }}
    >
      <FloorControls />
      <Box sx={{ flex: 1, minHeight: 0, display: 'flex', gap: 1 }}>
        <Box
          ref={stageRef}
          sx={{
            flex: 1,
            minWidth: 0,
            position: 'relative',
            overflow: 'hidden',
            touchAction: 'none',
            cursor: isPanning ? 'grab' : 'crosshair',
          }}
          {...handlers}
        >
          <Picture
            canvasRef={canvasRef}
            scene={shown && picture && { shown, picture, ...over }}
            look={look}
            repeats={repeats}
            isHatched={hatches !== null}
            hasBefore={beforePicture !== null}
          />
        </Box>
        {guides && <GuideStrip />}
      </Box>
      <FloorFoot
        readout={readout}
        zoom={shown ? `${((100 * look.edge * devicePixelRatio) / tile.width).toFixed(0)} %` : null}
        isPhoto={isPhoto}
        onFit={fit}
        onPixels={toPixels}
      />
      <EngineLine />
    </Box>
  );
}
