import * as THREE from 'three';
import {
  PathTracingRenderer,
  PathTracingSceneGenerator,
  type PathTracingSceneGeneratorResult,
} from 'three-gpu-pathtracer';
import { BlueNoiseGenerator } from 'three-gpu-pathtracer/src/textures/blueNoise/BlueNoiseGenerator.js';
import { GenerateMeshBVHWorker } from 'three-mesh-bvh/worker';
import type { Size } from '../../floor/geometry.ts';
import type { AroundPicture, Direction } from '../light/around.ts';
import { turned } from '../light/exposure.ts';
import { keyLight } from '../light/key-light.ts';
import { LIT_BY } from '../light/lit-by.ts';
import { numbersFrom } from '../seeded.ts';
import type { Behind } from './behind.ts';
import { type TracedSky, tracedSky } from './sky.ts';
import { freeStanding, standingIn } from './standing.ts';

/** How often light goes on from surface to surface. */
const BOUNCES = 5;
/** Surfaces that let light pass, one behind the other: leaves, panes, ground that fades away. */
const PASSES = 24;
/** Surfaces met after a rough one are taken a little rougher, against single bright pixels. */
const SMOOTHED = 0.15;
/** Half of the angle under which a lamp is seen, in radians. */
const LAMP_RADIUS = 0.02;
/** Rows of samples the path tracer looks up, one for every surface on a path. */
const ROWS = 20;
/** Edge of the pattern by which neighbouring pixels look at other places. */
const PATTERN = 64;
/** So many bytes textures may take, four half floats a pixel. */
const TEXTURE_BYTES = 512e6;
const TEXTURE_EDGES = [2048, 1024, 512, 256];

/** Where neighbouring pixels look, as different from each other as can be (void and cluster, Ulichney 1993); always the same. */
function pattern(): THREE.DataTexture {
  const generator = new BlueNoiseGenerator();
  generator.random = numbersFrom(7);
  generator.size = PATTERN;
  const { data, maxValue } = generator.generate();
  const values = Float32Array.from(data, (value) => value / maxValue);
  const made = new THREE.DataTexture(values, PATTERN, PATTERN, THREE.RedFormat, THREE.FloatType);
  made.needsUpdate = true;
  return made;
}

/** All light comes from the picture of what is all round: what samples lists of lights is left out, which takes most of the time in which the program is made. */
const LEFT_OUT: [string, string][] = [
  ['if( lightsDenom != 0.0 && rand( 5 ) < float( lights.count ) / lightsDenom ) {', '#if 0\nif ( false ) {'],
  ['} else if ( envMapInfo.totalSum != 0.0 && environmentIntensity != 0.0 ) {', '#endif\n{'],
  ['if ( ! state.firstRay && ! state.transmissiveRay ) {', '#if 0\n{'],
  ['if ( hitType == NO_HIT ) {', '#endif\nif ( hitType == NO_HIT ) {'],
];

function shorten(material: THREE.ShaderMaterial): void {
  for (const [was, now] of LEFT_OUT) {
    if (!material.fragmentShader.includes(was)) throw new Error(`The path tracer no longer holds “${was}”.`);
    material.fragmentShader = material.fragmentShader.replace(was, () => now);
  }
}

function texturesOf(materials: readonly THREE.Material[]): THREE.Texture[] {
  const found = new Set<THREE.Texture>();
  for (const material of materials)
    for (const value of Object.values(material)) if ((value as THREE.Texture)?.isTexture) found.add(value);
  return [...found];
}

/** The sky, the sun and the lamps of the Sill as one picture, in the surroundings' own directions. */
function skyNow(): TracedSky {
  const key = keyLight.now;
  const picture = LIT_BY.zAround.value?.image as AroundPicture & { data: Uint16Array<ArrayBuffer> };
  if (!key || !picture) throw new Error('There is no light yet. Try again in a moment.');
  const { x, y } = LIT_BY.zTurned.value;
  const turn = Math.atan2(y, x);
  const inPicture = (towards: Direction) => turned(towards, turn);
  const lamps = key.lamps.map(({ position, color, intensity }) => {
    const { x: a, y: b, z: c } = position.clone().normalize();
    const { r, g, b: blue } = color;
    return {
      towards: inPicture([a, b, c]),
      irradiance: [r, g, blue].map((value) => value * intensity) as Direction,
      radius: LAMP_RADIUS,
    };
  });
  const { width, height, data: rgba } = picture;
  return tracedSky({ width, height, rgba }, LIT_BY.zAmount.value, [
    { ...key.sun, towards: inPicture(key.sun.towards) },
    ...lamps,
  ]);
}

/** A path tracer is kept with its drawing context: its program takes long to be made. */
const kept = new WeakMap<THREE.WebGLRenderer, PathTracingRenderer>();

