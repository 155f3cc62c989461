import { useThree } from '@react-three/fiber';
import { useEffect, useMemo } from 'react';
import * as THREE from 'three';
import type { ShownMaps } from '../../../engine/protocol.ts';
import { useBench } from '../../state.ts';
import { useAroundNow } from '../light/use-around.ts';
import { ScaleFigures } from '../scale-figures.tsx';
import { shapeOf } from '../shapes.ts';
import { type SillMap, useSill } from '../state.ts';
import { Surface } from '../surface.tsx';

/** At this distance, in metres, haze leaves 1/e of what is seen. */
const HAZE = 420;

/** As far as anything is drawn, in metres. */
const FAR = 4000;

/** Air that hides the distance in the colour of the horizon. */
function Haze() {
  const scene = useThree((state) => state.scene);
  const camera = useThree((state) => state.camera) as THREE.PerspectiveCamera;
  useEffect(() => {
    const before = camera.far;
    camera.far = FAR;
    camera.updateProjectionMatrix();
    return () => {
      camera.far = before;
      camera.updateProjectionMatrix();
    };
  }, [camera]);
  const light = useAroundNow((s) => s.light);
  const strength = useSill((s) => s.around.strength);
  useEffect(() => {
    if (!light) return;
    const fog = new THREE.FogExp2(0, 1 / HAZE);
    fog.color.setRGB(...light.horizon).multiplyScalar(strength);
    scene.fog = fog;
    return () => {
      scene.fog = null;
    };
  }, [scene, light, strength]);
  return null;
}

/** The tile as ground to the horizon, one unit a metre. */
export function OpenGround({ maps, without }: { maps: ShownMaps; without: readonly SillMap[] }) {
  const { times, scale } = useSill();
  const edge = useBench((s) => s.recipe.stations.square.edgeMetres) / times;
  const geometry = useMemo(() => {
    const made = shapeOf('field', 1);
    const [place, uv] = [made.getAttribute('position'), made.getAttribute('uv')];
    for (let i = 0; i < uv.count; i++) uv.setXY(i, place.getX(i), place.getZ(i));
    return made;
  }, []);
  useEffect(() => () => geometry.dispose(), [geometry]);
  return (
    <>
      <Haze />
      <Surface
        maps={maps}
        geometry={geometry}
        repeat={[1 / edge, 1 / edge]}
        edge={edge}
        isWhole={false}
        without={without}
      />
      {scale && <ScaleFigures at={[0.6, 0, -3.2]} perMetre={1} />}
    </>
  );
}
