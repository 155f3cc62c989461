import { access } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { readFacts, sha256Of, sourceHost, threads } from '@zesty-tile/codecs';
import {
  assignSetting,
  type CrateNaming,
  coatsChange,
  Engine,
  hasField,
  type MapName,
  missingMaps,
  newRecipe,
  Problem,
  parseRecipe,
  picturesOf,
  planCrate,
  type Recipe,
  type SetupProposal,
  type SourceRef,
  setUp,
  WORKING_SIZE,
  whyUnsolved,
  withShots,
} from '@zesty-tile/core';
import { type Manifest, makeCrate, refuseExisting, stageSet } from '@zesty-tile/crates';
import type { Wanted } from './pictures.ts';
import { readInput, readRecipe } from './read.ts';
import { type GivenFiles, readRoles } from './roles.ts';
import { readShots, type ShotFiles } from './shots.ts';

export interface BakeOptions {
  out: string;
  recipe?: string;
  auto: boolean;
  set: string[];
  size?: string;
  name?: string;
  profile?: string;
  role: string[];
  picture: string[];
  shot: string[];
  origin?: string;
  licence?: string;
  seed?: string;
  force: boolean;
  json: boolean;
  quiet: boolean;
}

async function recipeFor(options: BakeOptions): Promise<Recipe> {
  if (options.auto && options.recipe !== undefined) {
    throw new Problem(
      'bad_call',
      '--auto measures the picture to find the settings, and --recipe gives them.',
      'Use one of the two.',
    );
  }
  let recipe = options.recipe ? parseRecipe(await readRecipe(options.recipe)) : newRecipe();
  for (const pair of options.set) {
    const at = pair.indexOf('=');
    if (at < 0) {
      throw new Problem(
        'bad_setting',
        `--set takes <station>.<key>=<value>, not “${pair}”.`,
        'Write an equals sign.',
      );
    }
    const text = pair.slice(at + 1);
    // What is long is in a file, as a stack of coats.
    const value = text.startsWith('@') ? new TextDecoder().decode(await readInput(text.slice(1))) : text;
    recipe = assignSetting(recipe, pair.slice(0, at), value);
  }
  if (options.size !== undefined) recipe = assignSetting(recipe, 'square.size', options.size);
  if (options.profile !== undefined) recipe = assignSetting(recipe, 'crate.profile', options.profile);
  if (options.seed !== undefined) {
    const seed = Number(options.seed);
    if (!Number.isInteger(seed) || seed < 0) {
      throw new Problem(
        'bad_setting',
        `--seed takes a whole number from 0, not “${options.seed}”.`,
        'Use a whole number.',
      );
    }
    recipe = { ...recipe, seed };
  }
  return recipe;
}

/** Settings that the call chose, as “station.key”. */
const chosenBy = ({ set, size }: BakeOptions): Set<string> =>
  new Set([
    ...set.map((pair) => pair.split('=')[0].split('.').slice(0, 2).join('.')),
    ...(size === undefined ? [] : ['square.size']),
  ]);

/** The recipe with what is known of the picture: its supplied maps, origin and licence; and with other pictures given. */
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

/** The recipe with shots of the call; those of a recipe that was made with them keep its settings. */
function shotsInto(recipe: Recipe, { shots, directions }: ShotFiles, options: BakeOptions): Recipe {
  const known = recipe.stations.source.shots.map(({ sha256 }) => sha256);
  const isKnown = known.length === shots.length && shots.every(({ sha256 }) => known.includes(sha256));
  return isKnown ? recipe : withShots(recipe, shots, directions, chosenBy(options));
}

/** What a setup may keep of one measurement for the next. */
const SETUP_CACHE_BYTES = 400e6;

const exists = (path: string) =>
  access(path).then(
    () => true,
    () => false,
  );

const LEFT_OUT: Record<string, string> = { detail: 'relief.detailMap=null', grey: 'finish.greyMap=null' };

/** A map that the recipe was made with, whose file was not given. */
function checkPictures(recipe: Recipe, files: ReadonlyMap<string, Uint8Array>): void {
  for (const [map, ref] of Object.entries(picturesOf(recipe))) {
    if (files.has(ref.sha256)) continue;
    if (map.includes(',')) {
      throw new Problem(
        'no_file',
        `A coat refers to a picture (${map}${ref.name ? `: ${ref.name}` : ''}), whose file is not here.`,
        'Give it with --picture <file>.',
      );
    }
    if (map.startsWith('shot ')) {
      throw new Problem(
        'no_file',
        `The recipe was made with several shots, and the file of ${map}${ref.name ? ` (${ref.name})` : ''} is not here.`,
        'Give it with --shot <file>, or leave all out with --set source.shots=[].',
      );
    }
    throw new Problem(
      'no_file',
      `The recipe was made with a supplied ${map}${ref.name ? ` (${ref.name})` : ''}, whose file is not here.`,
      `Give it with --role ${map}=<file>, or leave it out with --set ${LEFT_OUT[map] ?? 'source.given={}'}.`,
    );
  }
}

