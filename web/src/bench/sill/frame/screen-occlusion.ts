import { N8AOPass } from 'n8ao';
import * as THREE from 'three';

/** How far what stands near hides the sky, in units of the scene. */
const REACH = 0.5;
/** What lies further before a place than a fifth of the reach, times this, hides less and less. */
const FALL_OFF = 2.5;
/** The share of the sky that is seen is taken to this power: light that was reflected first is not hidden. */
const POWER = 1.3;

/** Ambient occlusion in screen space (package n8ao): what is seen of a frame hides the sky from what lies near it. */
export class ScreenOcclusion {
  readonly #gl: THREE.WebGLRenderer;
  readonly #pass: N8AOPass;
  #target: THREE.WebGLRenderTarget | null = null;

  constructor(gl: THREE.WebGLRenderer) {
    this.#gl = gl;
    this.#pass = new N8AOPass(new THREE.Scene(), new THREE.PerspectiveCamera(), 1, 1);
    this.#pass.beautyRenderTarget.dispose();
    this.#pass.autoDetectTransparency = false;
    Object.assign(this.#pass.configuration, {
      autoRenderBeauty: false,
      gammaCorrection: false,
      aoRadius: REACH,
      distanceFalloff: FALL_OFF,
      intensity: POWER,
    });
  }

  /** A frame with its depths, darkened where the sky is hidden; the camera looks as it did for the frame. */
  of(frame: THREE.WebGLRenderTarget, camera: THREE.Camera): THREE.Texture {
    const { width, height } = frame;
    this.#pass.beautyRenderTarget = frame;
    if (this.#target?.width !== width || this.#target.height !== height) {
      this.#target?.dispose();
      this.#target = new THREE.WebGLRenderTarget(width, height, {
        type: THREE.HalfFloatType,
        depthBuffer: false,
      });
      this.#pass.setSize(width, height);
    }
    this.#pass.camera = camera;
    this.#pass.render(this.#gl, this.#target);
    this.#gl.setRenderTarget(null);
    return this.#target.texture;
  }

  dispose(): void {
    this.#target?.dispose();
    const { writeTargetInternal, readTargetInternal, accumulationRenderTarget, depthMipAtlas, bluenoise } =
      this.#pass;
    for (const held of [
      writeTargetInternal,
      readTargetInternal,
      accumulationRenderTarget,
      depthMipAtlas,
      bluenoise,
    ])
      held.dispose();
    for (const quad of [
      this.#pass.effectShaderQuad,
      this.#pass.poissonBlurQuad,
      this.#pass.effectCompositerQuad,
    ])
      quad.dispose();
  }
}
