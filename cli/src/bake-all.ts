import { Problem, STATION_NAMES, STATIONS, Stopped, safeName } from '@zesty-tile/core';
import { type Baked, type BakeOptions, bakeOne } from './bake.ts';
import { FAILED, WRONG_CALL } from './exit-codes.ts';
import { type Wanted, wantedOf } from './pictures.ts';
import { wordsOf } from './words-of.ts';

/** The progress line: drawn over itself where someone looks on, else a line for each change. */
function progressLine(isQuiet: boolean): (text: string) => void {
  let shown = '';
  return (text) => {
    if (isQuiet || text === shown) return;
    shown = text;
    process.stderr.write(process.stderr.isTTY ? `\r\x1b[K${text}` : `${text}\n`);
  };
}

function nameOf(wanted: Wanted, options: BakeOptions): string {
  if (options.name === undefined) return wanted.name || 'tile';
  const name = safeName(options.name);
  if (name && name === options.name) return name;
  throw new Problem(
    'bad_name',
    `“${options.name}” cannot be a file name on every system.`,
    `Use letters, digits, spaces, dots, dashes and underscores${name ? `, for example “${name}”` : ''}.`,
  );
}

/** What is asked for, named. @throws Problem where several pictures would get one name, or one option is given to all. */
async function named(paths: readonly string[], options: BakeOptions): Promise<Wanted[]> {
  const wanted = await wantedOf(paths);
  if (wanted.length > 1 && (options.name !== undefined || options.role.length > 0)) {
    throw new Problem(
      'bad_call',
      `--name and --role are for one picture, and there are ${wanted.length}.`,
      'Leave them out, or bake that picture by itself.',
    );
  }
  const all = wanted.map((one) => ({ ...one, name: nameOf(one, options) }));
  const seen = new Set<string>();
  for (const { name } of all) {
    const key = name.toLowerCase();
    if (seen.has(key)) {
      throw new Problem(
        'name_clash',
        `Two of the pictures would both be called “${name}”.`,
        'Rename one, or bake them into folders of their own.',
      );
    }
    seen.add(key);
  }
  return all;
}

const reportOf = ({ manifest, file, seconds, timings, proposals }: Baked, { out }: BakeOptions) => ({
  out,
  ...(proposals ? { proposals } : {}),
  manifest: file,
  seconds,
  timings,
  ...manifest,
});

function sayProposals({ proposals = [] }: Baked): void {
  for (const { title, reason, isGuess } of proposals)
    process.stdout.write(`Set up: ${title}${isGuess ? ' (a guess)' : ''}. ${reason}\n`);
}

function sayVerdicts({ manifest }: Baked): void {
  for (const station of STATION_NAMES) {
    const verdict = manifest.verdicts[station];
    if (verdict) process.stdout.write(`${STATIONS[station].name}: ${verdict.state}. ${verdict.sentence}\n`);
  }
}

const json = (value: unknown) => process.stdout.write(`${JSON.stringify(value, null, 2)}\n`);

/** The worst of a tile's verdicts, in a few words. */
function worstOf({ manifest }: Baked): string {
  const verdicts = Object.entries(manifest.verdicts);
  const wrong = verdicts.filter(([, { state }]) => state === 'wrong').map(([name]) => name);
  const look = verdicts.filter(([, { state }]) => state === 'look').map(([name]) => name);
  if (wrong.length > 0) return `wrong: ${wrong.join(', ')}`;
  return look.length > 0 ? `look at ${look.join(', ')}` : 'fine';
}

/**
 * `zesty bake`: pictures, and folders of them, to a full set of maps each. One that fails does not hold up the others; what
 * became of each is said at the end, and the exit code tells whether all went well.
 */
export async function bake(paths: string[], options: BakeOptions): Promise<void> {
  const wanted = await named(paths, options);
  const line = progressLine(options.quiet);
  const stop = new AbortController();
  process.once('SIGINT', () => stop.abort(new Stopped()));
  if (wanted.length === 1) {
    const baked = await bakeOne(wanted[0], options, line, stop.signal);
    line(`done: ${baked.manifest.files.length} maps in ${baked.seconds.toFixed(1)} s`);
    if (process.stderr.isTTY && !options.quiet) process.stderr.write('\n');
    if (options.json) json(reportOf(baked, options));
    else {
      sayProposals(baked);
      sayVerdicts(baked);
    }
    return;
  }
  const results: { picture: string; baked: Baked | null; words: string; code: number }[] = [];
  for (const [k, one] of wanted.entries()) {
    const before = `${k + 1} of ${wanted.length}, ${one.name}: `;
    try {
      const baked = await bakeOne(one, options, (text) => line(before + text), stop.signal);
      results.push({ picture: one.path, baked, words: worstOf(baked), code: 0 });
    } catch (error) {
      if (stop.signal.aborted) throw error;
      results.push({ picture: one.path, baked: null, ...wordsOf(error) });
    }
  }
  if (process.stderr.isTTY && !options.quiet) process.stderr.write('\n');
  const failed = results.filter(({ baked }) => !baked);
  if (options.json) {
    json({
      done: results.length - failed.length,
      failed: failed.length,
      results: results.map(({ picture, baked, words }) =>
        baked ? { picture, ...reportOf(baked, options) } : { picture, error: words },
      ),
    });
  } else {
    for (const { baked, words, picture } of results)
      process.stdout.write(`${baked ? `done  ${baked.file}, ${words}` : `not   ${picture}: ${words}`}\n`);
    process.stdout.write(`${results.length - failed.length} of ${results.length} baked.\n`);
  }
  const codes = failed.map(({ code }) => code);
  if (codes.length > 0) process.exitCode = codes.includes(FAILED) ? FAILED : WRONG_CALL;
}