function tracerOf(gl: THREE.WebGLRenderer): PathTracingRenderer {
  let tracer = kept.get(gl);
  if (!tracer) {
    tracer = new PathTracingRenderer(gl);
    tracer.tiles.set(1, 1);
    tracer.alpha = true;
    tracer.stableNoise = true;
    const { material } = tracer;
    shorten(material);
    material.stratifiedOffsetTexture = pattern();
    material.bounces = BOUNCES;
    material.transmissiveBounces = PASSES;
    material.filterGlossyFactor = SMOOTHED;
    // Dark colours would have too few steps in bytes.
    material.textures.type = THREE.HalfFloatType;
    kept.set(gl, tracer);
  }
  return tracer;
}

/** Edge at which textures fit into their room, no larger than the largest of them. */
function textureEdge(textures: readonly THREE.Texture[]): number {
  const sides = textures.map(({ image }) => image as Size);
  const side = Math.max(...sides.map(({ width, height }) => Math.max(width, height)));
  const fits = (edge: number) => edge <= side && 8 * edge * edge * textures.length <= TEXTURE_BYTES;
  return TEXTURE_EDGES.find(fits) ?? TEXTURE_EDGES[TEXTURE_EDGES.length - 1];
}

/** Follows light along its paths through what stands on the Sill, tile by tile. */
export class Tracer {
  readonly #gl: THREE.WebGLRenderer;
  readonly #tracer: PathTracingRenderer;
  readonly #still: THREE.Scene;
  readonly #geometry: THREE.BufferGeometry;
  readonly #sky: TracedSky;

  private constructor(
    gl: THREE.WebGLRenderer,
    still: THREE.Scene,
    { geometry, bvh, materials }: PathTracingSceneGeneratorResult,
    behind: Behind | null,
    edge: number,
  ) {
    this.#gl = gl;
    this.#still = still;
    this.#geometry = geometry;
    this.#sky = skyNow();
    this.#tracer = tracerOf(gl);
    const { material } = this.#tracer;
    this.#tracer.setSize(edge, edge);
    material.bvh.updateFrom(bvh);
    const { normal, tangent, uv, color, materialIndex } = geometry.attributes as Record<
      string,
      THREE.BufferAttribute
    >;
    material.attributesArray.updateFrom(normal, tangent, uv, color);
    material.materialIndexAttribute.updateFrom(materialIndex);
    const textures = texturesOf(materials);
    const side = textureEdge(textures);
    material.textures.setTextures(gl, textures, side, side);
    material.materials.updateFrom(materials, textures);
    const { x: c, y: s } = LIT_BY.zTurned.value;
    material.environmentRotation.set(c, 0, -s, 0, 0, 1, 0, 0, s, 0, c, 0, 0, 0, 0, 1);
    material.backgroundRotation.copy(material.environmentRotation);
    material.envMapInfo.updateFrom(this.#sky.texture);
    material.environmentIntensity = this.#sky.by;
    material.backgroundMap = LIT_BY.zAround.value;
    material.backgroundAlpha = behind ? 1 : 0;
    material.backgroundBlur = behind?.blur ?? 0;
    material.backgroundIntensity = behind?.strength ?? 0;
  }

  /** Prepares what stands on the Sill now. @throws Error in plain words where it cannot be traced. */
  static async of(
    gl: THREE.WebGLRenderer,
    scene: THREE.Scene,
    behind: Behind | null,
    edge: number,
  ): Promise<Tracer> {
    if (!gl.extensions.has('EXT_color_buffer_float'))
      throw new Error('This graphics card draws no floats, which path tracing takes. Choose frames.');
    const still = standingIn(scene);
    const generator = new PathTracingSceneGenerator(still);
    const worker = new GenerateMeshBVHWorker();
    try {
      generator.setBVHWorker(worker);
      return new Tracer(gl, still, await generator.generateAsync(), behind, edge);
    } finally {
      worker.dispose();
    }
  }

  /** Begins a tile as the camera sees it. */
  begin(camera: THREE.PerspectiveCamera): void {
    camera.updateMatrixWorld();
    this.#tracer.setCamera(camera);
    this.#tracer.reset();
    // Resetting leaves the samples in their order, and the first of them all in one corner: they are shuffled from the same seed.
    const { stratifiedTexture: samples } = this.#tracer.material;
    samples.generator.seed = 0;
    samples.sampler = null;
    samples.init(ROWS, BOUNCES + PASSES + 5);
  }

  /** Follows one more path from every pixel; their mean so far once their number is odd. Null while the program is still being made. */
  more(): THREE.Texture | null {
    this.#tracer.update();
    return this.#tracer.isCompiling ? null : this.#tracer.target.texture;
  }

  dispose(): void {
    const { material } = this.#tracer;
    // The program stays; what takes room does not.
    material.textures.setTextures(this.#gl, [], 1, 1);
    material.backgroundMap = null;
    this.#tracer.setSize(1, 1);
    this.#geometry.dispose();
    this.#sky.texture.dispose();
    freeStanding(this.#still);
  }
}
