import * as THREE from 'three';
import type { Tone } from '../state.ts';

/** How linear light becomes a picture. */
export interface Developing {
  exposure: number;
  /** Null where values are shown as they are. */
  tone: Tone | null;
  /** Whether what glows has a bloom. */
  hasGlow: boolean;
}

/** A bloom and the part of it that a picture shows: where it begins and how far it reaches, in shares from the lower left. */
export interface Bloom {
  texture: THREE.Texture;
  from: [number, number];
  size: [number, number];
}

/** So much of what glows is spread about it. */
const BLOOM = 0.12;

const TONES: readonly Tone[] = ['plain', 'neutral', 'filmic'];

const VERTEX = `
varying vec2 zAt;
void main() {
  zAt = uv;
  gl_Position = vec4(position.xy, 0.0, 1.0);
}
`;

/** Khronos PBR Neutral (2024), and the fit of film by Hill (ACES), both as three holds them. */
const DEVELOP = `
uniform sampler2D zLight;
uniform int zTone;
uniform bool zIsStraight;
uniform sampler2D zBloom;
uniform vec4 zBloomPart;
uniform float zBloomShare;
varying vec2 zAt;
#include <tonemapping_pars_fragment>
void main() {
  vec4 light = texture(zLight, zAt);
  if (zBloomShare > 0.0) {
    vec3 bloom = zBloomShare * texture(zBloom, zBloomPart.xy + zAt * zBloomPart.zw).rgb;
    light.rgb += bloom;
    light.a = max(light.a, min(1.0, toneMappingExposure * max(bloom.r, max(bloom.g, bloom.b))));
  }
  vec3 colour = light.a > 0.0 ? light.rgb / light.a : vec3(0.0);
  if (zTone == 0) colour = LinearToneMapping(colour);
  if (zTone == 1) colour = NeutralToneMapping(colour);
  if (zTone == 2) colour = ACESFilmicToneMapping(colour);
  vec3 code = sRGBTransferOETF(vec4(saturate(colour), 1.0)).rgb;
  gl_FragColor = vec4(zIsStraight ? code : code * light.a, light.a);
}
`;

/** A tent over a pixel and its eight neighbours. */
const SOFTEN = `
uniform sampler2D zLight;
varying vec2 zAt;
void main() {
  vec2 step = 1.0 / vec2(textureSize(zLight, 0));
  vec4 sum = 4.0 * texture(zLight, zAt);
  for (int k = 0; k < 4; k++) {
    vec2 side = k < 2 ? vec2(k == 0 ? 1.0 : -1.0, 0.0) : vec2(0.0, k == 2 ? 1.0 : -1.0);
    vec2 corner = vec2(k < 2 ? 1.0 : -1.0, k % 2 == 0 ? 1.0 : -1.0);
    sum += 2.0 * texture(zLight, zAt + side * step) + texture(zLight, zAt + corner * step);
  }
  gl_FragColor = sum / 16.0;
}
`;

const MIX = `
uniform sampler2D zLight;
uniform sampler2D zBefore;
uniform float zShare;
varying vec2 zAt;
void main() {
  gl_FragColor = mix(texture(zBefore, zAt), texture(zLight, zAt), zShare);
}
`;

const PREMULTIPLY = `
uniform sampler2D zLight;
varying vec2 zAt;
void main() {
  vec4 light = texture(zLight, zAt);
  gl_FragColor = vec4(light.rgb * light.a, light.a);
}
`;

function pass(fragmentShader: string, uniforms: Record<string, THREE.IUniform>): THREE.ShaderMaterial {
  return new THREE.ShaderMaterial({
    vertexShader: VERTEX,
    fragmentShader,
    uniforms,
    depthTest: false,
    depthWrite: false,
    blending: THREE.NoBlending,
    toneMapped: false,
  });
}

/** Draws pictures over a whole target: light developed for the screen, or mixed with what was there. */
export class Screen {
  readonly #gl: THREE.WebGLRenderer;
  readonly #scene = new THREE.Scene();
  readonly #camera = new THREE.Camera();
  readonly #mesh = new THREE.Mesh(new THREE.PlaneGeometry(2, 2));
  readonly #develop = pass(DEVELOP, {
    zLight: { value: null },
    zTone: { value: 1 },
    zIsStraight: { value: false },
    toneMappingExposure: { value: 1 },
    zBloom: { value: null },
    zBloomPart: { value: new THREE.Vector4() },
    zBloomShare: { value: 0 },
  });
  readonly #soften = pass(SOFTEN, { zLight: { value: null } });
  readonly #premultiply = pass(PREMULTIPLY, { zLight: { value: null } });
  readonly #mix = pass(MIX, { zLight: { value: null }, zBefore: { value: null }, zShare: { value: 1 } });

  constructor(gl: THREE.WebGLRenderer) {
    this.#gl = gl;
    this.#mesh.frustumCulled = false;
    this.#soften.blendSrc = THREE.OneFactor;
    this.#soften.blendDst = THREE.OneFactor;
    this.#scene.add(this.#mesh);
  }

  #draw(material: THREE.ShaderMaterial, target: THREE.WebGLRenderTarget | null): void {
    this.#mesh.material = material;
    this.#gl.setRenderTarget(target);
    this.#gl.render(this.#scene, this.#camera);
    this.#gl.setRenderTarget(null);
  }

  /** Shows light on the canvas, or as straight codes in a target of bytes. */
  develop(
    light: THREE.Texture,
    { exposure, tone }: Developing,
    bloom: Bloom | null,
    target: THREE.WebGLRenderTarget | null,
  ): void {
    const { uniforms } = this.#develop;
    uniforms.zLight.value = light;
    uniforms.zTone.value = tone === null ? -1 : TONES.indexOf(tone);
    uniforms.zIsStraight.value = target !== null;
    uniforms.toneMappingExposure.value = exposure;
    uniforms.zBloom.value = bloom?.texture ?? null;
    uniforms.zBloomShare.value = bloom ? BLOOM : 0;
    if (bloom) uniforms.zBloomPart.value.set(...bloom.from, ...bloom.size);
    this.#draw(this.#develop, target);
  }

  /** Writes a picture into a target of another size, softened; added to what is there where it `adds`. */
  soften(light: THREE.Texture, target: THREE.WebGLRenderTarget, adds: boolean): void {
    this.#soften.uniforms.zLight.value = light;
    this.#soften.blending = adds ? THREE.CustomBlending : THREE.NoBlending;
    const { autoClear } = this.#gl;
    this.#gl.autoClear = !adds;
    this.#draw(this.#soften, target);
    this.#gl.autoClear = autoClear;
  }

  /** Writes a share of `light` and the rest of `before` into a target. */
  mix(light: THREE.Texture, before: THREE.Texture, share: number, target: THREE.WebGLRenderTarget): void {
    const { uniforms } = this.#mix;
    uniforms.zLight.value = light;
    uniforms.zBefore.value = before;
    uniforms.zShare.value = share;
    this.#draw(this.#mix, target);
  }

  /** Writes light whose colour is straight into a target as the Sill's own frames hold it, times its share. */
  premultiply(light: THREE.Texture, target: THREE.WebGLRenderTarget): THREE.Texture {
    this.#premultiply.uniforms.zLight.value = light;
    this.#draw(this.#premultiply, target);
    return target.texture;
  }

  dispose(): void {
    this.#mesh.geometry.dispose();
    this.#develop.dispose();
    this.#premultiply.dispose();
    this.#mix.dispose();
    this.#soften.dispose();
  }
}
