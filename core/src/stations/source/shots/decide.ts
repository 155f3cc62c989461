import { symmetricEigen } from '../../../algebra/symmetric.ts';
import { lengthOf, scaled } from '../../../algebra/vectors.ts';
import type { Pixels } from '../../../pixels/pixels.ts';
import { luminance } from '../../../planes/luminance.ts';
import { Problem } from '../../../problem.ts';
import { Raster } from '../../../raster/raster.ts';
import { heldSides } from '../../../raster/sides.ts';
import { resizeArea } from '../../../sampling/resize.ts';
import type { WorkContext } from '../../../team/context.ts';
import { runSteps } from '../../../work/steps.ts';
import { type Ball, lightsFromBall } from './ball.ts';
import type { ShotsDecision } from './decision.ts';
import { seenAt, slopesOf } from './enhanced-correlation.ts';
import { farthestMove, type Homography } from './homography.ts';
import { leftOver } from './left-over.ts';
import { type LightDirection, type LightVector, vectorOf } from './light.ts';
import { linearShot } from './linear.ts';
import { raisedSign } from './raised.ts';
import { register } from './register.ts';
import { type Stack, samplesOf } from './sampled.ts';
import type { LightsFrom } from './settings.ts';
import { lightsOf } from './strengths.ts';
import { unknownLights } from './unknown.ts';

/** What is chosen of the lights. */
export interface LightsChosen {
  lightsFrom: LightsFrom;
  lightDirections: readonly (LightDirection | null)[];
  ball: Ball | null;
  isInverted: boolean;
  /** The pictures beside the first, by their content. */
  shots: readonly { sha256: string }[];
}

/** Longer edge of the pictures from which lights are found. */
const STACK_EDGE = 320;
/** In pixels of the working size: what moved less lies still. */
const STILL = 0.1;
/** Shots that correlate less than this with what the others let expect were taken from another place: their parts lie apart. */
const SHIFTED = 0.7;
/** Shots that correlate less are of something else. */
const STRANGE = 0.4;
/** Lights that tell of the third direction less than this share of what they tell in all lie on one side. */
const ONE_SIDED = 0.02;
/** Pictures closer than this, on average in shares, are one and the same. */
const SAME = 0.004;

const refuse = (code: string, message: string, hint: string): never => {
  throw new Problem(code, message, hint);
};

/** Luminance of each shot where the first shows it, small; below 0 where it is clipped or not seen. */
function stackOf(
  shots: readonly Float32Array[],
  clipped: readonly Uint8Array[],
  homographies: readonly Homography[],
  width: number,
  height: number,
): Stack {
  const sides = heldSides({ width, height }, STACK_EDGE);
  const longer = Math.max(width, height);
  const points = {
    u: new Float64Array(sides.width * sides.height),
    v: new Float64Array(sides.width * sides.height),
  };
  for (let i = 0; i < points.u.length; i++) {
    points.u[i] = (((i % sides.width) + 0.5) / sides.width - 0.5) * (width / longer);
    points.v[i] = ((Math.floor(i / sides.width) + 0.5) / sides.height - 0.5) * (height / longer);
  }
  const planes = shots.map((shot, k) => {
    // A pixel that holds anything clipped is of no use.
    const small = [shot, Float32Array.from(clipped[k])].map(
      (plane) => resizeArea(new Raster(width, height, [plane]), sides.width, sides.height).planes[0],
    );
    const [values, lost] = small.map((plane) =>
      seenAt(points, slopesOf(plane, sides.width, sides.height), homographies[k]),
    );
    return Float32Array.from(values, (value, i) => (lost[i] > 0.02 ? -1 : value));
  });
  return { planes, ...sides };
}

/** @throws Problem where two shots are one and the same. */
function checkDifferent(shots: readonly Float32Array[]): void {
  for (let a = 0; a < shots.length; a++) {
    for (let b = a + 1; b < shots.length; b++) {
      let [apart, sum] = [0, 0];
      for (let i = 0; i < shots[a].length; i += 7) {
        apart += Math.abs(shots[a][i] - shots[b][i]);
        sum += shots[a][i] + shots[b][i];
      }
      if (apart < SAME * sum) {
        refuse(
          'same_shot',
          `Shots ${a + 1} and ${b + 1} are the same picture.`,
          'Remove one, or take it again in other light.',
        );
      }
    }
  }
}

/** Whether lights tell three directions apart. */
function tellSides(lights: readonly LightVector[]): boolean {
  const units = lights.map((light) => scaled(light, 1 / lengthOf(light)));
  const gram = [0, 1, 2].map((i) =>
    [0, 1, 2].map((j) => units.reduce((sum, one) => sum + one[i] * one[j], 0)),
  );
  return symmetricEigen(gram).values[2] >= ONE_SIDED * lights.length;
}

/** The directions of the lights, as chosen. */
function directionsOf(
  chosen: LightsChosen,
  shots: readonly Float32Array[],
  homographies: readonly Homography[],
  width: number,
  height: number,
): LightVector[] {
  if (chosen.lightsFrom === 'ball') {
    if (chosen.ball) return lightsFromBall(shots, homographies, width, height, chosen.ball);
    return refuse(
      'no_ball',
      'No ball is marked yet.',
      'Mark the ball on the Floor: drag from its middle to its edge.',
    );
  }
  return shots.map((_, k) => {
    const direction = chosen.lightDirections[k];
    if (direction) return vectorOf(direction);
    return refuse(
      'no_direction',
      `The light of shot ${k + 1} has no direction yet.`,
      'Set it on its disc, or have the directions found.',
    );
  });
}

