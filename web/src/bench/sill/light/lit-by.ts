import { BLURRED_AT } from '@zesty-tile/core';
import * as THREE from 'three';
import { WIDE_SHADOWS, zNoiseShift, zShadowSamples } from './wide-shadows.ts';

/** Light from all sides, for every material of the Sill at once. */
export const LIT_BY = {
  /** What is seen all round, for what is mirrored sharply; below it the same for rough surfaces. */
  zAround: { value: null as THREE.Texture | null },
  zBlurred: { value: null as THREE.Texture | null },
  /** Irradiance for every normal. */
  zHarmonics: { value: Array.from({ length: 9 }, () => new THREE.Vector3()) },
  /** Cosine and sine of how far the surroundings are rotated. */
  zTurned: { value: new THREE.Vector2(1, 0) },
  zAmount: { value: 1 },
  /** 1 where only what surfaces give off themselves is drawn. */
  zGlowAlone: { value: 0 },
  /** How much of what lights mirror counts in a picture. */
  zSheen: { value: 1 },
  zNoiseShift,
  zShadowSamples,
};

const LEVELS = BLURRED_AT.length;

/** Looks what is all round up: `zRadiance` of a direction and a roughness, `zRotated` from the view's directions to the surroundings'. */
export const AROUND_LOOKUP = `
uniform sampler2D zAround;
uniform sampler2D zBlurred;
uniform vec2 zTurned;
vec3 zRotated(vec3 d) {
  return vec3(zTurned.x * d.x - zTurned.y * d.z, d.y, zTurned.y * d.x + zTurned.x * d.z);
}
vec3 zBlurredAt(vec2 at, float level) {
  float rows = float(textureSize(zBlurred, 0).y) / ${LEVELS}.0;
  float row = clamp(at.y * rows, 0.5, rows - 0.5);
  return textureLod(zBlurred, vec2(at.x, (level * rows + row) / (rows * ${LEVELS}.0)), 0.0).rgb;
}
vec3 zRadiance(vec3 d, float roughness) {
  vec2 at = vec2(atan(d.z, d.x) * 0.15915494 + 0.5, asin(clamp(d.y, -1.0, 1.0)) * 0.31830989 + 0.5);
  // The levels are even steps of roughness; below the first it is mixed with what is sharp.
  float level = roughness * ${LEVELS}.0 - 1.0;
  if (level < 0.0) return mix(textureLod(zAround, at, 0.0).rgb, zBlurredAt(at, 0.0), level + 1.0);
  float lower = min(floor(level), ${LEVELS - 2}.0);
  return mix(zBlurredAt(at, lower), zBlurredAt(at, lower + 1.0), min(1.0, level - lower));
}
`;

const PARS = `
${AROUND_LOOKUP}
uniform vec3 zHarmonics[9];
uniform float zAmount;
uniform float zSheen;
uniform float zGlowAlone;
vec3 zTowards(vec3 inView) {
  return zRotated(normalize((vec4(inView, 0.0) * viewMatrix).xyz));
}
vec3 zIrradiance(vec3 n) {
  vec3 sum = 0.282095 * zHarmonics[0];
  sum += 0.488603 * (n.y * zHarmonics[1] + n.z * zHarmonics[2] + n.x * zHarmonics[3]);
  sum += 1.092548 * (n.x * n.y * zHarmonics[4] + n.y * n.z * zHarmonics[5] + n.x * n.z * zHarmonics[7]);
  sum += 0.315392 * (3.0 * n.z * n.z - 1.0) * zHarmonics[6] + 0.546274 * (n.x * n.x - n.y * n.y) * zHarmonics[8];
  return max(sum, vec3(0.0));
}
`;

const GATHER = `
#if defined( RE_IndirectDiffuse )
  iblIrradiance += zAmount * zIrradiance(zTowards(geometryNormal));
#endif
#if defined( RE_IndirectSpecular )
  radiance += zAmount * zRadiance(zTowards(mix(reflect(-geometryViewDir, geometryNormal), geometryNormal, pow(material.roughness, 4.0))), material.roughness);
#endif
`;

const OCCLUDED = `
reflectedLight.directSpecular *= zSheen;
#ifdef USE_AOMAP
  reflectedLight.indirectSpecular *= computeSpecularOcclusion(saturate(dot(geometryNormal, geometryViewDir)), ambientOcclusion, material.roughness);
#endif
`;

type Program = Pick<THREE.WebGLProgramParametersWithUniforms, 'uniforms' | 'vertexShader' | 'fragmentShader'>;

/** Replaces a piece of three's program. @throws Error where three no longer has it. */
export function swap(
  program: Program,
  kind: 'vertexShader' | 'fragmentShader',
  was: string,
  now: string,
): void {
  if (!program[kind].includes(was)) throw new Error(`three's ${kind} no longer holds “${was}”.`);
  program[kind] = program[kind].replace(was, () => now);
}

/** Lets the surroundings light a physical or standard material; called from its onBeforeCompile. */
export function litByAround(program: Program): void {
  Object.assign(program.uniforms, LIT_BY);
  swap(program, 'fragmentShader', 'void main() {', `${PARS}void main() {`);
  swap(program, 'fragmentShader', '#include <lights_fragment_maps>', GATHER);
  swap(program, 'fragmentShader', '#include <shadowmap_pars_fragment>', WIDE_SHADOWS);
  swap(
    program,
    'fragmentShader',
    '#include <opaque_fragment>',
    'outgoingLight = mix(outgoingLight, totalEmissiveRadiance, zGlowAlone);\n#include <opaque_fragment>',
  );
  swap(program, 'fragmentShader', '#include <aomap_fragment>', `#include <aomap_fragment>\n${OCCLUDED}`);
}

/** A physical material that the surroundings light, for what stands beside a tile. */
export function litMaterial(values: THREE.MeshPhysicalMaterialParameters): THREE.MeshPhysicalMaterial {
  const material = new THREE.MeshPhysicalMaterial(values);
  material.onBeforeCompile = litByAround;
  material.customProgramCacheKey = () => 'around';
  return material;
}
