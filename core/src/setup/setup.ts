import type { Engine } from '../engine/engine.ts';
import type { SourceRef } from '../pixels/pixels.ts';
import type { Recipe } from '../recipe/recipe.ts';
import { proposeCrop } from './crop.ts';
import { proposeEven } from './even.ts';
import { proposeFinish } from './finish.ts';
import { proposeJoin } from './join.ts';
import { proposeLevel } from './level.ts';
import { proposeMaterial } from './material.ts';
import type { ProposedSetting, SetupProposal } from './proposal.ts';
import { proposeRelief } from './relief.ts';
import { SetupScene, type SetupStep } from './scene.ts';
import { proposeEdge, proposeSize } from './size.ts';
import { proposeTiling } from './tiling.ts';

/** In the order of the Course: each works on what those before it proposed. */
const STEPS: readonly SetupStep[] = [
  proposeSize,
  proposeEdge,
  proposeTiling,
  proposeLevel,
  proposeCrop,
  proposeEven,
  proposeJoin,
  proposeMaterial,
  proposeRelief,
  proposeFinish,
];

/** What was proposed for a photo, and the recipe with all of it applied. */
export interface Setup {
  recipe: Recipe;
  proposals: SetupProposal[];
}

export interface SetupRequest {
  recipe: Recipe;
  source: SourceRef;
  /** Settings that were chosen and stay as they are, as “station.key”. */
  chosen?: ReadonlySet<string>;
  signal?: AbortSignal;
  /** Called with the share of steps done, 0…1. */
  onProgress?(done: number): void;
}

const isSame = (a: ProposedSetting, b: ProposedSetting) => a.station === b.station && a.key === b.key;

/** Settings as they were before any of the proposals so far. */
const from = (proposals: readonly SetupProposal[], settings: readonly ProposedSetting[]): ProposedSetting[] =>
  settings.map((one) => ({
    ...one,
    before: (proposals.flatMap((all) => all.settings).find((other) => isSame(one, other)) ?? one).before,
  }));

/** Proposals without what a later one changes again, and without those of which nothing is left. */
const withoutThose = (
  proposals: readonly SetupProposal[],
  settings: readonly ProposedSetting[],
): SetupProposal[] =>
  proposals.flatMap((proposal) => {
    const left = proposal.settings.filter((one) => !settings.some((other) => isSame(one, other)));
    return left.length === 0 && proposal.settings.length > 0 ? [] : [{ ...proposal, settings: left }];
  });

/**
 * Measures a photo and proposes its settings, one thing after the other, at the working size. Each proposal is applied before
 * the next thing is measured. @throws Stopped when cancelled; Problem when the source cannot be read.
 */
export async function setUp(
  engine: Engine,
  { recipe, source, chosen, signal, onProgress }: SetupRequest,
): Promise<Setup> {
  const scene = new SetupScene(engine, recipe, source, { chosen, signal });
  let proposals: SetupProposal[] = [];
  for (const [k, step] of STEPS.entries()) {
    onProgress?.(k / STEPS.length);
    for (const proposal of await step(scene)) {
      const settings = scene.free(proposal.settings);
      if (settings.length < proposal.settings.length && settings.length === 0) continue;
      scene.apply(settings);
      proposals = [
        ...withoutThose(proposals, settings),
        { ...proposal, settings: from(proposals, settings) },
      ];
    }
  }
  return { recipe: scene.recipe, proposals };
}
