import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { luminanceOf, srgbCode } from '@zesty-tile/core';
import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import type { ShownView } from '../../engine/protocol.ts';
import { VIEW_WORDS, viewBefore, viewKind } from '../../engine/views.ts';
import { usePalettes } from '../../palettes/use-palettes.ts';
import { useSettings } from '../../settings/settings.ts';
import { overlayOf, STATION_VIEWS } from '../../stations/index.ts';
import type { FloorScene } from '../../stations/station.ts';
import { GREY } from '../../theme.ts';
import { useSteady } from '../dials/use-steady.ts';
import { GuideStrip } from '../guide/guide-strip.tsx';
import { useBench } from '../state.ts';
import { useBefore, useBeforePicture } from './before.ts';
import { FloorControls } from './controls.tsx';
import { Divider } from './divider.tsx';
import { drawFloor } from './draw.ts';
import { EngineLine } from './engine-line.tsx';
import { FloorFoot, PILL } from './foot.tsx';
import { fitLook, type Look, pixelAt, pixelLook, type Size, zoomAt } from './geometry.ts';
import { hatchesOf } from './hatch.ts';
import { PickLayer } from './pick-layer.tsx';
import { readoutAt } from './readout.ts';
import { ShownNote } from './shown-note.tsx';
import { useSight } from './sight.ts';
import { usePick } from './use-pick.ts';
import { useSpace } from './use-space.ts';
import { useStage } from './use-stage.ts';

function pictureOf({ rgba, width, height, planes, view }: ShownView, isGrey = false): HTMLCanvasElement {
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = height;
  const picture = new ImageData(rgba, width, height);
  if (isGrey && viewKind(view) === 'colour') {
    picture.data.set(rgba);
    const [r, g, b] = planes;
    for (let i = 0, k = 0; i < r.length; i++, k += 4) {
      picture.data.fill(srgbCode(luminanceOf(r[i], g[i], b[i])), k, k + 3);
    }
  }
  canvas.getContext('2d')?.putImageData(picture, 0, 0);
  return canvas;
}

const NOTHING: Size = { width: 1, height: 1 };

/** So long a picture stands before it is drawn at its finest. */
const FINE_AFTER_MS = 200;