/** The first number under which nothing of a crate is in the folder yet; 1 where its names hold none. */
async function numberFor(recipe: Recipe, tile: string, folder: string): Promise<CrateNaming> {
  const { crate, square } = recipe.stations;
  for (let number = 1; ; number++) {
    const naming = { tile, crate: number };
    if (!hasField(crate.names, 'crate')) return naming;
    const { names } = planCrate(crate, [], { size: square.size, shape: square.shape }, naming);
    const found = await Promise.all(names.map((name) => exists(join(folder, name))));
    if (!found.includes(true)) return naming;
  }
}

/** What was made of a picture. */
export interface Baked {
  manifest: Manifest;
  /** Name of the manifest's file. */
  file: string;
  seconds: number;
  timings: Record<string, number>;
  /** What was measured and applied, where that was asked for. */
  proposals?: SetupProposal[];
}

/** The recipe with what is settled of its shots. @throws Problem where they cannot be solved. */
async function solved(
  recipe: Recipe,
  source: SourceRef,
  host: ReturnType<typeof sourceHost>,
  signal: AbortSignal,
): Promise<Recipe> {
  const engine = new Engine(host, SETUP_CACHE_BYTES);
  const request = { recipe, source, size: WORKING_SIZE, until: 'source' as const, withoutVerdicts: true };
  const evaluation = await engine.evaluate({ ...request, signal });
  const why = whyUnsolved(evaluation.recipe);
  if (why) throw why;
  return evaluation.recipe;
}

/** The recipe as the measurements of the picture propose it. */
async function setUpFrom(
  recipe: Recipe,
  source: SourceRef,
  host: ReturnType<typeof sourceHost>,
  { chosen, line, signal }: { chosen: Set<string>; line(text: string): void; signal: AbortSignal },
) {
  const team = threads();
  try {
    return await setUp(new Engine({ ...host, team }, SETUP_CACHE_BYTES), {
      recipe,
      source,
      chosen,
      signal,
      onProgress: (done) => line(`setting up ${Math.floor(10 * done) * 10} %`),
    });
  } finally {
    await team.end();
  }
}

/** Bakes one picture to a full set of maps in a folder, placed whole or not at all. */
export async function bakeOne(
  { path, roles, name }: Wanted,
  options: BakeOptions,
  line: (text: string) => void,
  signal: AbortSignal,
): Promise<Baked> {
  const bytes = await readInput(path);
  const wished = await recipeFor(options);
  const facts = await readFacts(bytes);
  const { files, green, ...pictures } = await readRoles([...roles, ...options.role], facts);
  for (const file of options.picture) {
    const picture = await readInput(file);
    files.set(sha256Of(picture), picture);
  }
  const source: SourceRef = { sha256: sha256Of(bytes), width: facts.width, height: facts.height };
  const more = await readShots(options.shot, source);
  for (const [sha256, shot] of more.files) files.set(sha256, shot);
  const pictured = withPictures(wished, options, pictures);
  const asked = more.shots.length === 0 ? pictured : shotsInto(pictured, more, options);
  checkPictures(asked, files);
  const host = sourceHost(async ({ sha256 }) => files.get(sha256) ?? bytes);
  const solvable =
    asked.stations.source.shots.length === 0 ? asked : await solved(asked, source, host, signal);
  const { recipe, proposals } = options.auto
    ? await setUpFrom(solvable, source, host, { chosen: chosenBy(options), line, signal })
    : { recipe: solvable };
  const { crate, square, source: from } = recipe.stations;
  const naming = await numberFor(recipe, name, options.out);
  if (!options.force) {
    // What is only known when all is computed counts as being there.
    const missing: MapName[] = [];
    if (!facts.hasAlpha && !from.given.opacity) missing.push('opacity');
    if (!from.given.emission) missing.push('emission');
    // What coats put in is there all the same.
    const { coats } = recipe.stations;
    const absent = missing.filter((map) => !coatsChange(coats, map as 'opacity' | 'emission'));
    const { names } = planCrate(crate, absent, { size: square.size, shape: square.shape }, naming);
    await refuseExisting(options.out, names);
  }
  if (green && green !== from.givenGreen && !options.quiet) {
    process.stderr.write(
      `The green of the given normal map seems to point ${green}; if so, add --set source.givenGreen=${green}.\n`,
    );
  }
  const began = performance.now();
  const staging = await stageSet(options.out);
  const team = threads();
  try {
    const { manifest, evaluation } = await makeCrate(
      new Engine({ ...host, team }, 0),
      {
        recipe,
        source,
        signal,
        onProgress: (station, done) => line(`${station} ${Math.floor(10 * done) * 10} %`),
      },
      naming,
      { ...source, file: basename(path) },
      async (file) => {
        signal.throwIfAborted();
        await staging.put(file.name, file.bytes);
      },
      ({ name: file, index, count }) => line(`writing ${file}, ${index + 1} of ${count}`),
    );
    const plan = planCrate(crate, missingMaps(evaluation.surface!), evaluation.frame, naming);
    await staging.place(plan.names, { replace: options.force, keep: false });
    const seconds = (performance.now() - began) / 1000;
    return { manifest, file: plan.manifest, seconds, timings: evaluation.timings, proposals };
  } catch (error) {
    await staging.drop();
    throw error;
  } finally {
    await team.end();
  }
}
