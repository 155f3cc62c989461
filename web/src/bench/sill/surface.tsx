import { useThree } from '@react-three/fiber';
import { useEffect, useMemo } from 'react';
import * as THREE from 'three';
import type { ShownMaps } from '../../engine/protocol.ts';
import { REPEATS, type Shape, shapeOf, TILE_EDGE } from './shapes.ts';
import { isSoftware } from './software.ts';
import { texturesOf } from './textures.ts';

interface SurfaceProps {
  maps: ShownMaps;
  shape: Shape;
  /** Depth of the relief as a share of the tile's edge. */
  depthShare: number;
  /** +1 where green points up in the picture, −1 where it points down. */
  green: 1 | -1;
}

/** Index of refraction with this reflectance at normal incidence. */
function iorOf(f0: number): number {
  const root = Math.sqrt(Math.min(0.9, Math.max(0, f0)));
  return (1 + root) / (1 - root);
}

/** The shape under its maps: colour, normal, occlusion, roughness, metallic, F0, height, opacity. */
export function Surface({ maps, shape, depthShare, green }: SurfaceProps) {
  const gl = useThree((state) => state.gl);
  const invalidate = useThree((state) => state.invalidate);
  const geometry = useMemo(() => shapeOf(shape, isSoftware(gl.getContext()) ? 0.35 : 1), [shape, gl]);
  const textures = useMemo(
    () => texturesOf(maps, Math.min(8, gl.capabilities.getMaxAnisotropy())),
    [maps, gl],
  );
  useEffect(() => () => textures.dispose(), [textures]);
  useEffect(() => () => geometry.dispose(), [geometry]);
  const material = useMemo(() => {
    const made = new THREE.MeshPhysicalMaterial({ side: THREE.FrontSide });
    // Our roughness 0..1 and metallic stand in the map alone.
    made.roughness = 1;
    made.metalness = 1;
    return made;
  }, []);
  useEffect(() => () => material.dispose(), [material]);
  useEffect(() => {
    const [across, down] = REPEATS[shape];
    const all = [textures.albedo, textures.normal, textures.packed, textures.height, textures.opacity];
    for (const one of all) one?.repeat.set(across, down);
    material.map = textures.albedo;
    material.normalMap = textures.normal;
    // With v downwards the tangent frame's second axis points down the picture.
    material.normalScale.set(1, -green);
    material.aoMap = textures.packed;
    material.roughnessMap = textures.packed;
    material.metalnessMap = textures.packed;
    material.alphaMap = textures.opacity;
    material.alphaTest = textures.opacity ? 0.5 : 0;
    const brightest = Math.max(...maps.f0);
    material.ior = maps.metallic ? 1.5 : iorOf(brightest);
    material.specularColor.setRGB(
      ...(maps.f0.map((v) => v / Math.max(1e-6, brightest)) as [number, number, number]),
    );
    material.displacementMap = textures.height;
    material.displacementScale = depthShare * TILE_EDGE[shape];
    material.displacementBias = -material.displacementScale / 2;
    material.needsUpdate = true;
    invalidate();
  }, [material, textures, shape, green, depthShare, maps, invalidate]);
  return <mesh geometry={geometry} material={material} />;
}