/** The flat view: the tile repeated, or the photo while Source or Square is looked at. */
export function Floor() {
  const shown = useBench((s) => s.shown);
  const station = useBench((s) => s.station);
  const lay = useBench((s) => s.lay);
  const halfShift = useBench((s) => s.halfShift);
  const edgeLines = useBench((s) => s.edgeLines);
  const depthMm = useBench((s) => s.recipe.stations.relief.depthMm);
  const gaugeLine = useBench((s) => s.recipe.stations.gauge.line);
  const ownLine = useBench((s) => s.recipe.stations.gauge.ownLine);
  const projectId = useBench((s) => s.projectId);
  const language = useSettings((s) => s.language);
  const { data: palettes } = usePalettes(projectId);
  const { divider, held, compared, picture: beforeView } = useBefore();
  const { hatching, luminance, guides } = useSight();
  const { showsLimits } = STATION_VIEWS[station];
  const Overlay = overlayOf(station);
  const { stageRef, canvasRef, stage } = useStage();
  const space = useSpace();
  useBeforePicture();
  // Kept relative to the tile, so that a sharper picture takes the place of a quick one without a jump.
  const [chosenLook, setChosenLook] = useState<Look | null>(null);
  const [pointer, setPointer] = useState<{ x: number; y: number } | null>(null);
  const drag = useRef<{ x: number; y: number; look: Look } | null>(null);
  const isPhoto = shown?.view === 'photo';
  const layNow = isPhoto ? 1 : lay;
  const shift = halfShift && !isPhoto;
  const tile: Size = shown ?? NOTHING;
  const look = useMemo(() => chosenLook ?? fitLook(stage, tile, layNow), [chosenLook, stage, tile, layNow]);
  const isGrey = luminance && showsLimits === true;
  const picture = useMemo(() => shown && pictureOf(shown, isGrey), [shown, isGrey]);
  const plane = useMemo(() => ({ look, tile, halfShift: shift }), [look, tile, shift]);
  const beforePicture = useMemo(() => beforeView && pictureOf(beforeView), [beforeView]);
  const marks = useBench((s) => s.marks);
  const picking = usePick((s) => s.pick !== null);
  const hatched = showsLimits && shown?.view === 'albedo' && hatching;
  const hatches = useMemo(() => (hatched && marks ? hatchesOf(marks) : null), [hatched, marks]);
  const until = held ? 1 : divider;
  const scene: FloorScene | null = shown &&
    picture && {
      shown,
      picture,
      plane,
      look,
      tile,
      stage,
      repeats: layNow,
      halfShift: shift,
      isPhoto,
      isBefore: held,
      isPanning: space,
    };
  // biome-ignore lint/correctness/useExhaustiveDependencies: another lay or shape is fitted again
  useEffect(() => setChosenLook(null), [layNow, isPhoto]);
  // Before the browser paints, so that the picture and what lies over it change in one frame.
  useLayoutEffect(() => {
    const canvas = canvasRef.current;
    const context = canvas?.getContext('2d');
    if (!canvas || !context || stage.width === 0) return;
    const [width, height] = [stage.width, stage.height].map((side) => Math.round(side * devicePixelRatio));
    // Given its size again a canvas is made again.
    if (canvas.width !== width) canvas.width = width;
    if (canvas.height !== height) canvas.height = height;
    context.setTransform(devicePixelRatio, 0, 0, devicePixelRatio, 0, 0);
    if (!picture) {
      context.clearRect(0, 0, stage.width, stage.height);
      return;
    }
    const before = beforePicture && until !== null ? { picture: beforePicture, until } : null;
    const draw = (isFine: boolean) => {
      drawFloor(context, stage, {
        picture,
        before,
        hatches,
        tile,
        lay: layNow,
        halfShift: shift,
        edgeLines,
        look,
        isFine,
      });
      canvas.dataset.fine = isFine ? 'yes' : 'no';
    };
    draw(false);
    const stays = setTimeout(() => draw(true), FINE_AFTER_MS);
    return () => clearTimeout(stays);
  }, [picture, beforePicture, until, hatches, stage, tile, layNow, shift, edgeLines, look, canvasRef]);
  useEffect(() => {
    const element = stageRef.current;
    const turn = (event: WheelEvent) => {
      event.preventDefault();
      const box = element!.getBoundingClientRect();
      const factor = Math.exp(-event.deltaY * 0.0016);
      setChosenLook(zoomAt(look, tile, factor, event.clientX - box.left, event.clientY - box.top));
    };
    element?.addEventListener('wheel', turn, { passive: false });
    return () => element?.removeEventListener('wheel', turn);
  }, [look, tile, stageRef]);
  const fit = useCallback(() => setChosenLook(null), []);
  const toPixels = useSteady(() => setChosenLook(pixelLook(look, stage, tile, devicePixelRatio)));
  const at = pointer && shown ? pixelAt(look, tile, layNow, shift, pointer.x, pointer.y) : null;
  const palette = useMemo(() => (palettes ?? []).flatMap((one) => one.colours), [palettes]);
  const earlier = shown && viewBefore(shown.view);
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
            cursor: space ? 'grab' : 'crosshair',
          }}
          onPointerDownCapture={(event) => {
            const isCanvas = event.target === canvasRef.current;
            if (!isCanvas && !space) return;
            if (!isCanvas) event.stopPropagation();
            event.currentTarget.setPointerCapture(event.pointerId);
            drag.current = { x: event.clientX, y: event.clientY, look };
          }}
          onPointerMove={(event) => {
            const box = event.currentTarget.getBoundingClientRect();
            setPointer({ x: event.clientX - box.left, y: event.clientY - box.top });
            const from = drag.current;
            if (!from) return;
            setChosenLook({
              ...from.look,
              x: from.look.x + event.clientX - from.x,
              y: from.look.y + event.clientY - from.y,
            });
          }}
          onPointerUp={() => {
            drag.current = null;
          }}
          onPointerLeave={() => setPointer(null)}
        >
          <canvas
            ref={canvasRef}
            role="img"
            aria-label={
              shown
                ? `${VIEW_WORDS[shown.view]}, ${shown.width} × ${shown.height} px, laid ${layNow} × ${layNow}`
                : 'Nothing to show yet'
            }
            data-view={shown?.view}
            data-size={shown?.width}
            data-look={JSON.stringify(look)}
            data-hatched={hatches ? 'yes' : undefined}
            data-before={beforePicture && until !== null ? 'shown' : undefined}
            style={{ width: '100%', height: '100%', display: 'block' }}
          />
          {scene && <Overlay {...scene} />}
          {shown && <ShownNote shown={shown} />}
          {picking && shown && <PickLayer shown={shown} plane={plane} />}
          {divider !== null && (compared || earlier) && (
            <Divider
              before={`${compared ? `Version ${compared.number}` : VIEW_WORDS[earlier!]}${beforePicture ? '' : ', being made …'}`}
              after={compared ? 'Now' : VIEW_WORDS[shown!.view]}
            />
          )}
          {!shown && (
            <Typography
              component="div"
              sx={{ position: 'absolute', inset: 0, display: 'grid', placeItems: 'center' }}
            >
              <Box component="span" sx={PILL}>
                Reading the photo …
              </Box>
            </Typography>
          )}
        </Box>
        {guides && <GuideStrip />}
      </Box>
      <FloorFoot
        readout={
          at && shown
            ? readoutAt(shown, at.x, at.y, {
                depthMm,
                line: { line: gaugeLine, ownLine },
                language,
                palette,
              })
            : 'Point at the picture to read it'
        }
        zoom={shown ? `${((100 * look.edge * devicePixelRatio) / tile.width).toFixed(0)} %` : null}
        isPhoto={isPhoto}
        onFit={fit}
        onPixels={toPixels}
      />
      <EngineLine />
    </Box>
  );
}
