import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { TRIALS } from './trials.ts';

/** Failures that are printed of one trial. */
const PRINTED = 10;

// npm run torture [-- name …] [--seed N] [--share S]: the long form of all trials, or of those named; a share of it with --share.
const args = process.argv.slice(2);
const numberOf = (flag: string, usual: number) => {
  const at = args.indexOf(flag);
  return at < 0 ? usual : Number(args.splice(at, 2)[1]);
};
const seed = numberOf('--seed', 18);
const share = numberOf('--share', 1);
const unknown = args.filter((name) => !Object.hasOwn(TRIALS, name));
if (unknown.length > 0 || !Number.isInteger(seed) || !(share > 0)) {
  console.error(
    `Trials are ${Object.keys(TRIALS).join(', ')}; not ${unknown.join(', ') || 'these numbers'}.`,
  );
  process.exit(2);
}

let failed = 0;
console.log('| trial | tried | held | failed | measured |\n| --- | --- | --- | --- | --- |');
for (const name of args.length > 0 ? args : Object.keys(TRIALS)) {
  const { trial, long } = TRIALS[name];
  const folder = await mkdtemp(join(tmpdir(), `zesty-${name}-`));
  const { failures, figures, ...tally } = await trial({ seed, folder, count: Math.ceil(share * long) });
  await rm(folder, { recursive: true, force: true });
  const measured = Object.entries(figures).map(([figure, value]) => `${figure} ${value}`);
  const cells = [tally.trial, tally.tried, tally.held, failures.length, measured.join(', ')];
  console.log(`| ${cells.join(' | ')} |`);
  for (const failure of failures.slice(0, PRINTED)) console.error(`  ${name}: ${failure}`);
  failed += failures.length;
}
process.exit(failed === 0 ? 0 : 1);
