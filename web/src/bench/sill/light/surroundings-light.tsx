import { useThree } from '@react-three/fiber';
import { useEffect, useMemo, useState } from 'react';
import * as THREE from 'three';
import { isSoftware } from '../software.ts';
import type { Around } from '../state.ts';
import { ownTexture, skyAndGroundOf } from './own-surroundings.ts';
import { isMadeUp, skyAndGround, surroundings } from './surroundings.ts';

/** How strong even light from all sides is, beside the sun. */
const STRENGTH = 0.55;
/** A sky light is the mean of what is seen, times π, as lamps are measured. */
const LAMP = Math.PI * STRENGTH;

/** The picture that stands all round, once it is there; an own one is fetched. */
function usePicture(name: Around['name'], isWanted: boolean, onProblem: (words: string) => void) {
  const [own, setOwn] = useState<THREE.Texture | null>(null);
  const madeUp = useMemo(() => (isMadeUp(name) && isWanted ? surroundings(name) : null), [name, isWanted]);
  useEffect(() => () => madeUp?.dispose(), [madeUp]);
  useEffect(() => {
    if (isMadeUp(name)) return;
    let over = false;
    let made: THREE.Texture | null = null;
    ownTexture(name.slice('own:'.length)).then(
      (texture) => {
        made = texture;
        if (over) texture.dispose();
        else setOwn(texture);
        onProblem('');
      },
      (error: Error) => onProblem(error.message),
    );
    return () => {
      over = true;
      made?.dispose();
      setOwn(null);
    };
  }, [name, onProblem]);
  return madeUp ?? own;
}

/**
 * Light from all sides: image-based where a graphics card draws. Filtering the picture of the surroundings
 * takes many seconds without one, so there a light of the sky's and the ground's mean colours, and a soft fill, stand for it.
 */
export function SurroundingsLight({
  around: { name, turn, strength, background, backStrength, backBlur },
  onProblem,
}: {
  around: Around;
  onProblem(words: string): void;
}) {
  const { gl, scene, invalidate } = useThree();
  const software = useMemo(() => isSoftware(gl.getContext()), [gl]);
  const picture = usePicture(name, !software || background, onProblem);
  useEffect(() => {
    if (!picture || software) return;
    const generator = new THREE.PMREMGenerator(gl);
    const target = generator.fromEquirectangular(picture);
    generator.dispose();
    scene.environment = target.texture;
    invalidate();
    return () => {
      scene.environment = null;
      target.dispose();
    };
  }, [gl, scene, invalidate, software, picture]);
  useEffect(() => {
    scene.background = background ? picture : null;
    scene.backgroundBlurriness = software ? 0 : backBlur;
    scene.backgroundIntensity = backStrength;
    invalidate();
    return () => {
      scene.background = null;
    };
  }, [scene, invalidate, software, picture, background, backBlur, backStrength]);
  useEffect(() => {
    scene.environmentRotation.set(0, (turn * Math.PI) / 180, 0);
    scene.backgroundRotation.set(0, (turn * Math.PI) / 180, 0);
    scene.environmentIntensity = STRENGTH * strength;
    invalidate();
  }, [scene, turn, strength, invalidate]);
  const lamps = useMemo(() => {
    if (!software) return null;
    const { sky, ground } = isMadeUp(name)
      ? skyAndGround(name)
      : picture
        ? skyAndGroundOf(picture)
        : { sky: new THREE.Color(1, 1, 1), ground: new THREE.Color(0.4, 0.4, 0.4) };
    const brightest = Math.max(sky.r, sky.g, sky.b, 1e-6);
    return {
      brightest,
      above: sky.multiplyScalar(1 / brightest),
      below: ground.multiplyScalar(1 / brightest),
    };
  }, [software, name, picture]);
  if (!lamps) return null;
  return (
    <>
      <hemisphereLight args={[lamps.above, lamps.below, LAMP * strength * lamps.brightest]} />
      <directionalLight position={[0.8, -0.4, 3]} intensity={0.55 * strength} color={lamps.above} />
    </>
  );
}
