import { useThree } from '@react-three/fiber';
import { useEffect, useMemo } from 'react';
import * as THREE from 'three';
import { isSoftware } from './software.ts';
import { surroundings } from './surroundings.ts';

/**
 * Light from all round: image-based where a graphics card draws. Filtering the picture of the surroundings
 * takes many seconds without one, so there a sky light and two soft fills stand for it.
 */
export function SurroundingsLight() {
  const { gl, scene, invalidate } = useThree();
  const software = useMemo(() => isSoftware(gl.getContext()), [gl]);
  useEffect(() => {
    if (software) return;
    const generator = new THREE.PMREMGenerator(gl);
    const picture = surroundings();
    const target = generator.fromEquirectangular(picture);
    scene.environment = target.texture;
    scene.environmentIntensity = 0.55;
    invalidate();
    return () => {
      scene.environment = null;
      target.dispose();
      picture.dispose();
      generator.dispose();
    };
  }, [gl, scene, invalidate, software]);
  if (!software) return null;
  return (
    <>
      <hemisphereLight args={['#ffffff', '#666666', 1.3]} />
      <directionalLight position={[2, 1, 3]} intensity={0.35} />
      <directionalLight position={[-1, -2, 3]} intensity={0.25} />
    </>
  );
}
