import { useFrame, useThree } from '@react-three/fiber';
import { useEffect, useMemo } from 'react';
import type * as THREE from 'three';
import { meteredNow } from '../light/metered.ts';
import { aroundSettled, useAroundNow } from '../light/use-around.ts';
import { isLit } from '../material/look.ts';
import { isSoftware } from '../software.ts';
import { useSill } from '../state.ts';
import type { Split } from './drawing.ts';
import { Frames } from './frames.ts';
import type { Developing } from './screen.ts';
import { type StillOptions, takeTiles } from './still.ts';

interface Painting {
  still(options: StillOptions): Promise<Blob | null>;
  cost(): number;
}

let painting: Painting | null = null;

/** A still of what the Sill shows, once its light is there; null where there is no lit view. */
export async function takeStill(options: StillOptions): Promise<Blob | null> {
  if (painting) await aroundSettled(options.signal);
  return (await painting?.still(options)) ?? null;
}

/** Milliseconds that one frame of the lit view takes, measured now; null where there is none. */
export const measureFrame = (): number | null => painting?.cost() ?? null;

/** Of so many frames the quickest counts: others may have been held up. No more are drawn than this takes. */
const MEASURED = 10;
const MEASURING_MS = 700;

/** How light becomes what is seen, as the Sill is set. In the tree of the canvas, so that it changes together with the light. */
function useDeveloping(): Developing {
  const { sun, sunStrength, show, around, exposure, exposureLock, tone } = useSill();
  const light = useAroundNow((s) => s.light);
  const factor = exposureLock ?? meteredNow(light, { sun, sunStrength, show, around }).exposure;
  return useMemo(
    () => ({
      exposure: factor * 2 ** exposure,
      tone: isLit(show) ? tone : null,
      hasGlow: show === 'finished',
    }),
    [factor, exposure, tone, show],
  );
}

/** Draws every frame of the Sill; gathers light over many once nothing moves; on request takes a still, or measures. */
export function Painter({ split }: { split: Split | null }) {
  const developing = useDeveloping();
  const isAlwaysOccluded = useSill((s) => s.corners === 'always');
  const { gl, scene, size, invalidate } = useThree();
  const ratio = useThree((state) => state.viewport.dpr);
  const camera = useThree((state) => state.camera) as THREE.PerspectiveCamera;
  const software = useMemo(() => isSoftware(gl.getContext()), [gl]);
  const frames = useMemo(() => new Frames(gl, software), [gl, software]);
  useEffect(() => () => frames.dispose(), [frames]);
  const whole = useMemo(
    () => ({
      width: Math.max(1, Math.round(size.width * ratio)),
      height: Math.max(1, Math.round(size.height * ratio)),
    }),
    [size.width, size.height, ratio],
  );
  const view = useMemo(
    () => ({ scene, camera, split, developing, whole, isAlwaysOccluded }),
    [scene, camera, split, developing, whole, isAlwaysOccluded],
  );
  useFrame(() => frames.moved(view), 1);
  useEffect(() => {
    painting = {
      still: (options) => frames.alone(() => takeTiles(gl, view, options)).finally(invalidate),
      cost() {
        const context = gl.getContext();
        const pixel = new Uint8Array(4);
        // Reading a pixel waits until the frame is drawn.
        const wait = () => context.readPixels(0, 0, 1, 1, context.RGBA, context.UNSIGNED_BYTE, pixel);
        let least = Number.POSITIVE_INFINITY;
        // The first frame makes programs and uploads textures.
        const begun = performance.now();
        for (let k = 0; k <= MEASURED && (k < 3 || performance.now() - begun < MEASURING_MS); k++) {
          const start = performance.now();
          frames.whole(view);
          wait();
          if (k > 0) least = Math.min(least, performance.now() - start);
        }
        invalidate();
        return least;
      },
    };
    invalidate();
    return () => {
      painting = null;
    };
  }, [gl, frames, view, invalidate]);
  return null;
}
