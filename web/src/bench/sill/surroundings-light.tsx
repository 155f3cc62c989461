import { useThree } from '@react-three/fiber';
import { useEffect, useMemo } from 'react';
import * as THREE from 'three';
import { isSoftware } from './software.ts';
import type { Around } from './state.ts';
import { skyAndGround, surroundings } from './surroundings.ts';

/** How strong even light from all round is, beside the sun. */
const STRENGTH = 0.55;
/** A sky light is the mean of what is seen, times π, as lamps are measured. */
const LAMP = Math.PI * STRENGTH;

const colourOf = (rgb: readonly [number, number, number]) => {
  const brightest = Math.max(...rgb, 1e-6);
  return { colour: new THREE.Color(...rgb).multiplyScalar(1 / brightest), brightest };
};

/**
 * Light from all round: image-based where a graphics card draws. Filtering the picture of the surroundings
 * takes many seconds without one, so there a light of the sky's and the ground's mean colours, and two soft fills, stand for it.
 */
export function SurroundingsLight({ name, turn, strength, background }: Around) {
  const { gl, scene, invalidate } = useThree();
  const software = useMemo(() => isSoftware(gl.getContext()), [gl]);
  useEffect(() => {
    if (software && !background) return;
    const picture = surroundings(name);
    if (background) {
      scene.background = picture;
      scene.backgroundBlurriness = software ? 0 : 0.35;
    }
    let target: THREE.WebGLRenderTarget | null = null;
    if (!software) {
      const generator = new THREE.PMREMGenerator(gl);
      target = generator.fromEquirectangular(picture);
      generator.dispose();
      scene.environment = target.texture;
    }
    invalidate();
    return () => {
      scene.environment = null;
      scene.background = null;
      target?.dispose();
      picture.dispose();
    };
  }, [gl, scene, invalidate, software, name, background]);
  useEffect(() => {
    const rotation = new THREE.Euler(0, (turn * Math.PI) / 180, 0);
    scene.environmentRotation = rotation;
    scene.backgroundRotation = rotation;
    scene.environmentIntensity = STRENGTH * strength;
    scene.backgroundIntensity = STRENGTH * strength;
    invalidate();
  }, [scene, turn, strength, invalidate]);
  const lamps = useMemo(() => {
    const { sky, ground } = skyAndGround(name);
    const above = colourOf(sky);
    return { above, below: new THREE.Color(...ground).multiplyScalar(1 / above.brightest) };
  }, [name]);
  if (!software) return null;
  return (
    <>
      <hemisphereLight args={[lamps.above.colour, lamps.below, LAMP * strength * lamps.above.brightest]} />
      <directionalLight position={[2, 1, 3]} intensity={0.35 * strength} color={lamps.above.colour} />
      <directionalLight position={[-1, -2, 3]} intensity={0.25 * strength} color={lamps.above.colour} />
    </>
  );
}
