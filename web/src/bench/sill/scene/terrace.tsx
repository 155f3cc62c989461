import { useThree } from '@react-three/fiber';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useMemo } from 'react';
import * as THREE from 'three';
import type { ShownMap, ShownMaps } from '../../../engine/protocol.ts';
import { useBench } from '../../state.ts';
import { engineNow } from '../../use-engine.ts';
import { useTileMaps } from '../beside/use-other-maps.ts';
import { ScaleFigures } from '../scale-figures.tsx';
import { type SillMap, useSill } from '../state.ts';
import { Surface } from '../surface.tsx';
import { Beyond } from './beyond.tsx';
import { startDropping } from './drop.ts';
import { Fittings } from './fittings.tsx';
import { THIS_TILE, UNLAID } from './laying.ts';
import { LemonTrees } from './lemon-tree.tsx';
import { type Matter, matterGiven } from './matter.ts';
import { FIGURE_AT, PER_METRE, partOf, SCENE_PARTS, type ScenePart, USUAL } from './parts.ts';

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
      const parts: THREE.Object3D[] = [];
      scene.traverse((object) => {
        if ((SCENE_PARTS as readonly string[]).includes(object.name)) parts.push(object);
      });
      const [hit] = rays.intersectObjects(parts, false);
      return (hit?.object.name as ScenePart | undefined) ?? null;
    });
  }, [camera, scene, gl]);
  return null;
}

/** Size at which what parts are usually made of is computed. */
const MATTER_SIZE = 256;

/** Maps of what a part is usually made of; computed once in the worker. */
const useMatter = (matter: Matter | null) =>
  useQuery({
    queryKey: ['sill matter', matter],
    queryFn: async () => {
      const engine = engineNow();
      if (!engine) throw new Error('The engine is not at hand.');
      const given = matterGiven(matter!);
      const maps = await engine.mapsOf(given, MATTER_SIZE);
      return { maps, edgeMetres: given.recipe.stations.square.edgeMetres };
    },
    enabled: matter !== null,
    retry: 2,
    staleTime: Number.POSITIVE_INFINITY,
  }).data;

const plainMap = (...code: number[]): ShownMap => ({
  width: 1,
  height: 1,
  rgba: new Uint8ClampedArray([...code, 255]),
});

/** A matte grey surface without relief. */
const PLAIN: ShownMaps = {
  albedo: plainMap(150, 150, 150),
  normal: plainMap(128, 128, 255),
  packed: plainMap(255, 220, 0),
  opacity: null,
  emission: null,
  height: { width: 1, height: 1, values: new Float32Array([0.5]) },
  f0: [0.04, 0.04, 0.04],
  specular: null,
  isMetal: false,
  depthShare: 0,
  green: 1,
};

/** One part under what is on it: the open tile, another of the project, or what it is usually made of. */
function Part({ part, maps, without }: { part: ScenePart; maps: ShownMaps; without: readonly SillMap[] }) {
  const laying = useSill((s) => s.laid[part]) ?? UNLAID;
  const times = useSill((s) => s.times);
  const edgeMetres = useBench((s) => s.recipe.stations.square.edgeMetres);
  const openId = useBench((s) => s.tileId);
  const tile = laying.tile === openId ? THIS_TILE : (laying.tile ?? USUAL[part]);
  const isMatter = laying.tile === null && tile !== THIS_TILE;
  const matter = useMatter(isMatter ? (tile as Matter) : null);
  const other = useTileMaps(isMatter || tile === THIS_TILE ? undefined : tile).data;
  const geometry = useMemo(() => partOf(part, laying.turns), [part, laying.turns]);
  useEffect(() => () => geometry.dispose(), [geometry]);
  const isMine = tile === THIS_TILE;
  // Until it is computed the part is plain.
  const on = (isMine ? { maps, edgeMetres } : isMatter ? matter : other) ?? { maps: PLAIN, edgeMetres: 1 };
  const edge = (laying.metres ?? on.edgeMetres) / (isMine ? times : 1);
  return (
    <Surface
      name={part}
      maps={on.maps}
      geometry={geometry}
      repeat={[1 / edge, 1 / edge]}
      edge={edge * PER_METRE}
      isWhole={false}
      without={isMine ? without : NOTHING}
      isOther={!isMine}
    />
  );
}

/** What mostly stands in front is drawn first, so that less is drawn that is hidden. */
const NOTHING: readonly SillMap[] = [];
const DRAWN = SCENE_PARTS.toReversed();

/** The Limonaia's walled terrace at its true size, in front of the lemon house. */
export function Terrace({ maps, without }: { maps: ShownMaps; without: readonly SillMap[] }) {
  const scale = useSill((s) => s.scale);
  return (
    <group>
      <DropTargets />
      <LemonTrees />
      {DRAWN.map((part) => (
        <Part key={part} part={part} maps={maps} without={without} />
      ))}
      <Beyond />
      <Fittings />
      {scale && <ScaleFigures at={FIGURE_AT} perMetre={PER_METRE} />}
    </group>
  );
}