/** How the shots lie on the first; kept for every choice of the lights. */
async function registered(
  colours: readonly Float32Array[][],
  shots: readonly Float32Array[],
  width: number,
  height: number,
  { checkpoint }: WorkContext,
) {
  const fits = await runSteps(register(colours, width, height), checkpoint);
  const homographies = fits.map(({ homography }) => homography);
  if (shots.length < 4) return fits.map(({ homography }) => placed(homography, width, height, 0));
  const left = await runSteps(leftOver(shots, homographies, width, height), checkpoint);
  // The others look less alike for the one that is strange, but it is the worst.
  const worst = fits.reduce(
    (least, { correlation }, k) => (correlation < fits[least].correlation ? k : least),
    0,
  );
  if (fits[worst].correlation < STRANGE) {
    refuse('strange_shot', `Shot ${worst + 1} does not show the surface that the others show.`, 'Remove it.');
  }
  if (fits[worst].correlation < SHIFTED) {
    refuse(
      'moved_camera',
      `Shot ${worst + 1} was taken from another place: parts of it are still off after it was aligned.`,
      'Remove it, or take all shots from a tripod.',
    );
  }
  return fits.map(({ homography }, k) => placed(homography, width, height, left[k]));
}

/** Where a shot lies, and how far from where the first does. */
function placed(homography: Homography, width: number, height: number, left: number) {
  const moved = farthestMove(homography, width, height);
  return { homography, moved, isStill: moved * Math.max(width, height) < STILL, left };
}

async function settled(
  shots: readonly Pixels[],
  chosen: LightsChosen,
  isLinear: boolean,
  context: WorkContext,
): Promise<ShotsDecision> {
  const [{ width, height }] = shots;
  const other = shots.findIndex((shot) => shot.width !== width || shot.height !== height);
  if (other >= 0) {
    refuse(
      'other_size',
      `Shot ${other + 1} is ${shots[other].originalWidth} × ${shots[other].originalHeight}, the first ${shots[0].originalWidth} × ${shots[0].originalHeight}.`,
      'Use shots of one camera, turned the same way.',
    );
  }
  if (shots.length < 3) {
    refuse(
      'few_shots',
      'Two shots do not tell normals.',
      'Add a third in other light; four and more are better.',
    );
  }
  if (shots.length < 4 && chosen.lightsFrom === 'found') {
    refuse(
      'few_shots',
      'With three shots the directions of the light cannot be found.',
      'Set them on the discs, mark a ball, or add shots.',
    );
  }
  const linear = shots.map((shot) => linearShot(shot, isLinear));
  const planes = linear.map(({ planes: rgb }) => luminance(new Raster(width, height, rgb)));
  checkDifferent(planes);
  const places = await context.part('shots', [chosen.shots.map(({ sha256 }) => sha256), isLinear], () =>
    registered(
      linear.map((shot) => shot.planes),
      planes,
      width,
      height,
      context,
    ),
  );
  const homographies = places.map(({ homography }) => homography);
  const stack = stackOf(
    planes,
    linear.map(({ clipped }) => clipped),
    homographies,
    width,
    height,
  );
  let beyond: number | null = null;
  let lights: { vectors: LightVector[]; ambient: number };
  const samples = samplesOf(stack, false);
  if (samples.count < 200) {
    refuse(
      'clipped',
      'Hardly any part of the shots is clipped in none of them.',
      'Use shots with less exposure.',
    );
  }
  if (chosen.lightsFrom === 'found') {
    const found = unknownLights(stack);
    beyond = found.beyond;
    const sign = raisedSign(stack, found.lights) * (chosen.isInverted ? -1 : 1);
    lights = {
      vectors: found.lights.map(([x, y, z]): LightVector => [sign * x, sign * y, z]),
      ambient: 0,
    };
  } else {
    const directions = directionsOf(chosen, planes, homographies, width, height);
    if (!tellSides(directions)) {
      refuse(
        'one_sided',
        'The light of all shots comes from nearly one side, so their slopes cannot be told apart.',
        'Use shots lit from three sides or more, or correct the directions.',
      );
    }
    lights = lightsOf(samples, directions);
  }
  if (chosen.lightsFrom === 'found' && !tellSides(lights.vectors)) {
    refuse(
      'not_found',
      'The directions of the light could not be found from these shots.',
      'Set them on the discs, mark a ball, or add shots lit from other sides.',
    );
  }
  return {
    shots: places.map(({ homography, moved, isStill, left }, k) => ({
      homography: isStill ? null : [...homography],
      moved,
      left,
      light: lights.vectors[k],
    })),
    ambient: lights.ambient,
    beyond,
    refused: null,
  };
}

/** Settles how several shots lie on each other and what lit them; why not, where that cannot be. */
export async function decideShots(
  shots: readonly Pixels[],
  chosen: LightsChosen,
  isLinear: boolean,
  context: WorkContext,
): Promise<ShotsDecision> {
  try {
    return await settled(shots, chosen, isLinear, context);
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    const { code, message, hint } = error;
    return { shots: [], ambient: 0, beyond: null, refused: { code, message, hint } };
  }
}
