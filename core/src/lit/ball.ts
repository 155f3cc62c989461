import { TORUS } from '../raster/edges.ts';
import { Raster } from '../raster/raster.ts';
import { resizeArea } from '../sampling/resize.ts';
import { sampleBilinear } from '../sampling/sample.ts';
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
const SUN: Triple = unit([-0.55, 0.6, 0.75]);
const SUN_STRENGTH = 1.35;
const SKY = 0.55;
const GROUND = 0.22;
const BACK: [number, number] = [0.27, 0.115];
/** Radius of the ball in a view that reaches from −1 to 1. */
const RADIUS = 0.66;

/** Light from all sides for a direction: brighter from above. */
const around = (y: number): number => GROUND + (SKY - GROUND) * (0.5 + 0.5 * y);

/**
 * A ball under the maps, lit by one sun from the upper left and by soft light from above, seen from in
 * front: linear RGB, `size` × `size`, over a grey ground. For lists and sheets, where no graphics card is
 * asked for.
 */
export function litBall(maps: LitMaps, size: number): Raster {
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
  const out = new Raster(
    size,
    size,
    [0, 1, 2].map(() => new Float32Array(size * size)),
  );
  const at = (raster: Raster, plane: number, x: number, y: number) =>
    sampleBilinear(raster.planes[plane], wide, high, x, y, TORUS);
  const view: Triple = [0, 0, 1];
  const shade = (px: number, py: number): Triple | null => {
    const r2 = px * px + py * py;
    if (r2 >= 1) return null;
    const n: Triple = [px, py, Math.sqrt(1 - r2)];
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
    const bounceY = 2 * nv * bent[1];
    return [0, 1, 2].map(
      (c) => SUN_STRENGTH * sun[c] + seen * (diffuse[c] * around(bent[1]) + shine[c] * around(bounceY)),
    ) as Triple;
  };
  for (let j = 0; j < size; j++) {
    const ground = BACK[0] + (BACK[1] - BACK[0]) * (j / size);
    for (let i = 0; i < size; i++) {
      const sum: Triple = [0, 0, 0];
      for (const dy of SAMPLES) {
        for (const dx of SAMPLES) {
          const px = ((2 * (i + 0.5 + dx)) / size - 1) / RADIUS;
          const py = (1 - (2 * (j + 0.5 + dy)) / size) / RADIUS;
          const lit = shade(px, py);
          for (let c = 0; c < 3; c++) sum[c] += lit ? lit[c] : ground;
        }
      }
      for (let c = 0; c < 3; c++) out.planes[c][j * size + i] = sum[c] / SAMPLES.length ** 2;
    }
  }
  return out;
}
