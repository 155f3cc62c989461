import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useEffect, useMemo, useRef, useState } from 'react';
import { CropOutline } from '../../stations/square/crop-outline.tsx';
import { FIGURES, GREY } from '../../theme.ts';
import { useBench } from '../state.ts';
import { FloorControls } from './controls.tsx';
import { drawFloor } from './draw.ts';
import { fitLook, type Look, pixelAt, pixelLook, type Size, zoomAt } from './geometry.ts';
import { readoutAt } from './readout.ts';
import { useStage } from './use-stage.ts';

function pictureOf(rgba: Uint8ClampedArray<ArrayBuffer>, width: number, height: number): HTMLCanvasElement {
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = height;
  canvas.getContext('2d')?.putImageData(new ImageData(rgba, width, height), 0, 0);
  return canvas;
}

const pill = {
  bgcolor: GREY.sheet,
  borderRadius: 1,
  px: 1.25,
  py: 0.25,
  fontFamily: FIGURES,
  fontSize: 12,
  whiteSpace: 'pre',
};

/** The flat view: the tile laid beside itself, or the photo while Source is looked at. */
export function Floor() {
  const shown = useBench((s) => s.shown);
  const lay = useBench((s) => s.lay);
  const halfShift = useBench((s) => s.halfShift);
  const edgeLines = useBench((s) => s.edgeLines);
  const depthMm = useBench((s) => s.recipe.stations.relief.depthMm);
  const { stageRef, canvasRef, stage } = useStage();
  // Kept relative to the tile, so that a sharper picture takes the place of a quick one without a jump.
  const [chosenLook, setChosenLook] = useState<Look | null>(null);
  const [pointer, setPointer] = useState<{ x: number; y: number } | null>(null);
  const drag = useRef<{ x: number; y: number; look: Look } | null>(null);
  const isPhoto = shown?.view === 'photo';
  const layNow = isPhoto ? 1 : lay;
  const shift = halfShift && !isPhoto;
  const tile: Size = shown ?? { width: 1, height: 1 };
  const look = chosenLook ?? fitLook(stage, tile, layNow);
  const picture = useMemo(() => shown && pictureOf(shown.rgba, shown.width, shown.height), [shown]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another lay or shape is fitted anew
  useEffect(() => setChosenLook(null), [layNow, isPhoto]);
  useEffect(() => {
    const canvas = canvasRef.current;
    const context = canvas?.getContext('2d');
    if (!canvas || !context || stage.width === 0) return;
    canvas.width = Math.round(stage.width * devicePixelRatio);
    canvas.height = Math.round(stage.height * devicePixelRatio);
    context.scale(devicePixelRatio, devicePixelRatio);
    if (picture)
      drawFloor(context, stage, GREY.stage, {
        picture,
        tile,
        lay: layNow,
        halfShift: shift,
        edgeLines,
        look,
      });
  }, [picture, stage, tile, layNow, shift, edgeLines, look, canvasRef]);
  useEffect(() => {
    const canvas = canvasRef.current;
    const turn = (event: WheelEvent) => {
      event.preventDefault();
      const box = canvas!.getBoundingClientRect();
      const factor = Math.exp(-event.deltaY * 0.0016);
      setChosenLook(zoomAt(look, tile, factor, event.clientX - box.left, event.clientY - box.top));
    };
    canvas?.addEventListener('wheel', turn, { passive: false });
    return () => canvas?.removeEventListener('wheel', turn);
  }, [look, tile, canvasRef]);
  const at = pointer && shown ? pixelAt(look, tile, layNow, shift, pointer.x, pointer.y) : null;
  return (
    <Box
      component="section"
      aria-label="Floor"
      sx={{ height: '100%', display: 'flex', flexDirection: 'column', bgcolor: GREY.stage, p: 1.25, gap: 1 }}
    >
      <FloorControls
        onFit={() => setChosenLook(null)}
        onPixels={() => setChosenLook(pixelLook(look, stage, tile, devicePixelRatio))}
      />
      <Box ref={stageRef} sx={{ flex: 1, minHeight: 0, position: 'relative', overflow: 'hidden' }}>
        <canvas
          ref={canvasRef}
          role="img"
          aria-label={
            shown
              ? `${shown.view}, ${shown.width} × ${shown.height} px, laid ${layNow} × ${layNow}`
              : 'Nothing to show yet'
          }
          data-view={shown?.view}
          data-size={shown?.width}
          style={{
            width: '100%',
            height: '100%',
            display: 'block',
            cursor: 'crosshair',
            touchAction: 'none',
          }}
          onPointerDown={(event) => {
            event.currentTarget.setPointerCapture(event.pointerId);
            drag.current = { x: event.clientX, y: event.clientY, look };
          }}
          onPointerMove={(event) => {
            const box = event.currentTarget.getBoundingClientRect();
            setPointer({ x: event.clientX - box.left, y: event.clientY - box.top });
            const from = drag.current;
            if (from) {
              setChosenLook({
                ...from.look,
                x: from.look.x + event.clientX - from.x,
                y: from.look.y + event.clientY - from.y,
              });
            }
          }}
          onPointerUp={() => {
            drag.current = null;
          }}
          onPointerLeave={() => setPointer(null)}
        />
        {isPhoto && <CropOutline look={look} tile={tile} />}
        {!shown && (
          <Typography
            component="div"
            sx={{ position: 'absolute', inset: 0, display: 'grid', placeItems: 'center' }}
          >
            <Box component="span" sx={pill}>
              Reading the photo …
            </Box>
          </Typography>
        )}
      </Box>
      <Box sx={{ display: 'flex', gap: 1, alignItems: 'center', minHeight: 26 }}>
        <Box data-testid="readout" sx={pill}>
          {at && shown ? readoutAt(shown, at.x, at.y, depthMm) : 'Point at the picture to read it'}
        </Box>
        {shown && (
          <Typography sx={{ ...pill, ml: 'auto' }}>
            {isPhoto ? '' : `${shown.width} px · `}
            {((100 * look.edge * devicePixelRatio) / tile.width).toFixed(0)} %
          </Typography>
        )}
      </Box>
    </Box>
  );
}
