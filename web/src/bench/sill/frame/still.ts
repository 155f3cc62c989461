import * as THREE from 'three';
import { SKY } from '../light/sky-name.ts';
import { isSoftware } from '../software.ts';
import { useSill } from '../state.ts';
import { behindNow } from '../traced/behind.ts';
import { MINE, OTHER, type Part } from './drawing.ts';
import { drawn } from './drawn.ts';
import { Gatherer, type View } from './gatherer.ts';
import { Glow } from './glow.ts';
import { Screen } from './screen.ts';

export interface StillOptions {
  edge: number;
  /** Frames whose mean it is; or paths of light from each pixel where it is traced. */
  samples: number;
  isTraced: boolean;
  /** PNG as it is seen, or OpenEXR with the light itself. */
  format: 'png' | 'exr';
  /** How far the shape is turned about its upright axis, in radians. */
  turned: number;
  /** Called with the share that is done, 0…1. */
  onShare(share: number): void;
  signal: AbortSignal;
}

const TILE = 512;
/** Where the processor draws, one path from each pixel of a tile takes a second or two. */
const TRACED_TILE_BY_PROCESSOR = 256;

/** After so many frames the page answers, and says how much is done. */
const PAUSE = 4;
/** The largest number that a half float holds, nearly. */
const MOST_HALF = 65000;

/** What tiles are put together in. */
interface Sheet {
  /** Takes a tile from the mean of its frames. */
  take(mean: THREE.Texture, bloom: THREE.Texture | null, x: number, y: number): Promise<void>;
  file(): Promise<Blob>;
  dispose(): void;
}

/** Codes as they are seen. */
function pngSheet(
  gl: THREE.WebGLRenderer,
  screen: Screen,
  { developing }: View,
  edge: number,
  tile: number,
): Sheet {
  const codes = new THREE.WebGLRenderTarget(tile, tile, { depthBuffer: false });
  const bytes = new Uint8Array(4 * tile * tile);
  const canvas = new OffscreenCanvas(edge, edge);
  const context = canvas.getContext('2d')!;
  return {
    async take(mean, bloom, x, y) {
      const from: [number, number] = [x / edge, 1 - (y + tile) / edge];
      const size: [number, number] = [tile / edge, tile / edge];
      screen.develop(mean, developing, bloom && { texture: bloom, from, size }, codes);
      await gl.readRenderTargetPixelsAsync(codes, 0, 0, tile, tile, bytes);
      const picture = new ImageData(tile, tile);
      // WebGL's rows run upwards.
      for (let row = 0; row < tile; row++)
        picture.data.set(
          bytes.subarray(4 * tile * (tile - 1 - row), 4 * tile * (tile - row)),
          4 * tile * row,
        );
      context.putImageData(picture, x, y);
    },
    file: () => canvas.convertToBlob({ type: 'image/png' }),
    dispose: () => codes.dispose(),
  };
}

/** The light itself, times the exposure. */
function exrSheet(
  gl: THREE.WebGLRenderer,
  screen: Screen,
  { developing }: View,
  edge: number,
  tile: number,
): Sheet {
  const light = new THREE.WebGLRenderTarget(tile, tile, { type: THREE.FloatType, depthBuffer: false });
  const floats = new Float32Array(4 * tile * tile);
  const rgba = new Uint16Array(4 * edge * edge);
  return {
    async take(mean, _bloom, x, y) {
      screen.mix(mean, mean, 1, light);
      await gl.readRenderTargetPixelsAsync(light, 0, 0, tile, tile, floats);
      for (let i = 0; i < floats.length; i++) {
        const row = Math.floor(i / (4 * tile));
        const value = i % 4 === 3 ? floats[i] : Math.min(MOST_HALF, developing.exposure * floats[i]);
        rgba[4 * ((edge - y - tile + row) * edge + x) + (i % (4 * tile))] =
          THREE.DataUtils.toHalfFloat(value);
      }
    },
    file: () => exrOf(rgba, edge),
    dispose: () => light.dispose(),
  };
}

/** Draws the light of one tile after the other. */
interface TileLight {
  /** Begins a tile. */
  begin(part: Part): void;
  /** Draws the k-th of its samples; the light so far. Null while nothing can be drawn yet. */
  sample(k: number): THREE.Texture | null;
  dispose(): void;
}

