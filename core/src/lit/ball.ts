import { TORUS } from '../raster/edges.ts';
import { Raster } from '../raster/raster.ts';
import { resizeArea } from '../sampling/resize.ts';
import { sampleBilinear } from '../sampling/sample.ts';
import { irradianceAt, irradianceHarmonics } from './around/harmonics.ts';
import { BLURRED_AT, blurredPanorama, mirroredAt } from './around/mirrored.ts';
import { mix, smooth } from './around/mixing.ts';
import { type Panorama, panoramaOf } from './around/panorama.ts';
import { placeUnder } from './around/places.ts';
import { dot, mirrored, reflected, type Triple, unit } from './shade.ts';

/** The maps of a tile that light falls on. All of one size. */
export interface LitMaps {
  albedo: Raster;
  /** Unit vectors; y as `green` says. */
  normal: Raster;
  roughness: Float32Array;
  occlusion: Float32Array | null;
  /** F0 of what is not metal, and how metallic it is: one value, or one each pixel. */
  f0: Triple | Raster;
  metallic: number | Float32Array;
  /** +1 where the normals' y points up in the picture. */
  green: 1 | -1;
}

/** How often the tile goes round the ball. */
const ROUND = 4;
const SAMPLES = [-0.25, 0.25];
/** Towards the sun from the upper left; y up, z towards the viewer. */
const SUN: Triple = unit([-0.55, 0.6, 0.62]);
const SUN_IRRADIANCE = 2.6;
/** Half of the angle the sun is seen under, in radians: as a broad lamp. */
const SUN_RADIUS = 0.05;
const BACK: [number, number] = [0.27, 0.115];
/** Radius of the ball in a view that reaches from −1 to 1. */
const RADIUS = 0.66;
/** The viewer looks down by so much, in radians. */
const TILT = 0.2;
const [UP, TO_VIEWER]: Triple[] = [
  [0, Math.cos(TILT), -Math.sin(TILT)],
  [0, Math.sin(TILT), Math.cos(TILT)],
];
/** The ground under the ball: its reflectance, and from where on it fades into the background, in radii. */
const GROUND = 0.3;
const WHOLE = 1.6;
const GONE = 4.4;
/** Exposure is metered on a surface that leans half way to the viewer, as on the Sill. */
const CARD: Triple = [0, Math.SQRT1_2, Math.SQRT1_2];
const PANORAMA = 64;

interface Room {
  harmonics: Triple[];
  blurred: Panorama[];
  exposure: number;
}

let room: Room | null = null;

/** A white room with two broad lamps, made once. */
function roomOnce(): Room {
  if (room) return room;
  const panorama = panoramaOf(placeUnder('studio', SUN).radiance, PANORAMA);
  const harmonics = irradianceHarmonics(panorama);
  const card = irradianceAt(harmonics, CARD)[1] + SUN_IRRADIANCE * dot(SUN, CARD);
  room = {
    harmonics,
    blurred: BLURRED_AT.map((roughness) => blurredPanorama(panorama, roughness, PANORAMA)),
    exposure: Math.PI / card,
  };
  return room;
}

/** Share of the sun's disc that the ball leaves to be seen from a place, whose shadow is softer the farther it falls. */
function sunSeen(place: Triple): number {
  const along = dot(place, SUN);
  if (along >= 0) return 1;
  const apart = Math.hypot(...place.map((value, c) => value - along * SUN[c])) - 1;
  return smooth(-SUN_RADIUS * -along, SUN_RADIUS * -along, apart);
}

/**
 * Share of an even sky that the ball leaves to level ground: one less the form factor of a sphere that is above the ground
 * as a whole (Hamilton & Morgan 1952).
 */
function skySeen(place: Triple): number {
  const distance = Math.hypot(...place);
  return Math.max(0, 1 + place[1] / distance ** 3);
}

/** Light from level ground beneath the ball towards the viewer, and how much of it is there; null beyond its end. */
function groundAt(place: Triple, { harmonics, exposure }: Room): { light: Triple; share: number } | null {
  const share = 1 - smooth(WHOLE, GONE, Math.hypot(place[0], place[2]));
  if (share <= 0) return null;
  const around = irradianceAt(harmonics, [0, 1, 0]);
  const sun = SUN_IRRADIANCE * SUN[1] * sunSeen(place);
  const seen = skySeen(place);
  const light = around.map((value) => (exposure * GROUND * (seen * value + sun)) / Math.PI) as Triple;
  return { light, share };
}

