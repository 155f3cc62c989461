import * as THREE from 'three';
import { litByAround, swap } from '../light/lit-by.ts';
import type { Depth } from '../state.ts';

/** How a tile is placed on a surface, and what of its light is drawn; each its own program of the graphics card. */
export interface Placing {
  depth: Depth;
  triplanar: boolean;
  /** Without what is reflected diffusely only what is mirrored is seen, of metal too. */
  diffuse: boolean;
  /** Colour alone, without light. */
  unlit: boolean;
}

/** Values of a placing that change without another program. */
export interface PlacingUniforms {
  zRepeat: { value: THREE.Vector2 };
  zPerUnit: { value: THREE.Vector2 };
  zHeight: { value: THREE.Texture | null };
  zDepth: { value: number };
  zSteps: { value: THREE.Vector2 };
  zSharp: { value: number };
}

export const placingUniforms = (): PlacingUniforms => ({
  zRepeat: { value: new THREE.Vector2(1, 1) },
  zPerUnit: { value: new THREE.Vector2(1, 1) },
  zHeight: { value: null },
  zDepth: { value: 0 },
  zSteps: { value: new THREE.Vector2(10, 48) },
  zSharp: { value: 6 },
});

const UVS = [
  'Map',
  'NormalMap',
  'RoughnessMap',
  'MetalnessMap',
  'AoMap',
  'AlphaMap',
  'SpecularColorMap',
  'EmissiveMap',
];

