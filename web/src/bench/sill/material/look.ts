import * as THREE from 'three';
import type { ShownMaps } from '../../../engine/protocol.ts';
import type { Show, SillMap } from '../state.ts';
import type { SillTextures } from './use-textures.ts';

/** Linear reflectance of clay, and of what takes the place of an albedo that is off. */
const CLAY = 0.35;
const PLAIN = 0.18;
/** What light falls is judged on this. */
const WHITE = 0.8;
/** What replaces roughness that is off, and F0 that is off: a usual dielectric. */
const PLAIN_ROUGHNESS = 0.6;
const PLAIN_F0 = 0.04;

/** Index of refraction with this reflectance at normal incidence. */
function iorOf(f0: number): number {
  const root = Math.sqrt(Math.min(0.9, Math.max(0, f0)));
  return (1 + root) / (1 - root);
}

/** How the Sill is to look, apart from where maps lie. */
export interface Look {
  show: Show;
  off: readonly SillMap[];
  opacityAs: 'cut' | 'see-through';
  bothFaces: boolean;
  glow: number;
}

const LIT: readonly Show[] = ['finished', 'clay', 'side', 'sheen', 'light'];

/** Whether light falls on what is shown. */
export const isLit = (show: Show): boolean => LIT.includes(show);

function setOpacity(material: THREE.MeshPhysicalMaterial, texture: THREE.Texture | null, look: Look): void {
  material.alphaMap = texture;
  const isSeenThrough = texture !== null && look.opacityAs === 'see-through';
  material.transparent = isSeenThrough;
  material.alphaTest = texture && !isSeenThrough ? 0.5 : 0;
  material.side = look.bothFaces ? THREE.DoubleSide : THREE.FrontSide;
}

/** Colour alone: the albedo, or one map; a map that is one value all over is that value. */
function setUnlit(
  material: THREE.MeshPhysicalMaterial,
  { albedo, opacity, alone }: SillTextures,
  maps: ShownMaps,
  look: Look,
): void {
  material.map = look.show === 'unlit' ? albedo : alone;
  if (material.map) material.color.setScalar(1);
  else material.color.setRGB(...maps.f0);
  for (const key of [
    'normalMap',
    'aoMap',
    'roughnessMap',
    'metalnessMap',
    'specularColorMap',
    'emissiveMap',
  ] as const)
    material[key] = null;
  material.emissive.setScalar(0);
  setOpacity(material, look.show === 'unlit' && !look.off.includes('opacity') ? opacity : null, look);
}

function setLit(
  material: THREE.MeshPhysicalMaterial,
  textures: SillTextures,
  maps: ShownMaps,
  look: Look,
): void {
  const isOn = (map: SillMap) => !look.off.includes(map);
  const clay = look.show === 'clay' || look.show === 'side' || look.show === 'light';
  material.map = !clay && isOn('albedo') ? textures.albedo : null;
  material.color.setScalar(material.map ? 1 : look.show === 'light' ? WHITE : clay ? CLAY : PLAIN);
  material.normalMap = isOn('normal') ? textures.normal : null;
  material.aoMap = isOn('occlusion') ? textures.packed : null;
  material.roughnessMap = !clay && isOn('roughness') ? textures.packed : null;
  material.roughness = material.roughnessMap ? 1 : PLAIN_ROUGHNESS;
  material.metalnessMap = !clay && isOn('metallic') ? textures.packed : null;
  material.metalness = material.metalnessMap ? 1 : 0;
  material.emissiveMap = look.show === 'finished' && isOn('emission') ? textures.emission : null;
  material.emissive.setScalar(material.emissiveMap ? 1 : 0);
  material.emissiveIntensity = look.glow;
  const isMirroring = !clay && isOn('specular');
  const f0 = isMirroring ? maps.f0 : [PLAIN_F0, PLAIN_F0, PLAIN_F0];
  material.specularColorMap = isMirroring ? textures.specular : null;
  const brightest = material.specularColorMap ? (maps.specular?.brightest ?? PLAIN_F0) : Math.max(...f0);
  material.ior = maps.isMetal ? 1.5 : iorOf(brightest);
  if (material.specularColorMap) material.specularColor.setScalar(1);
  else material.specularColor.setRGB(f0[0], f0[1], f0[2]).multiplyScalar(1 / Math.max(1e-6, brightest));
  // With v downwards the tangent frame's second axis points down the picture.
  material.normalScale.set(1, -maps.green);
  setOpacity(material, isOn('opacity') ? textures.opacity : null, look);
}

/** Puts the maps that are in play into a material. */
export function setLook(
  material: THREE.MeshPhysicalMaterial,
  textures: SillTextures,
  maps: ShownMaps,
  look: Look,
): void {
  if (isLit(look.show)) setLit(material, textures, maps, look);
  else setUnlit(material, textures, maps, look);
  material.toneMapped = isLit(look.show);
  material.needsUpdate = true;
}
