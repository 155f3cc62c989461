import { leastSquares } from '../../../algebra/least-squares.ts';
import { dot, lengthOf, scaled, type Vector3 } from '../../../algebra/vectors.ts';
import { Problem } from '../../../problem.ts';
import { percentiles } from '../../../statistics/statistics.ts';
import { type Homography, movedTo } from './homography.ts';
import type { LightVector } from './light.ts';

/** A ball in the frame of the first shot: its middle and radius in shares of the longer edge, from the upper left corner. */
export interface Ball {
  x: number;
  y: number;
  radius: number;
}

/** Of the radius: nearer to the outline the surface is seen too flat. */
const INNER = 0.92;
/** A ball whose brightest hundredth is so many times as bright as its lit part is shiny. */
const SHINY = 2.2;
/** Pixels that are brighter than this percentile of the ball are its highlight. */
const HIGHLIGHT = 99.5;
/** Below this share of the brightest a matte ball lies in its own shadow. */
const LIT = 0.15;
const LEAST_PIXELS = 80;
const ROUNDS = 3;
const TOWARDS_EYE: Vector3 = [0, 0, 1];

/** Where light falls on a ball from, by one shot of it: from the highlight of a shiny one, from the shading of a matte one. A unit vector. */
function lightOnBall(normals: Vector3[], values: Float64Array): LightVector {
  const [usual, bright, brightest] = percentiles(values, [75, 98, HIGHLIGHT]);
  const isShiny = brightest > SHINY * Math.max(usual, 1e-6) && bright < 0.75 * brightest;
  if (isShiny) {
    const middle: Vector3 = [0, 0, 0];
    for (const [n, normal] of normals.entries()) {
      if (values[n] < brightest) continue;
      for (let c = 0; c < 3; c++) middle[c] += normal[c];
    }
    const normal = scaled(middle, 1 / lengthOf(middle));
    const towards = 2 * dot(normal, TOWARDS_EYE);
    return [towards * normal[0], towards * normal[1], towards * normal[2] - 1];
  }
  let fit = normals.map((_, n) => (values[n] > LIT * bright ? 1 : 0));
  let light: Vector3 = [0, 0, 1];
  for (let round = 0; round < ROUNDS; round++) {
    // The fourth is light from everywhere.
    const [x, y, z] = leastSquares(
      normals.map((normal) => [...normal, 1]),
      [...values],
      fit,
    );
    light = [x, y, z];
    const size = lengthOf(light);
    fit = normals.map((normal, n) => (dot(normal, light) > LIT * size && values[n] <= brightest ? 1 : 0));
  }
  return scaled(light, 1 / lengthOf(light));
}

/** Brightness of a ball in one shot by the normal of each of its pixels. */
function seenBall(shot: Float32Array, width: number, [cx, cy]: readonly [number, number], r: number) {
  const normals: Vector3[] = [];
  const values: number[] = [];
  for (let y = Math.ceil(cy - r); y <= cy + r; y++) {
    for (let x = Math.ceil(cx - r); x <= cx + r; x++) {
      const [u, v] = [(x - cx) / r, (cy - y) / r];
      const square = u * u + v * v;
      if (square > INNER * INNER) continue;
      normals.push([u, v, Math.sqrt(1 - square)]);
      values.push(shot[y * width + x]);
    }
  }
  return { normals, values: Float64Array.from(values) };
}

/**
 * The directions of the lights from a ball in the frame, one for each shot. `shots` are linear luminance of the same sides, `homographies` say where
 * each shows what the first shows. @throws Problem `ball_cut` where the ball does not lie in the frame whole, `ball_small` where it has too few pixels.
 */
export function lightsFromBall(
  shots: readonly Float32Array[],
  homographies: readonly Homography[],
  width: number,
  height: number,
  ball: Ball,
): LightVector[] {
  const longer = Math.max(width, height);
  const r = ball.radius * longer;
  const middle = [ball.x - width / longer / 2, ball.y - height / longer / 2] as const;
  return shots.map((shot, k) => {
    const [u, v] = movedTo(homographies[k], ...middle);
    const [cx, cy] = [u * longer + width / 2 - 0.5, v * longer + height / 2 - 0.5];
    if (cx < r || cy < r || cx + r > width - 1 || cy + r > height - 1) {
      throw new Problem(
        'ball_cut',
        `The ball is cut by the edge of ${k === 0 ? 'the photo' : `shot ${k + 1}`}.`,
        'Mark a ball that lies in all shots whole, or set the directions on the discs.',
      );
    }
    const { normals, values } = seenBall(shot, width, [cx, cy], r);
    if (normals.length < LEAST_PIXELS) {
      throw new Problem(
        'ball_small',
        'The ball is too small to read light from.',
        'Mark its outline again, or set the directions on the discs.',
      );
    }
    return lightOnBall(normals, values);
  });
}
