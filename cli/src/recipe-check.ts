import { Problem, recipeProblems } from '@zesty-tile/core';
import { readRecipe } from './read.ts';

/** `zesty recipe check`: says what is wrong with a recipe, or that nothing is. */
export async function recipeCheck(file: string): Promise<void> {
  const problems = recipeProblems(await readRecipe(file));
  if (problems.length > 0) {
    throw new Problem('bad_recipe', problems.join(' '), 'zesty stations lists every setting.');
  }
  process.stdout.write('The recipe is valid.\n');
}