/** Light from the ball at a place of the view, in its radii; null beside it. */
function shading(maps: LitMaps, size: number, lit: Room): (px: number, py: number) => Triple | null {
  const { width, height } = maps.albedo;
  const small = Math.min(Math.max(width, height), 2 ** Math.round(Math.log2(size / 1.5)));
  const scale = small / Math.max(width, height);
  const [wide, high] = [Math.max(1, Math.round(width * scale)), Math.max(1, Math.round(height * scale))];
  const down = (planes: Float32Array[]) => resizeArea(new Raster(width, height, planes), wide, high);
  const albedo = down(maps.albedo.planes);
  const normal = down(maps.normal.planes);
  const plane = (of: number | Float32Array | null, otherwise: number) =>
    of instanceof Float32Array ? of : new Float32Array(maps.roughness.length).fill(of ?? otherwise);
  const { f0: given } = maps;
  const data = down([
    maps.roughness,
    plane(maps.occlusion, 1),
    plane(maps.metallic, 0),
    ...[0, 1, 2].map((c) => plane(Array.isArray(given) ? given[c] : given.planes[c], 0)),
  ]);
  const { green } = maps;
  const at = (raster: Raster, plane: number, x: number, y: number) =>
    sampleBilinear(raster.planes[plane], wide, high, x, y, TORUS);
  const view = TO_VIEWER;
  return (px, py) => {
    const r2 = px * px + py * py;
    if (r2 >= 1) return null;
    const pz = Math.sqrt(1 - r2);
    const n: Triple = [px, py * UP[1] + pz * view[1], py * UP[2] + pz * view[2]];
    const east = unit([n[2], 0, -n[0]]);
    const north: Triple = [
      n[1] * east[2] - n[2] * east[1],
      n[2] * east[0] - n[0] * east[2],
      n[0] * east[1] - n[1] * east[0],
    ];
    const x = (Math.atan2(n[0], n[2]) / (2 * Math.PI)) * ROUND * small - 0.5;
    const y = (-Math.asin(n[1]) / (2 * Math.PI)) * ROUND * small - 0.5;
    const t: Triple = [at(normal, 0, x, y), at(normal, 1, x, y) * green, at(normal, 2, x, y)];
    const bent = unit([0, 1, 2].map((c) => east[c] * t[0] + north[c] * t[1] + n[c] * t[2]) as Triple);
    const colour = [0, 1, 2].map((c) => at(albedo, c, x, y)) as Triple;
    const roughness = at(data, 0, x, y);
    const seen = at(data, 1, x, y);
    const metallic = at(data, 2, x, y);
    const diffuse = colour.map((v) => v * (1 - metallic)) as Triple;
    const f0 = colour.map((v, c) => at(data, 3 + c, x, y) * (1 - metallic) + v * metallic) as Triple;
    const sun = reflected(bent, view, SUN, diffuse, f0, roughness);
    const nv = Math.max(0.02, dot(bent, view));
    const shine = mirrored(nv, f0, roughness);
    const along = 2 * dot(bent, view);
    const bounced = unit(bent.map((value, c) => along * value - view[c]) as Triple);
    const gloss = mirroredAt(lit.blurred, bounced, roughness);
    const soft = irradianceAt(lit.harmonics, bent);
    return [0, 1, 2].map(
      (c) =>
        (lit.exposure / Math.PI) *
        (SUN_IRRADIANCE * sun[c] + seen * (diffuse[c] * soft[c] + Math.PI * shine[c] * gloss[c])),
    ) as Triple;
  };
}

/** Light from beside the ball: of the ground where a look meets it, before a grey background. */
function beside(px: number, py: number, back: number, lit: Room): Triple {
  const far = (py * UP[1] + 1) / TO_VIEWER[1];
  const ground = groundAt([px, -1, py * UP[2] - far * TO_VIEWER[2]], lit);
  return [0, 1, 2].map((c) => (ground ? mix(back, ground.light[c], ground.share) : back)) as Triple;
}

/**
 * A ball under the maps in a white room, lit by one sun from the upper left and by two broad lamps, on level ground that
 * takes its shadow, seen a little from above: linear RGB, `size` × `size`. For lists and sheets, where no graphics card
 * is asked for.
 */
export function litBall(maps: LitMaps, size: number): Raster {
  const lit = roomOnce();
  const shade = shading(maps, size, lit);
  const out = new Raster(
    size,
    size,
    [0, 1, 2].map(() => new Float32Array(size * size)),
  );
  for (let j = 0; j < size; j++) {
    const back = BACK[0] + (BACK[1] - BACK[0]) * (j / size);
    for (let i = 0; i < size; i++) {
      const sum: Triple = [0, 0, 0];
      for (const dy of SAMPLES) {
        for (const dx of SAMPLES) {
          const px = ((2 * (i + 0.5 + dx)) / size - 1) / RADIUS;
          const py = (1 - (2 * (j + 0.5 + dy)) / size) / RADIUS;
          const seen = shade(px, py) ?? beside(px, py, back, lit);
          for (let c = 0; c < 3; c++) sum[c] += seen[c];
        }
      }
      for (let c = 0; c < 3; c++) out.planes[c][j * size + i] = sum[c] / SAMPLES.length ** 2;
    }
  }
  return out;
}
