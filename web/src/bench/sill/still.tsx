import { useThree } from '@react-three/fiber';
import { useEffect } from 'react';
import type * as THREE from 'three';

export const STILL_SIZES = [1024, 2048, 4096] as const;

let take: ((edge: number) => Promise<Blob | null>) | null = null;

/** A still of what the Sill shows, as a square PNG; null where there is no lit view. */
export const takeStill = (edge: number): Promise<Blob | null> => take?.(edge) ?? Promise.resolve(null);

/** Draws the view once more at a size of its own, and gives the view its size back. */
export function StillTaker() {
  const { gl, scene, camera, size, invalidate } = useThree();
  useEffect(() => {
    take = async (edge) => {
      const own = camera as THREE.PerspectiveCamera;
      const [aspect, ratio] = [own.aspect, gl.getPixelRatio()];
      const most = Math.min(edge, gl.capabilities.maxTextureSize);
      gl.setPixelRatio(1);
      gl.setSize(most, most, false);
      own.aspect = 1;
      own.updateProjectionMatrix();
      gl.render(scene, camera);
      const blob = await new Promise<Blob | null>((resolve) => gl.domElement.toBlob(resolve, 'image/png'));
      gl.setPixelRatio(ratio);
      gl.setSize(size.width, size.height, false);
      own.aspect = aspect;
      own.updateProjectionMatrix();
      invalidate();
      return blob;
    };
    return () => {
      take = null;
    };
  }, [gl, scene, camera, size, invalidate]);
  return null;
}