/** From here on every look at a map goes to one place. */
const ONE_PLACE = `
${UVS.map((name) => `#define v${name}Uv zAt`).join('\n')}
`;

const FRAGMENT_PARS = `
uniform sampler2D zHeight;
uniform float zDepth;
uniform vec2 zSteps;
uniform float zSharp;
uniform vec2 zPerUnit;
varying vec2 zUv;
varying vec3 zPlace;
varying vec3 zFacing;
vec3 zNormal;
vec3 zAlongU;
vec3 zAlongV;
vec2 zAt;
float zLevel;
`;

/** Moved coordinates jump from pixel to pixel: looks take the slopes of the unmoved ones. */
const OWN_SLOPES = `
#undef texture2D
#define texture2D(map, at) textureGrad(map, at, zDx, zDy)
`;

/** Steps towards a light, and how hard what is in the way darkens. */
const SHADE_STEPS = 12;
const SHADE_HARD = 8;

/**
 * How far the coordinates move along a ray for each unit of depth, from the slopes of place and coordinates on
 * the screen; then where the ray meets the relief. One step with limited offset: Kaneko et al. 2001, Welsh 2004;
 * ray steps with a secant and self-occlusion towards the light: Tatarchuk 2006.
 */
const RAY = `
vec3 zEye = normalize(-vViewPosition);
zNormal = normalize(vNormal);
if (dot(zNormal, zEye) > 0.0) zNormal = -zNormal;
vec3 zQ0 = dFdx(-vViewPosition);
vec3 zQ1 = dFdy(-vViewPosition);
vec3 zA = cross(zQ1, zNormal);
vec3 zB = cross(zNormal, zQ0);
float zSpan = dot(zQ0, zA);
float zInverse = abs(zSpan) < 1e-12 ? 0.0 : 1.0 / zSpan;
zAlongU = (zA * zDx.x + zB * zDy.x) * zInverse;
zAlongV = (zA * zDx.y + zB * zDy.y) * zInverse;
float zFlat = max(-dot(zEye, zNormal), 0.2);
vec2 zRun = vec2(dot(zAlongU, zEye), dot(zAlongV, zEye)) * (zDepth / zFlat);
`;

const ONE_STEP = `
zLevel = textureLod(zHeight, zUv, 0.0).r;
zAt = zUv - zRun * zFlat * (zLevel - 0.5);
`;

const RAY_STEPS = `
float zCount = floor(mix(zSteps.y, zSteps.x, zFlat));
vec2 zMove = zRun / zCount;
zAt = zUv - 0.5 * zRun;
zLevel = 1.0;
float zHere = textureLod(zHeight, zAt, 0.0).r;
float zWas = zHere;
for (int i = 0; i < 128; i++) {
  if (float(i) >= zCount || zHere >= zLevel) break;
  zWas = zHere;
  zLevel -= 1.0 / zCount;
  zAt += zMove;
  zHere = textureLod(zHeight, zAt, 0.0).r;
}
float zOver = zHere - zLevel;
float zUnder = zLevel + 1.0 / zCount - zWas;
float zBack = zOver + zUnder > 1e-6 ? clamp(zOver / (zOver + zUnder), 0.0, 1.0) : 0.0;
zAt -= zMove * zBack;
zLevel += zBack / zCount;
`;

const SHADE = `
float zShade(vec3 light) {
  float up = dot(light, zNormal);
  if (up <= 0.0 || zDepth <= 0.0) return 1.0;
  vec2 run = vec2(dot(zAlongU, light), dot(zAlongV, light)) * (zDepth / max(up, 0.06)) * (1.0 - zLevel);
  float most = 0.0;
  for (int i = 1; i <= ${SHADE_STEPS}; i++) {
    float t = float(i) / ${SHADE_STEPS}.0;
    float over = textureLod(zHeight, zAt + run * t, 0.0).r - mix(zLevel, 1.0, t);
    most = max(most, over * (1.0 - t));
  }
  return 1.0 - clamp(most * ${SHADE_HARD}.0, 0.0, 1.0);
}
`;

/** Weights and coordinates of the three projections (Geiss 2007). */
const THREE_PLANES = `
vec3 zFace = normalize(zFacing);
vec3 zSign = vec3(zFace.x < 0.0 ? -1.0 : 1.0, zFace.y < 0.0 ? -1.0 : 1.0, zFace.z < 0.0 ? -1.0 : 1.0);
vec3 zShare = pow(abs(zFace), vec3(zSharp));
zShare /= zShare.x + zShare.y + zShare.z;
vec2 zX = vec2(-zSign.x * zPlace.z, -zPlace.y) * zPerUnit;
vec2 zY = vec2(zPlace.x, zSign.y * zPlace.z) * zPerUnit;
vec2 zZ = vec2(zSign.z * zPlace.x, -zPlace.y) * zPerUnit;
#undef texture2D
#define texture2D(map, at) (zShare.x * texture(map, zX) + zShare.y * texture(map, zY) + zShare.z * texture(map, zZ))
`;

/** Each projection's normal laid over the surface's, its slopes added; then mixed. */
const THREE_NORMALS = `
#ifdef USE_NORMALMAP_TANGENTSPACE
  vec3 zNx = texture(normalMap, zX).xyz * 2.0 - 1.0;
  vec3 zNy = texture(normalMap, zY).xyz * 2.0 - 1.0;
  vec3 zNz = texture(normalMap, zZ).xyz * 2.0 - 1.0;
  zNx.xy *= normalScale;
  zNy.xy *= normalScale;
  zNz.xy *= normalScale;
  vec3 zBent = zShare.x * vec3(zFace.x * zNx.z, zFace.y - zNx.y, zFace.z - zSign.x * zNx.x)
    + zShare.y * vec3(zFace.x + zNy.x, zFace.y * zNy.z, zFace.z + zSign.y * zNy.y)
    + zShare.z * vec3(zFace.x + zSign.z * zNz.x, zFace.y - zNz.y, zFace.z * zNz.z);
  normal = normalize(normalMatrix * zBent);
  #ifdef DOUBLE_SIDED
    normal *= faceDirection;
  #endif
#endif
`;

const VERTEX_PARS = `
#ifdef USE_DISPLACEMENTMAP
  attribute vec3 zLift;
#endif
uniform vec2 zRepeat;
uniform vec2 zPerUnit;
uniform float zSharp;
varying vec2 zUv;
varying vec3 zPlace;
varying vec3 zFacing;
`;

const THREE_HEIGHTS = `
#ifdef USE_DISPLACEMENTMAP
  vec3 zShare = pow(abs(normalize(normal)), vec3(zSharp));
  zShare /= zShare.x + zShare.y + zShare.z;
  vec3 zSign = vec3(normal.x < 0.0 ? -1.0 : 1.0, normal.y < 0.0 ? -1.0 : 1.0, normal.z < 0.0 ? -1.0 : 1.0);
  float zHigh = zShare.x * texture(displacementMap, vec2(-zSign.x * position.z, -position.y) * zPerUnit).x
    + zShare.y * texture(displacementMap, vec2(position.x, zSign.y * position.z) * zPerUnit).x
    + zShare.z * texture(displacementMap, vec2(zSign.z * position.x, -position.y) * zPerUnit).x;
  transformed += zLift * (zHigh * displacementScale + displacementBias);
