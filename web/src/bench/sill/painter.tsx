import { useFrame, useThree } from '@react-three/fiber';
import { useEffect } from 'react';
import type * as THREE from 'three';
import { drawSill, type Split } from './drawing.ts';

export const STILL_SIZES = [1024, 2048, 4096] as const;

interface Painting {
  still(edge: number): Promise<Blob | null>;
  cost(): number;
}

let painting: Painting | null = null;

/** A still of what the Sill shows, as a square PNG; null where there is no lit view. */
export const takeStill = (edge: number): Promise<Blob | null> =>
  painting?.still(edge) ?? Promise.resolve(null);

/** Milliseconds that one frame of the lit view takes, measured now; null where there is none. */
export const measureFrame = (): number | null => painting?.cost() ?? null;

/** Of so many frames the quickest counts: others may have been held up. No more are drawn than this takes. */
const MEASURED = 10;
const MEASURING_MS = 700;

/** Draws every frame of the Sill, and on request a still, or some to measure. */
export function Painter({ split }: { split: Split | null }) {
  const { gl, scene, size, invalidate } = useThree();
  const camera = useThree((state) => state.camera) as THREE.PerspectiveCamera;
  useFrame(() => drawSill(gl, scene, camera, split), 1);
  useEffect(() => {
    painting = {
      async still(edge) {
        const ratio = gl.getPixelRatio();
        const most = Math.min(edge, gl.capabilities.maxTextureSize);
        gl.setPixelRatio(1);
        gl.setSize(most, most, false);
        drawSill(gl, scene, camera, split);
        const blob = await new Promise<Blob | null>((resolve) => gl.domElement.toBlob(resolve, 'image/png'));
        gl.setPixelRatio(ratio);
        gl.setSize(size.width, size.height, false);
        invalidate();
        return blob;
      },
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
          drawSill(gl, scene, camera, split);
          wait();
          if (k > 0) least = Math.min(least, performance.now() - start);
        }
        return least;
      },
    };
    invalidate();
    return () => {
      painting = null;
    };
  }, [gl, scene, camera, size, split, invalidate]);
  return null;
}
