import { mkdir, readdir, readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { brokenSet, partsIn } from './check.ts';
import { noise } from './pictures.ts';
import { startZesty } from './process.ts';
import { Random, Score, type Tally, type TrialOptions, wait } from './trial.ts';

/**
 * Kills `zesty bake --force` at random moments. The folder must hold a whole set, or none and the whole former one out of sight;
 * the next run clears what was left.
 */
export async function killBake({ seed, count, folder }: TrialOptions): Promise<Tally> {
  const score = new Score('kills of the command line');
  const random = new Random(seed);
  const photo = join(folder, 'photo.png');
  const out = join(folder, 'out');
  await mkdir(out, { recursive: true });
  await writeFile(photo, await noise(random, 300, 300).png().toBuffer());
  const bake = (turn: number) =>
    startZesty(['bake', photo, '--out', out, '--force', '--quiet', '--size', '256', '--seed', String(turn)]);
  const before = performance.now();
  const first = bake(0);
  await first.ended();
  const whole = performance.now() - before;
  for (let k = 1; k <= count; k++) {
    const baking = bake(k);
    // The last third, where files are placed, is hit more often.
    await wait(whole * 1.05 * Math.sqrt(random.next()));
    await baking.kill();
    const broken: string[] = [];
    const names = await readdir(out);
    const left = names.filter((name) => name.endsWith('.part'));
    if (names.some((name) => name.endsWith('.tile.json'))) broken.push(...(await brokenSet(out)));
    else if (left.length === 0) broken.push('neither a set nor one on its way');
    else {
      // Cut between the old manifest and the new one: the old set is whole out of sight.
      const old = await Promise.all(left.map((name) => brokenSet(join(out, name, 'old'))));
      if (old.every((one) => one.length > 0)) broken.push(`the former set is gone: ${old.flat().join(', ')}`);
      score.count('cut between two sets');
    }
    if (left.length > 0) score.count('cut in the middle of a set');
    if (k % 10 === 0 || k === count) {
      const last = bake(k + count);
      await last.ended();
      broken.push(...(await brokenSet(out)), ...(await partsIn(out)));
      const manifest = JSON.parse(await readFile(join(out, 'photo.tile.json'), 'utf8'));
      if (manifest.recipe.seed !== k + count) broken.push('a run that ended left an older set');
    }
    score.note(...broken);
  }
  return score.tally();
}
