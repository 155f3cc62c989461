import * as THREE from 'three';

/** Samples of the shadow map for each pixel: of the sun, and of a piece of the sky, which lie far apart. */
export const SUN_SAMPLES = 5;
export const SKY_SAMPLES = 10;
export const zShadowSamples = { value: SUN_SAMPLES };

/** By how many pixels the noise is shifted that turns the samples' pattern; by another amount in each gathered frame. */
export const zNoiseShift = { value: 0 };
/** From frame to frame: noise that is shifted so is least alike (Jimenez, Next Generation Post Processing, 2014). */
export const NOISE_STEP = 5.588238;

/** Steeper planes are treated as this steep. */
const STEEPEST = 5;

/** What differs from three's program: each piece that is replaced, and what stands there instead. */
const CHANGES: readonly [was: RegExp, now: string][] = [
  [/shadowCoord\.xyz \/= shadowCoord\.w;/, '$&\nvec2 zSlope = zPlane(shadowCoord.xyz);'],
  [/interleavedGradientNoise\( gl_FragCoord\.xy(?= \) \* PI2)/, '$& + zNoiseShift'],
  [
    /shadow = \([^;]*\) \* 0\.2;/,
    `shadow = 0.0;
for (int k = 0; k < zShadowSamples; k++) {
  vec2 offset = vogelDiskSample(k, zShadowSamples, phi) * radius;
  shadow += texture(shadowMap, shadowCoord.xyz + vec3(offset, dot(offset, zSlope)));
}
shadow /= float(zShadowSamples);`,
  ],
];

/**
 * Three's lookup of shadow maps, changed for wide soft edges. Each sample is compared with the depth of the surface's own
 * plane at the sample (receiver plane depth bias: Isidoro, Shadow Mapping: GPU-based Tips and Techniques, 2006), so that a
 * surface at a grazing angle does not shade itself. The noise that turns the samples is shifted from frame to frame, so that
 * it averages out over many frames.
 */
export const WIDE_SHADOWS = `
uniform int zShadowSamples;
uniform float zNoiseShift;
vec2 zPlane(vec3 at) {
  vec3 x = dFdx(at), y = dFdy(at);
  float area = x.x * y.y - x.y * y.x;
  if (abs(area) < 1e-12) return vec2(0.0);
  return clamp(vec2(y.y * x.z - x.y * y.z, x.x * y.z - y.x * x.z) / area, -${STEEPEST}.0, ${STEEPEST}.0);
}
${CHANGES.reduce((program, [was, now]) => {
  if (program.search(was) < 0) throw new Error(`three's lookup of shadow maps no longer holds ${was}.`);
  return program.replace(was, now);
}, THREE.ShaderChunk.shadowmap_pars_fragment)}`;