function gatheredTiles(gl: THREE.WebGLRenderer, screen: Screen, view: View, tile: number, samples: number) {
  const gatherer = new Gatherer(gl, screen, { width: tile, height: tile }, 0);
  let part: Part;
  const light: TileLight = {
    begin(next) {
      part = next;
    },
    sample: (k) => (samples === 1 ? gatherer.draw(view, part) : gatherer.add(view, part, k, samples)),
    dispose: () => gatherer.dispose(),
  };
  return light;
}

async function tracedTiles(
  gl: THREE.WebGLRenderer,
  screen: Screen,
  { scene, camera }: View,
  tile: number,
): Promise<TileLight> {
  const { Tracer } = await import('../traced/tracer.ts');
  const tracer = await Tracer.of(gl, scene, behindNow(), tile);
  const premultiplied = new THREE.WebGLRenderTarget(tile, tile, {
    type: THREE.FloatType,
    depthBuffer: false,
  });
  const looking = camera.clone();
  return {
    begin({ whole, x, y, width, height }) {
      looking.aspect = whole.width / whole.height;
      looking.setViewOffset(whole.width, whole.height, x, y, width, height);
      tracer.begin(looking);
    },
    sample() {
      const light = tracer.more();
      return light && screen.premultiply(light, premultiplied);
    },
    dispose() {
      tracer.dispose();
      premultiplied.dispose();
    },
  };
}

/** Draws a square still in tiles, each the mean of its samples; the same options give the same bytes. Null once stopped. @throws Error in plain words where it cannot be traced. */
export async function takeTiles(
  gl: THREE.WebGLRenderer,
  view: View,
  { edge, samples, isTraced, format, turned, onShare, signal }: StillOptions,
): Promise<Blob | null> {
  const screen = new Screen(gl);
  const most = isTraced && isSoftware(gl.getContext()) ? TRACED_TILE_BY_PROCESSOR : TILE;
  const tile = Math.min(most, edge / 2);
  const sides = { width: tile, height: tile };
  const sheet = (format === 'png' ? pngSheet : exrSheet)(gl, screen, view, edge, tile);
  const count = edge / tile;
  const glow = new Glow(gl, screen);
  const bloom = samples > 1 ? glow.of({ ...view, whole: { width: edge, height: edge } }) : null;
  const sky = view.scene.getObjectByName(SKY);
  const { shape, stillSky } = useSill.getState();
  const isBare = (shape === 'scene' || shape === 'field') && !stillSky;
  const standing = [MINE, OTHER].map((name) => view.scene.getObjectByName(name));
  for (const one of standing) one?.rotateY(turned);
  let light: TileLight | null = null;
  if (sky && isBare) sky.visible = false;
  try {
    light = isTraced
      ? await tracedTiles(gl, screen, view, tile)
      : gatheredTiles(gl, screen, view, tile, samples);
    for (let n = 0; n < count * count; n++) {
      const [x, y] = [(n % count) * tile, Math.floor(n / count) * tile];
      light.begin({ whole: { width: edge, height: edge }, x, y, ...sides });
      let mean: THREE.Texture | null = null;
      for (let k = 0; k < samples; ) {
        mean = light.sample(k);
        if (mean) k++;
        if (mean && !isTraced && k % PAUSE !== 0 && k < samples) continue;
        await drawn(gl);
        if (signal.aborted) return null;
        onShare((n + k / samples) / (count * count));
      }
      await sheet.take(mean!, bloom, x, y);
    }
    return await sheet.file();
  } finally {
    for (const one of standing) one?.rotateY(-turned);
    if (sky) sky.visible = true;
    light?.dispose();
    glow.dispose();
    screen.dispose();
    sheet.dispose();
  }
}

async function exrOf(rgba: Uint16Array<ArrayBuffer>, edge: number): Promise<Blob> {
  const { EXRExporter, ZIP_COMPRESSION } = await import('three/examples/jsm/exporters/EXRExporter.js');
  const picture = new THREE.DataTexture(rgba, edge, edge, THREE.RGBAFormat, THREE.HalfFloatType);
  const bytes = await new EXRExporter().parse(picture, {
    type: THREE.HalfFloatType,
    compression: ZIP_COMPRESSION,
  });
  return new Blob([bytes as Uint8Array<ArrayBuffer>], { type: 'image/x-exr' });
}
