import { useThree } from '@react-three/fiber';
import { type DependencyList, useEffect, useMemo } from 'react';
import type * as THREE from 'three';
import type { ShownMaps } from '../../../engine/protocol.ts';
import { isSoftware } from '../software.ts';
import { type SillMap, useSill } from '../state.ts';
import { aloneOf, heightTexture, type Limits, textureOf } from '../textures.ts';

export interface SillTextures {
  albedo: THREE.Texture;
  normal: THREE.Texture;
  packed: THREE.Texture;
  specular: THREE.Texture | null;
  opacity: THREE.Texture | null;
  emission: THREE.Texture | null;
  height: THREE.Texture;
  alone: THREE.Texture | null;
}

/** Samples along the look at most: as fine as cards filter, or as games usually have them do. */
const MOST_ANISOTROPY = 16;
const AS_GAMES = 4;

/** Of the graphics card that draws the Sill. */
export function useLimits(): Limits {
  const gl = useThree((state) => state.gl);
  const isAsGames = useSill((s) => s.filtering === 'game');
  return useMemo(
    () => ({
      anisotropy: isSoftware(gl.getContext())
        ? 1
        : Math.min(isAsGames ? AS_GAMES : MOST_ANISOTROPY, gl.capabilities.getMaxAnisotropy()),
      most: gl.capabilities.maxTextureSize,
    }),
    [gl, isAsGames],
  );
}

/** A texture that is made again, and the old one freed, only when what it depends on changes. */
function useTexture<T extends THREE.Texture | null>(make: () => T, on: DependencyList): T {
  // biome-ignore lint/correctness/useExhaustiveDependencies: the caller names what it depends on
  const texture = useMemo(make, on);
  useEffect(() => () => texture?.dispose(), [texture]);
  return texture;
}

/** The Sill's maps as textures; only a map that changed is uploaded again. */
export function useTextures(maps: ShownMaps, limits: Limits, alone: SillMap | null): SillTextures {
  const albedo = useTexture(() => textureOf(maps.albedo, true, limits), [maps.albedo, limits]);
  const normal = useTexture(() => textureOf(maps.normal, false, limits), [maps.normal, limits]);
  const packed = useTexture(() => textureOf(maps.packed, false, limits), [maps.packed, limits]);
  const specular = useTexture(
    () => maps.specular && textureOf(maps.specular.map, true, limits),
    [maps.specular],
  );
  const opacity = useTexture(() => maps.opacity && textureOf(maps.opacity, false, limits), [maps.opacity]);
  const emission = useTexture(() => maps.emission && textureOf(maps.emission, true, limits), [maps.emission]);
  const height = useTexture(() => heightTexture(maps.height), [maps.height]);
  const single = useTexture(() => alone && aloneOf(maps, alone, limits), [alone, alone && maps]);
  return useMemo(
    () => ({ albedo, normal, packed, specular, opacity, emission, height, alone: single }),
    [albedo, normal, packed, specular, opacity, emission, height, single],
  );
}
