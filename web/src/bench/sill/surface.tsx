import { useThree } from '@react-three/fiber';
import { type DependencyList, useEffect, useMemo, useState } from 'react';
import * as THREE from 'three';
import type { ShownMaps } from '../../engine/protocol.ts';
import { IS_WHOLE, repeatsOf, type Shape, shapeOf, TILE_EDGE } from './shapes.ts';
import { isSoftware } from './software.ts';
import { type Show, SILL_MAPS, type SillMap, useSill } from './state.ts';
import { aloneOf, heightTexture, textureOf } from './textures.ts';

interface SurfaceProps {
  maps: ShownMaps;
  shape: Shape;
  show: Show;
  off: readonly SillMap[];
  /** How often the tile goes over the shape, beside its own number. */
  times: number;
}

/** Linear reflectance of clay, and of what stands in for an albedo that is off. */
const CLAY = 0.35;
const PLAIN = 0.18;
/** What light falls is judged on this. */
const WHITE = 0.8;
/** What stands in for roughness that is off, and F0 that is off: a usual dielectric. */
const PLAIN_ROUGHNESS = 0.6;
const PLAIN_F0 = 0.04;

/** So long no map changes before a Sill without a graphics card follows. */
const REST_MS = 200;

/** Index of refraction with this reflectance at normal incidence. */
function iorOf(f0: number): number {
  const root = Math.sqrt(Math.min(0.9, Math.max(0, f0)));
  return (1 + root) / (1 - root);
}

interface SillTextures {
  albedo: THREE.Texture;
  normal: THREE.Texture;
  packed: THREE.Texture;
  specular: THREE.Texture | null;
  opacity: THREE.Texture | null;
  height: THREE.Texture;
  alone: THREE.Texture | null;
}

/** A texture that is made anew, and the old one freed, only when what it hangs on changes. */
function useTexture<T extends THREE.Texture | null>(make: () => T, on: DependencyList): T {
  // biome-ignore lint/correctness/useExhaustiveDependencies: the caller names what it hangs on
  const texture = useMemo(make, on);
  useEffect(() => () => texture?.dispose(), [texture]);
  return texture;
}

/** The Sill's maps as textures; only a map that changed is uploaded again. */
function useTextures(maps: ShownMaps, anisotropy: number, alone: SillMap | null): SillTextures {
  const albedo = useTexture(() => textureOf(maps.albedo, true, anisotropy), [maps.albedo]);
  const normal = useTexture(() => textureOf(maps.normal, false, anisotropy), [maps.normal]);
  const packed = useTexture(() => textureOf(maps.packed, false, anisotropy), [maps.packed]);
  const specular = useTexture(
    () => maps.specular && textureOf(maps.specular.map, true, anisotropy),
    [maps.specular],
  );
  const opacity = useTexture(
    () => maps.opacity && textureOf(maps.opacity, false, anisotropy),
    [maps.opacity],
  );
  const height = useTexture(() => heightTexture(maps.height), [maps.height]);
  const single = useTexture(() => alone && aloneOf(maps, alone, anisotropy), [alone, alone && maps]);
  return useMemo(
    () => ({ albedo, normal, packed, specular, opacity, height, alone: single }),
    [albedo, normal, packed, specular, opacity, height, single],
  );
}

function setLit(
  material: THREE.MeshPhysicalMaterial,
  textures: SillTextures,
  maps: ShownMaps,
  clay: boolean,
  isOn: (map: SillMap) => boolean,
): void {
  const grey = clay ? CLAY : PLAIN;
  material.map = !clay && isOn('albedo') ? textures.albedo : null;
  material.color.setScalar(material.map ? 1 : grey);
  material.normalMap = isOn('normal') ? textures.normal : null;
  material.aoMap = isOn('occlusion') ? textures.packed : null;
  material.roughnessMap = !clay && isOn('roughness') ? textures.packed : null;
  material.roughness = material.roughnessMap ? 1 : PLAIN_ROUGHNESS;
  material.metalnessMap = !clay && isOn('metallic') ? textures.packed : null;
  material.metalness = material.metalnessMap ? 1 : 0;
  material.alphaMap = isOn('opacity') ? textures.opacity : null;
  material.alphaTest = material.alphaMap ? 0.5 : 0;
  const isMirroring = !clay && isOn('specular');
  const f0 = isMirroring ? maps.f0 : [PLAIN_F0, PLAIN_F0, PLAIN_F0];
  material.specularColorMap = isMirroring ? textures.specular : null;
  const brightest = material.specularColorMap ? (maps.specular?.brightest ?? PLAIN_F0) : Math.max(...f0);
  material.ior = maps.isMetal ? 1.5 : iorOf(brightest);
  if (material.specularColorMap) material.specularColor.setScalar(1);
  else material.specularColor.setRGB(f0[0], f0[1], f0[2]).multiplyScalar(1 / Math.max(1e-6, brightest));
}

