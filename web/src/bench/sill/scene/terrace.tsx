import { useThree } from '@react-three/fiber';
import { useEffect, useMemo } from 'react';
import * as THREE from 'three';
import type { ShownMaps } from '../../../engine/protocol.ts';
import { useBench } from '../../state.ts';
import { useTileMaps } from '../beside/use-other-maps.ts';
import { ScaleFigures } from '../scale-figures.tsx';
import { useSill } from '../state.ts';
import { Surface } from '../surface.tsx';
import { startDropping } from './drop.ts';
import { FIGURE_AT, PER_METRE, partOf, SCENE_PARTS, type ScenePart } from './parts.ts';

/** Lets the page ask which part lies under a place of the view. */
function DropTargets() {
  const { camera, scene, gl } = useThree();
  useEffect(() => {
    const rays = new THREE.Raycaster();
    return startDropping((clientX, clientY) => {
      const box = gl.domElement.getBoundingClientRect();
      const at = new THREE.Vector2(
        ((clientX - box.left) / box.width) * 2 - 1,
        1 - ((clientY - box.top) / box.height) * 2,
      );
      rays.setFromCamera(at, camera);
      const hit = rays
        .intersectObjects(scene.children, true)
        .find(({ object }) => (SCENE_PARTS as readonly string[]).includes(object.name));
      return (hit?.object.name as ScenePart | undefined) ?? null;
    });
  }, [camera, scene, gl]);
  return null;
}

/** One part under the tile that lies on it: one that was dropped, or the current tile. */
function Part({ part, maps, albedoAlone }: { part: ScenePart; maps: ShownMaps; albedoAlone: boolean }) {
  const laid = useSill((s) => s.laid[part]);
  const times = useSill((s) => s.times);
  const ownEdge = useBench((s) => s.recipe.stations.square.edgeMetres);
  const other = useTileMaps(laid).data;
  const geometry = useMemo(() => partOf(part), [part]);
  useEffect(() => () => geometry.dispose(), [geometry]);
  // Until it is computed the current tile lies there.
  const edgeMetres = (other?.edgeMetres ?? ownEdge) / times;
  return (
    <Surface
      name={part}
      maps={other?.maps ?? maps}
      geometry={geometry}
      repeat={[1 / edgeMetres, 1 / edgeMetres]}
      edge={edgeMetres * PER_METRE}
      isWhole={false}
      albedoAlone={albedoAlone}
      isOther={laid !== undefined}
    />
  );
}

/** A corner of the Limonaia's terrace at its true size: floor, wall, steps and a pot. */
export function Terrace({ maps, albedoAlone = false }: { maps: ShownMaps; albedoAlone?: boolean }) {
  const scale = useSill((s) => s.scale);
  return (
    <group>
      <DropTargets />
      {SCENE_PARTS.map((part) => (
        <Part key={part} part={part} maps={maps} albedoAlone={albedoAlone} />
      ))}
      {scale && <ScaleFigures at={FIGURE_AT} lies={false} perMetre={PER_METRE} />}
    </group>
  );
}
