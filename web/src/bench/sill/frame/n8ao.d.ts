declare module 'n8ao' {
  import type { Camera, Scene, Texture, WebGLRenderer, WebGLRenderTarget } from 'three';

  interface Disposable {
    dispose(): void;
  }

  /** What the Sill uses of the package, which has no types of its own. */
  export class N8AOPass {
    constructor(scene: Scene, camera: Camera, width: number, height: number);
    camera: Camera;
    beautyRenderTarget: WebGLRenderTarget;
    autoDetectTransparency: boolean;
    readonly writeTargetInternal: WebGLRenderTarget;
    readonly readTargetInternal: WebGLRenderTarget;
    readonly accumulationRenderTarget: WebGLRenderTarget;
    readonly depthMipAtlas: Disposable;
    readonly bluenoise: Texture;
    readonly effectShaderQuad: Disposable;
    readonly poissonBlurQuad: Disposable;
    readonly effectCompositerQuad: Disposable;
    configuration: {
      aoRadius: number;
      distanceFalloff: number;
      intensity: number;
      gammaCorrection: boolean;
      autoRenderBeauty: boolean;
    };
    setSize(width: number, height: number): void;
    render(renderer: WebGLRenderer, target: WebGLRenderTarget): void;
  }
}
