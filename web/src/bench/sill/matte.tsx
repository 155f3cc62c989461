import { useThree } from '@react-three/fiber';
import { useEffect, useMemo } from 'react';
import * as THREE from 'three';
import type { ShownMaps } from '../../engine/protocol.ts';
import { useLimits } from './material/use-textures.ts';
import { textureOf } from './textures.ts';

/** The tile as a matte slab: albedo and slopes alone, without sheen. `factor` is taken off its brightness. */
export function MatteSlab({ maps, factor }: { maps: ShownMaps; factor: number }) {
  const invalidate = useThree((state) => state.invalidate);
  const limits = useLimits();
  const geometry = useMemo(() => {
    const made = new THREE.PlaneGeometry(2, 2);
    const uv = made.getAttribute('uv');
    for (let i = 0; i < uv.count; i++) uv.setY(i, 1 - uv.getY(i));
    return made;
  }, []);
  const albedo = useMemo(() => textureOf(maps.albedo, true, limits), [maps.albedo, limits]);
  const normal = useMemo(() => textureOf(maps.normal, false, limits), [maps.normal, limits]);
  const material = useMemo(() => new THREE.MeshLambertMaterial({ toneMapped: false }), []);
  useEffect(() => () => albedo.dispose(), [albedo]);
  useEffect(() => () => normal.dispose(), [normal]);
  useEffect(
    () => () => {
      geometry.dispose();
      material.dispose();
    },
    [geometry, material],
  );
  useEffect(() => {
    const { width, height } = maps.albedo;
    const longer = Math.max(width, height);
    for (const texture of [albedo, normal]) texture.repeat.set(longer / width, longer / height);
    material.map = albedo;
    material.normalMap = normal;
    material.normalScale.set(1, -maps.green);
    material.color.setScalar(1 / factor);
    material.needsUpdate = true;
    invalidate();
  }, [material, albedo, normal, maps, factor, invalidate]);
  return <mesh geometry={geometry} material={material} />;
}
