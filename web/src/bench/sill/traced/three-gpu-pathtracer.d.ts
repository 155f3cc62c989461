import type * as THREE from 'three';

/** What the package exports without types of its own, as far as it is used. */
declare module 'three-gpu-pathtracer' {
  interface PathTracingMaterial extends THREE.ShaderMaterial {
    setDefine(name: string, value: number): void;
    bvh: { updateFrom(bvh: unknown): void };
    attributesArray: { updateFrom(...attributes: THREE.BufferAttribute[]): void };
    materialIndexAttribute: { updateFrom(attribute: THREE.BufferAttribute): void };
    textures: THREE.Texture & {
      setTextures(gl: THREE.WebGLRenderer, textures: THREE.Texture[], width: number, height: number): void;
    };
    materials: { updateFrom(materials: THREE.Material[], textures: THREE.Texture[]): void };
    envMapInfo: { updateFrom(picture: THREE.DataTexture): void };
    stratifiedOffsetTexture: THREE.Texture;
    stratifiedTexture: {
      generator: { seed: number };
      sampler: unknown;
      init(rows: number, columns: number): void;
    };
    bounces: number;
    transmissiveBounces: number;
    filterGlossyFactor: number;
    environmentIntensity: number;
    environmentRotation: THREE.Matrix4;
    backgroundMap: THREE.Texture | null;
    backgroundAlpha: number;
    backgroundBlur: number;
    backgroundIntensity: number;
    backgroundRotation: THREE.Matrix4;
  }

  export class PathTracingRenderer {
    constructor(gl: THREE.WebGLRenderer);
    readonly material: PathTracingMaterial;
    readonly target: THREE.WebGLRenderTarget;
    readonly isCompiling: boolean;
    readonly tiles: THREE.Vector2;
    samples: number;
    alpha: boolean;
    stableNoise: boolean;
    setCamera(camera: THREE.Camera): void;
    setSize(width: number, height: number): void;
    update(): void;
    reset(): void;
    dispose(): void;
  }
}
