import * as THREE from 'three';
import { LIT_BY } from '../light/lit-by.ts';
import { SKY } from '../light/sky-name.ts';
import { drawSill } from './drawing.ts';
import type { View } from './gatherer.ts';
import type { Screen } from './screen.ts';

/** Longest side of the picture of what glows: its bloom is soft. */
const MOST = 512;
/** How often it is halved on the way to the widest bloom. */
const HALVES = 5;

/** Whether anything in the scene gives off light of its own. */
function glows(scene: THREE.Scene): boolean {
  let found = false;
  scene.traverseVisible((object) => {
    const material = (object as THREE.Mesh).material as THREE.MeshPhysicalMaterial | undefined;
    if (material?.emissive && material.emissiveIntensity > 0 && material.emissive.getHex() !== 0)
      found = true;
  });
  return found;
}

/** The bloom about what gives off light, and about nothing else: its picture halved again and again, and put together from the widest on (Jimenez 2014). */
export class Glow {
  readonly #gl: THREE.WebGLRenderer;
  readonly #screen: Screen;
  #levels: THREE.WebGLRenderTarget[] = [];

  constructor(gl: THREE.WebGLRenderer, screen: Screen) {
    this.#gl = gl;
    this.#screen = screen;
  }

  #sized({ width, height }: View['whole']): THREE.WebGLRenderTarget[] {
    const by = Math.min(1, MOST / Math.max(width, height));
    const [w, h] = [Math.max(16, Math.round(width * by)), Math.max(16, Math.round(height * by))];
    if (this.#levels[0]?.width !== w || this.#levels[0].height !== h) {
      this.dispose();
      this.#levels = Array.from(
        { length: HALVES + 1 },
        (_, k) =>
          new THREE.WebGLRenderTarget(Math.max(2, w >> k), Math.max(2, h >> k), {
            type: THREE.HalfFloatType,
            depthBuffer: k === 0,
          }),
      );
    }
    return this.#levels;
  }

  /** The bloom of all of a view's picture; null where nothing glows. */
  of({ scene, camera, split, whole, developing }: View): THREE.Texture | null {
    if (!developing.hasGlow || !glows(scene)) return null;
    const levels = this.#sized(whole);
    const [first] = levels;
    const sky = scene.getObjectByName(SKY);
    const shadows = this.#gl.shadowMap.autoUpdate;
    if (sky) sky.visible = false;
    this.#gl.shadowMap.autoUpdate = false;
    LIT_BY.zGlowAlone.value = 1;
    const small = { width: first.width, height: first.height };
    drawSill(this.#gl, scene, camera, split, { whole: small, x: 0, y: 0, ...small }, first);
    LIT_BY.zGlowAlone.value = 0;
    this.#gl.shadowMap.autoUpdate = shadows;
    if (sky) sky.visible = true;
    for (let k = 1; k < levels.length; k++) this.#screen.soften(levels[k - 1].texture, levels[k], false);
    for (let k = levels.length - 1; k > 0; k--) this.#screen.soften(levels[k].texture, levels[k - 1], k > 1);
    return first.texture;
  }

  dispose(): void {
    for (const level of this.#levels) level.dispose();
    this.#levels = [];
  }
}
