import { useEffect, useLayoutEffect, useRef, useState } from 'react';
import type { Size } from '../../bench/floor/geometry.ts';
import { Said } from '../../bench/floor/said.tsx';
import { type BrushPlane, stageAt } from '../../bench/floor/use-brush.ts';
import { useBench } from '../../bench/state.ts';
import { engineNow } from '../../bench/use-engine.ts';
import type { ShownCoat } from '../../engine/protocol.ts';
import type { useCoats } from './use-coats.ts';

type Alone = NonNullable<ReturnType<typeof useCoats.getState>['alone']>;

/** The coat by itself as it comes out, asked for again whenever the recipe changes. */
function useAlone(alone: Alone): ShownCoat | null | undefined {
  const [found, setFound] = useState<ShownCoat | null>();
  const recipe = useBench((s) => s.recipe);
  const source = useBench((s) => s.source);
  useEffect(() => {
    let isWanted = true;
    void engineNow()
      ?.coatAlone({ recipe, source }, alone)
      .then((next) => isWanted && setFound(next));
    return () => {
      isWanted = false;
    };
  }, [recipe, source, alone]);
  return found;
}

const pictureOf = ({ width, height, rgba }: ShownCoat): HTMLCanvasElement => {
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = height;
  canvas.getContext('2d')?.putImageData(new ImageData(rgba, width, height), 0, 0);
  return canvas;
};

/** In place of the tile on the Floor: a coat's mask, or what it puts into one channel. */
export function AloneLayer({
  alone,
  plane,
  stage,
  lay,
}: {
  alone: Alone;
  plane: BrushPlane;
  stage: Size;
  lay: number;
}) {
  const found = useAlone(alone);
  const canvasRef = useRef<HTMLCanvasElement>(null);
  useLayoutEffect(() => {
    const canvas = canvasRef.current;
    const context = canvas?.getContext('2d');
    if (!canvas || !context) return;
    canvas.width = stage.width;
    canvas.height = stage.height;
    if (!found) return;
    const picture = pictureOf(found);
    const { look, tile } = plane;
    context.beginPath();
    context.rect(look.x, look.y, look.edge * lay, ((look.edge * tile.height) / tile.width) * lay);
    context.clip();
    for (let j = 0; j <= lay; j++) {
      for (let i = 0; i <= lay; i++) {
        const [x, y] = stageAt(plane, i, j);
        const [right, down] = stageAt(plane, i + 1, j + 1);
        context.drawImage(picture, x, y, right - x, down - y);
      }
    }
  }, [found, plane, stage, lay]);
  const words =
    found === null
      ? 'It puts nothing there.'
      : found && `${alone.what === 'mask' ? 'Mask' : 'Put in'}, covers ${(100 * found.cover).toFixed(1)} %`;
  return (
    <>
      <canvas
        ref={canvasRef}
        data-alone={found ? alone.what : undefined}
        style={{ position: 'absolute', inset: 0, pointerEvents: 'none' }}
      />
      {words && <Said>{words}</Said>}
    </>
  );
}