#endif
`;

const ONE_HEIGHT = `
#ifdef USE_DISPLACEMENTMAP
  transformed += zLift * (texture2D(displacementMap, zUv).x * displacementScale + displacementBias);
#endif
`;

const isRayed = ({ depth, triplanar }: Placing): boolean =>
  !triplanar && (depth === 'one-step' || depth === 'ray-steps');

function startOf(placing: Placing): string {
  if (placing.triplanar) return THREE_PLANES;
  if (!isRayed(placing)) return `zAt = zUv;\n${ONE_PLACE}`;
  const slopes = 'vec2 zDx = dFdx(zUv);\nvec2 zDy = dFdy(zUv);\n';
  return slopes + RAY + (placing.depth === 'one-step' ? ONE_STEP : RAY_STEPS) + OWN_SLOPES + ONE_PLACE;
}

/** Hands the tile's coordinates on, and lets relief move the points. */
function placeVertices(shader: Parameters<typeof swap>[0], triplanar: boolean): void {
  swap(
    shader,
    'vertexShader',
    'void main() {',
    `${VERTEX_PARS}void main() {\nzUv = uv * zRepeat;\nzPlace = position;\nzFacing = normal;\n`,
  );
  swap(shader, 'vertexShader', '#include <displacementmap_vertex>', triplanar ? THREE_HEIGHTS : ONE_HEIGHT);
}

/** Makes a surface cast the shadow of its moved and cut-out self; to be called again when the placing changes. */
export function placeShadow(
  material: THREE.MeshDepthMaterial,
  triplanar: boolean,
  uniforms: PlacingUniforms,
): void {
  const key = `shadow ${triplanar}`;
  if (material.userData.placing === key) return;
  material.userData.placing = key;
  material.customProgramCacheKey = () => key;
  material.onBeforeCompile = (shader) => {
    Object.assign(shader.uniforms, uniforms);
    placeVertices(shader, triplanar);
    swap(
      shader,
      'fragmentShader',
      'void main() {',
      'varying vec2 zUv;\n#define vAlphaMapUv zUv\nvoid main() {',
    );
  };
  material.needsUpdate = true;
}

/** Makes a material place its maps so; to be called before it is drawn, and again when the placing changes. */
export function place(
  material: THREE.MeshPhysicalMaterial,
  placing: Placing,
  uniforms: PlacingUniforms,
): void {
  const key = `${isRayed(placing) ? placing.depth : 'plain'} ${placing.triplanar} ${placing.diffuse} ${placing.unlit}`;
  if (material.userData.placing === key) return;
  material.userData.placing = key;
  material.customProgramCacheKey = () => key;
  material.onBeforeCompile = (shader) => {
    Object.assign(shader.uniforms, uniforms);
    litByAround(shader);
    placeVertices(shader, placing.triplanar);
    const isShaded = isRayed(placing) && placing.depth === 'ray-steps';
    const pars =
      FRAGMENT_PARS + (placing.triplanar ? 'uniform mat3 normalMatrix;\n' : '') + (isShaded ? SHADE : '');
    swap(shader, 'fragmentShader', 'void main() {', `${pars}void main() {\n${startOf(placing)}`);
    swap(
      shader,
      'fragmentShader',
      '#include <normal_fragment_begin>',
      THREE.ShaderChunk.normal_fragment_begin.replaceAll('vNormalMapUv', 'zUv'),
    );
    if (placing.triplanar) swap(shader, 'fragmentShader', '#include <normal_fragment_maps>', THREE_NORMALS);
    if (isShaded) {
      const lit = 'getDirectionalLightInfo( directionalLight, directLight );';
      swap(
        shader,
        'fragmentShader',
        '#include <lights_fragment_begin>',
        THREE.ShaderChunk.lights_fragment_begin.replace(
          lit,
          `${lit}\ndirectLight.color *= zShade(directLight.direction);`,
        ),
      );
    }
    if (!placing.diffuse) {
      swap(
        shader,
        'fragmentShader',
        'vec3 totalDiffuse = reflectedLight.directDiffuse + reflectedLight.indirectDiffuse;',
        'vec3 totalDiffuse = vec3(0.0);',
      );
    }
    if (placing.unlit) {
      swap(
        shader,
        'fragmentShader',
        '#include <opaque_fragment>',
        'outgoingLight = diffuseColor.rgb;\n#include <opaque_fragment>',
      );
    }
  };
  material.needsUpdate = true;
}
