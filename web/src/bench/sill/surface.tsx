import { useThree } from '@react-three/fiber';
import { useEffect, useMemo, useState } from 'react';
import * as THREE from 'three';
import type { ShownMaps } from '../../engine/protocol.ts';
import { isLit, setLook } from './material/look.ts';
import { place, placeShadow, placingUniforms } from './material/placing.ts';
import { useLimits, useTextures } from './material/use-textures.ts';
import { isSoftware } from './software.ts';
import { SILL_MAPS, type SillMap, useSill } from './state.ts';
import type { TileOnMesh } from './surface-rays.tsx';
import { useDrawn } from './under-pointer.ts';

interface SurfaceProps {
  maps: ShownMaps;
  geometry: THREE.BufferGeometry;
  /** How often the tile goes over the geometry's coordinates, across and down. */
  repeat: readonly [number, number];
  /** Length of the tile's longer edge in the geometry's units. */
  edge: number;
  /** Whether relief may move the geometry's points. */
  isWhole: boolean;
  /** Maps that are out of play here, beside those that are everywhere. */
  without: readonly SillMap[];
  /** Whether another tile than the open one lies on it. */
  isOther?: boolean;
  name?: string;
}

/** So long no map changes before a Sill without a graphics card follows. */
const REST_MS = 200;

/** Where the processor draws the Sill too, it would take it from the moving dial: it follows when that rests. */
function useRested(maps: ShownMaps, waitMs: number): ShownMaps {
  const [rested, setRested] = useState(maps);
  useEffect(() => {
    if (waitMs === 0) return;
    const timer = setTimeout(() => setRested(maps), waitMs);
    return () => clearTimeout(timer);
  }, [maps, waitMs]);
  return waitMs === 0 ? maps : rested;
}

/** What a surface is drawn with, and what its shadow is. */
function useMaterials() {
  const made = useMemo(
    () => ({
      // Planes of a scene cast shadows from both of their faces.
      material: new THREE.MeshPhysicalMaterial({ shadowSide: THREE.DoubleSide }),
      shadow: new THREE.MeshDepthMaterial(),
    }),
    [],
  );
  useEffect(
    () => () => {
      made.material.dispose();
      made.shadow.dispose();
    },
    [made],
  );
  return made;
}

/** A piece of geometry under a tile's maps, lit or flat, as many of them as are in play. One draw. */
export function Surface({
  maps: latest,
  geometry,
  repeat,
  edge,
  isWhole,
  without,
  isOther = false,
  name,
}: SurfaceProps) {
  const gl = useThree((state) => state.gl);
  const invalidate = useThree((state) => state.invalidate);
  const waitMs = useMemo(() => (isSoftware(gl.getContext()) ? REST_MS : 0), [gl]);
  const maps = useRested(latest, waitMs);
  const { show, off: taken, depth, few, many, triplanar, sharpness, opacityAs, bothFaces, glow } = useSill();
  const off = useMemo(() => [...taken, ...without], [taken, without]);
  const alone = (SILL_MAPS as readonly string[]).includes(show) ? (show as SillMap) : null;
  const limits = useLimits();
  const textures = useTextures(maps, limits, alone);
  const { material, shadow } = useMaterials();
  const uniforms = useMemo(placingUniforms, []);
  const [across, down] = repeat;
  const { width, height } = maps.albedo;
  const longer = Math.max(width, height);
  const tile = useMemo(
    (): TileOnMesh => ({
      repeat: [(across * longer) / width, (down * longer) / height],
      edge,
      isOther,
    }),
    [across, down, longer, width, height, edge, isOther],
  );
  useEffect(() => {
    setLook(material, textures, maps, { show, off, opacityAs, bothFaces, glow });
    const hasDepth = !off.includes('height');
    place(
      material,
      { depth: hasDepth ? depth : 'flat', triplanar, diffuse: show !== 'sheen', unlit: !isLit(show) },
      uniforms,
    );
    placeShadow(shadow, triplanar, uniforms);
    uniforms.zRepeat.value.set(...tile.repeat);
    uniforms.zPerUnit.value.set(longer / width / edge, longer / height / edge);
    uniforms.zHeight.value = textures.height;
    uniforms.zDepth.value = maps.depthShare * edge;
    uniforms.zSteps.value.set(few, many);
    uniforms.zSharp.value = sharpness;
    const isMoved = hasDepth && depth === 'true' && isWhole;
    material.displacementMap = isMoved ? textures.height : null;
    material.displacementScale = maps.depthShare * edge;
    material.displacementBias = -material.displacementScale / 2;
    invalidate();
  }, [
    material,
    shadow,
    uniforms,
    textures,
    maps,
    longer,
    width,
    height,
    tile,
    edge,
    isWhole,
    show,
    off,
    depth,
    few,
    many,
    triplanar,
    sharpness,
    opacityAs,
    bothFaces,
    glow,
    invalidate,
  ]);
  useEffect(() => {
    if (!isOther) useDrawn.setState({ maps });
  }, [maps, isOther]);
  return (
    <mesh
      geometry={geometry}
      material={material}
      customDepthMaterial={shadow}
      name={name}
      userData={{ tile }}
      castShadow={isLit(show)}
      receiveShadow
    />
  );
}
