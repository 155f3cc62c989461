import * as THREE from 'three';
import { drawSill, type Part, type Split } from './drawing.ts';
import { betweenPixels, lightFrame } from './gathering.ts';
import type { Developing, Screen } from './screen.ts';
import type { ScreenOcclusion } from './screen-occlusion.ts';

/** What is drawn, and how. */
export interface View {
  scene: THREE.Scene;
  camera: THREE.PerspectiveCamera;
  split: Split | null;
  developing: Developing;
  /** The whole picture in pixels. */
  whole: Part['whole'];
  /** Whether what is seen hides the sky in moving frames, even where that is slow. */
  isAlwaysOccluded: boolean;
}

/** All of a picture so large, as a part of it. */
export const allOf = ({ width, height }: Part['whole']): Part => ({
  whole: { width, height },
  x: 0,
  y: 0,
  width,
  height,
});

/** Targets for one frame and for the mean of many, of one size. */
export class Gatherer {
  readonly #gl: THREE.WebGLRenderer;
  readonly #screen: Screen;
  readonly #frame: THREE.WebGLRenderTarget;
  #means: [THREE.WebGLRenderTarget, THREE.WebGLRenderTarget] | null = null;

  constructor(gl: THREE.WebGLRenderer, screen: Screen, { width, height }: Part['whole'], samples: number) {
    this.#gl = gl;
    this.#screen = screen;
    this.#frame = new THREE.WebGLRenderTarget(width, height, {
      type: THREE.HalfFloatType,
      samples,
      depthTexture: new THREE.DepthTexture(width, height, THREE.UnsignedIntType),
    });
  }

  /** Draws one frame as it is, of all the view or of a part. */
  draw({ scene, camera, split }: View, part?: Part): THREE.Texture {
    drawSill(this.#gl, scene, camera, split, part ?? allOf(this.#frame), this.#frame);
    return this.#frame.texture;
  }

  /** Draws one frame, darkened where what is seen hides the sky. */
  drawOccluded(view: View, occlusion: ScreenOcclusion): THREE.Texture {
    this.draw(view);
    return occlusion.of(this.#frame, view.camera);
  }

  /** Draws the k-th of `count` frames whose mean is the whole light; their mean so far. */
  add(view: View, part: Part, k: number, count: number): THREE.Texture {
    const { width, height } = this.#frame;
    this.#means ??= [0, 1].map(
      () => new THREE.WebGLRenderTarget(width, height, { type: THREE.FloatType, depthBuffer: false }),
    ) as [THREE.WebGLRenderTarget, THREE.WebGLRenderTarget];
    const [x, y] = betweenPixels(k);
    const end = lightFrame(k, count);
    const frame = this.draw(view, { ...part, x: part.x + x, y: part.y + y });
    end();
    const [before, after] = k % 2 === 0 ? this.#means : [this.#means[1], this.#means[0]];
    this.#screen.mix(frame, before.texture, 1 / (k + 1), after);
    return after.texture;
  }

  dispose(): void {
    this.#frame.depthTexture?.dispose();
    this.#frame.dispose();
    for (const mean of this.#means ?? []) mean.dispose();
  }
}