/** Whether what is thrown back diffusely is drawn; without it only what is mirrored is seen, of metal too. */
function setDiffuse(material: THREE.MeshPhysicalMaterial, isDrawn: boolean): void {
  const was = material.userData.isDiffuseDrawn ?? true;
  if (was === isDrawn) return;
  material.userData.isDiffuseDrawn = isDrawn;
  material.onBeforeCompile = (shader) => {
    if (isDrawn) return;
    shader.fragmentShader = shader.fragmentShader.replace(
      'vec3 totalDiffuse = reflectedLight.directDiffuse + reflectedLight.indirectDiffuse;',
      'vec3 totalDiffuse = vec3(0.0);',
    );
  };
  material.customProgramCacheKey = () => (isDrawn ? 'whole' : 'sheen');
}

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

/** The shape under its maps, lit or flat, as many of them as are in play. */
export function Surface({ maps: latest, shape, show, off, times }: SurfaceProps) {
  const gl = useThree((state) => state.gl);
  const invalidate = useThree((state) => state.invalidate);
  const software = useMemo(() => isSoftware(gl.getContext()), [gl]);
  const own = useSill((s) => s.own);
  const geometry = useMemo(
    () =>
      (shape === 'own' ? own?.geometry.clone() : undefined) ??
      shapeOf(shape === 'own' ? 'ball' : shape, software ? 0.35 : 1),
    [shape, own, software],
  );
  const maps = useRested(latest, software ? REST_MS : 0);
  const alone = (SILL_MAPS as readonly string[]).includes(show) ? (show as SillMap) : null;
  const textures = useTextures(maps, Math.min(8, gl.capabilities.getMaxAnisotropy()), alone);
  useEffect(() => () => geometry.dispose(), [geometry]);
  const lit = useMemo(() => new THREE.MeshPhysicalMaterial({ side: THREE.FrontSide }), []);
  const flat = useMemo(() => new THREE.MeshBasicMaterial({ toneMapped: false }), []);
  useEffect(
    () => () => {
      lit.dispose();
      flat.dispose();
    },
    [lit, flat],
  );
  const isLit = ['finished', 'clay', 'side', 'sheen', 'light'].includes(show);
  useEffect(() => {
    const isOn = (map: SillMap) => !off.includes(map);
    const [across, down] = repeatsOf(shape, maps.albedo, times);
    const { albedo, normal, packed, specular, height, opacity, alone: single } = textures;
    for (const one of [albedo, normal, packed, specular, height, opacity, single])
      one?.repeat.set(across, down);
    setLit(lit, textures, maps, show === 'clay' || show === 'side' || show === 'light', isOn);
    if (show === 'light') lit.color.setScalar(WHITE);
    setDiffuse(lit, show !== 'sheen');
    // With v downwards the tangent frame's second axis points down the picture.
    lit.normalScale.set(1, -maps.green);
    lit.displacementMap = isOn('height') && IS_WHOLE[shape] ? height : null;
    lit.displacementScale = (maps.depthShare * TILE_EDGE[shape]) / times;
    lit.displacementBias = -lit.displacementScale / 2;
    flat.map = show === 'unlit' ? albedo : single;
    if (flat.map) flat.color.setScalar(1);
    else flat.color.setRGB(...maps.f0);
    flat.alphaMap = show === 'unlit' && isOn('opacity') ? opacity : null;
    flat.alphaTest = flat.alphaMap ? 0.5 : 0;
    lit.needsUpdate = true;
    flat.needsUpdate = true;
    invalidate();
  }, [lit, flat, textures, shape, show, off, maps, times, invalidate]);
  return <mesh geometry={geometry} material={isLit ? lit : flat} />;
}
