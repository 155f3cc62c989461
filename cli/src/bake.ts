import { access, mkdir } from 'node:fs/promises';
import { basename, extname, join } from 'node:path';
import {
  crateFileNames,
  encodeCrate,
  manifestName,
  readFacts,
  sha256Of,
  sourceHost,
  writeWhole,
} from '@zesty-tile/codecs';
import {
  assignSetting,
  Engine,
  type MapName,
  newRecipe,
  Problem,
  parseRecipe,
  picturesOf,
  profileOf,
  type Recipe,
  type SourceRef,
  STATION_NAMES,
  STATIONS,
  safeName,
} from '@zesty-tile/core';
import { readInput, readJson } from './read.ts';
import { type GivenFiles, readRoles } from './roles.ts';

export interface BakeOptions {
  out: string;
  recipe?: string;
  set: string[];
  size?: string;
  name?: string;
  profile?: string;
  role: string[];
  origin?: string;
  licence?: string;
  seed?: string;
  force: boolean;
  json: boolean;
  quiet: boolean;
}

async function recipeFor(options: BakeOptions): Promise<Recipe> {
  let recipe = options.recipe ? parseRecipe(await readJson(options.recipe)) : newRecipe();
  for (const pair of options.set) {
    const at = pair.indexOf('=');
    if (at < 0) {
      throw new Problem(
        'bad_setting',
        `--set takes <station>.<key>=<value>, not “${pair}”.`,
        'Write an equals sign.',
      );
    }
    recipe = assignSetting(recipe, pair.slice(0, at), pair.slice(at + 1));
  }
  if (options.size !== undefined) recipe = assignSetting(recipe, 'square.size', options.size);
  if (options.profile !== undefined) recipe = assignSetting(recipe, 'crate.profile', options.profile);
  if (options.seed !== undefined) {
    const seed = Number(options.seed);
    if (!Number.isInteger(seed) || seed < 0) {
      throw new Problem(
        'bad_setting',
        `--seed takes a whole number from 0, not “${options.seed}”.`,
        'Give one.',
      );
    }
    recipe = { ...recipe, seed };
  }
  return recipe;
}

/** The recipe with what is known of the picture: its given maps, origin and licence; and with other pictures given. */
function withPictures(
  recipe: Recipe,
  options: BakeOptions,
  { given: roles, own }: Pick<GivenFiles, 'given' | 'own'>,
): Recipe {
  const { source, relief, finish } = recipe.stations;
  const next = {
    ...source,
    given: { ...source.given, ...roles },
    origin: options.origin ?? source.origin,
    licence: options.licence ?? source.licence,
  };
  const stations = {
    ...recipe.stations,
    source: next,
    relief: own.detail ? { ...relief, detailMap: own.detail, detailFrom: 'given' as const } : relief,
    finish: own.grey ? { ...finish, greyMap: own.grey } : finish,
  };
  return { ...recipe, stations };
}

function nameFor(picture: string, options: BakeOptions): string {
  const wished = options.name ?? basename(picture, extname(picture));
  const name = safeName(wished);
  if (options.name !== undefined && name !== options.name) {
    throw new Problem(
      'bad_name',
      `“${options.name}” cannot be a file name on every system.`,
      `Use letters, digits, spaces, dots, dashes and underscores${name ? `, for example “${name}”` : ''}.`,
    );
  }
  return name || 'tile';
}

const exists = (path: string) =>
  access(path).then(
    () => true,
    () => false,
  );

/** `zesty bake`: one picture to a full set of maps in a folder, written whole or not at all. */
export async function bake(picturePath: string, options: BakeOptions): Promise<void> {
  const bytes = await readInput(picturePath);
  const wished = await recipeFor(options);
  const name = nameFor(picturePath, options);
  const facts = await readFacts(bytes);
  const { files, green, ...pictures } = await readRoles(options.role, facts);
  const recipe = withPictures(wished, options, pictures);
  const LEFT_OUT: Record<string, string> = { detail: 'relief.detailMap=null', grey: 'finish.greyMap=null' };
  for (const [map, ref] of Object.entries(picturesOf(recipe))) {
    if (files.has(ref.sha256)) continue;
    throw new Problem(
      'no_file',
      `The recipe was made with a given ${map}${ref.name ? ` (${ref.name})` : ''}, whose file is not here.`,
      `Give it with --role ${map}=<file>, or leave it out with --set ${LEFT_OUT[map] ?? 'source.given={}'}.`,
    );
  }
  if (!options.force) {
    const { given } = recipe.stations.source;
    const missing: MapName[] = [];
    if (!facts.hasAlpha && !given.opacity) missing.push('opacity');
    if (!given.emission) missing.push('emission');
    for (const file of crateFileNames(name, profileOf(recipe.stations.crate), missing)) {
      if (await exists(join(options.out, file))) {
        throw new Problem(
          'exists',
          `${file} exists in ${options.out}; nothing was written.`,
          'Use --force to replace it, or another --name.',
        );
      }
    }
  }
  const source: SourceRef = { sha256: sha256Of(bytes), width: facts.width, height: facts.height };
  const engine = new Engine(
    sourceHost(async ({ sha256 }) => files.get(sha256) ?? bytes),
    0,
  );
  if (green && green !== recipe.stations.source.givenGreen && !options.quiet) {
    process.stderr.write(
      `The green of the given normal map seems to point ${green}; if so, add --set source.givenGreen=${green}.\n`,
    );
  }
  const began = performance.now();
  const line = (text: string) => {
    if (!options.quiet) process.stderr.write(process.stderr.isTTY ? `\r\x1b[K${text}` : `${text}\n`);
  };
  let shown = '';
  const evaluation = await engine.evaluate({
    recipe,
    source,
    onProgress(station, done) {
      const text = `${station} ${Math.floor(10 * done) * 10} %`;
      if (text !== shown) line((shown = text));
    },
  });
  await mkdir(options.out, { recursive: true });
  line('writing');
  const manifest = await encodeCrate(evaluation, name, { ...source, file: basename(picturePath) }, (file) =>
    writeWhole(join(options.out, file.name), file.bytes),
  );
  const seconds = (performance.now() - began) / 1000;
  line(`done: ${manifest.files.length} maps in ${seconds.toFixed(1)} s`);
  if (process.stderr.isTTY && !options.quiet) process.stderr.write('\n');
  if (options.json) {
    const report = {
      out: options.out,
      manifest: manifestName(name),
      seconds,
      timings: evaluation.timings,
      ...manifest,
    };
    process.stdout.write(`${JSON.stringify(report, null, 2)}\n`);
  } else {
    for (const station of STATION_NAMES) {
      const verdict = evaluation.verdicts[station];
      if (verdict) process.stdout.write(`${STATIONS[station].name}: ${verdict.state}. ${verdict.sentence}\n`);
    }
  }
}
