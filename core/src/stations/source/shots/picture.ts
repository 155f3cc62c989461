import { luminance } from '../../../planes/luminance.ts';
import { mean } from '../../../statistics/statistics.ts';
import type { WorkContext } from '../../../team/context.ts';
import type { GivenRefs } from '../../../tile/given.ts';
import { isLinear, linearise, type ReadsAs } from '../linearise.ts';
import type { SourceInput, SourceOutput } from '../output.ts';
import type { ShotsDecision } from './decision.ts';
import { solveShots } from './solve-shots.ts';

interface Chosen {
  reads: ReadsAs;
  given: GivenRefs;
  givenGreen: 'up' | 'down';
  lampDistance: number;
}

/** Albedo above this is no surface; a picture is made darker as a whole rather than cut. */
const BRIGHTEST = 0.98;

/**
 * The picture that several shots come to: albedo as bright on the whole as the first shot shows it, and normals as if they had been supplied with
 * it. A normal map that really was supplied stands before them.
 */
export async function pictureOfShots(
  input: SourceInput,
  chosen: Chosen,
  decided: ShotsDecision,
  { team, checkpoint }: WorkContext,
): Promise<SourceOutput> {
  const shots = [input.pixels, ...input.shots];
  const reads = isLinear(input.pixels.data instanceof Float32Array, chosen.reads);
  const solved = await solveShots(
    shots,
    decided.shots.map(({ homography }) => homography),
    {
      vectors: decided.shots.map(({ light }) => light),
      ambient: decided.ambient,
      distance: chosen.lampDistance,
    },
    reads,
    { team, checkpoint },
  );
  const { albedo, normal, residual, unsolved } = solved;
  const first = linearise(input, chosen, team);
  const seen = mean(luminance(first.picture));
  team.give(...first.picture.planes);
  const made = mean(luminance(albedo));
  const scale = made > 0 ? seen / made : 1;
  for (const plane of albedo.planes) {
    for (let i = 0; i < plane.length; i++) plane[i] = Math.min(BRIGHTEST, plane[i] * scale);
  }
  const { alpha, given, originalWidth, originalHeight } = first;
  return {
    picture: albedo,
    alpha,
    given: { normal, ...given },
    shots: { residual, unsolved },
    originalWidth,
    originalHeight,
  };
}
