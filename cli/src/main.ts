import { Command, CommanderError } from 'commander';
import { bake } from './bake-all.ts';
import { check } from './check.ts';
import { DONE, WRONG_CALL } from './exit-codes.ts';
import { recipeCheck } from './recipe-check.ts';
import { stackCheck } from './stack-check.ts';
import { stations } from './stations.ts';
import { wordsOf } from './words-of.ts';
import { worker } from './worker.ts';

const collect = (value: string, before: string[]) => [...before, value];

const program = new Command('zesty')
  .description('Makes seamless texture sets from photos.')
  .exitOverride()
  .configureOutput({ outputError: () => {} });

program
  .command('bake')
  .description('Makes a full set of maps from each picture.')
  .argument('<pictures...>', 'PNG, JPEG, WebP, TIFF or OpenEXR; a folder stands for the pictures in it')
  .requiredOption('--out <dir>', 'folder to write to; made when missing')
  .option('--recipe <file>', 'recipe to use, or the manifest of a crate')
  .option(
    '--auto',
    'measure each picture and set it up by what is found; --set, --size and --profile win',
    false,
  )
  .option(
    '--set <station.key=value>',
    'one setting, or @file with its value; may be given often',
    collect,
    [],
  )
  .option('--size <pixels>', 'edge of the tile')
  .option('--name <name>', 'start of the file names; default: the picture’s')
  .option('--profile <id>', 'separate, packed, specular-gloss, normal-gloss, two-maps, gltf or materialx')
  .option('--role <map=file>', 'a supplied map in place of a derived one', collect, [])
  .option(
    '--shot <file@azimuth,height>',
    'one more shot of the same surface in other light; where its light comes from, clockwise from the top and above the surface, in degrees, may be left out; may be given often',
    collect,
    [],
  )
  .option('--picture <file>', 'a picture that the coats refer to; may be given often', collect, [])
  .option('--origin <text>', 'where the picture comes from, for the manifest')
  .option('--licence <text>', 'under which licence it may be used, for the manifest')
  .option('--seed <n>', 'random seed')
  .option('--force', 'replace files that exist, once all new ones are there', false)
  .option('--json', 'one JSON document on stdout', false)
  .option('--quiet', 'no progress line', false)
  .action(bake);

program
  .command('check')
  .description('Measures an image as a tile.')
  .argument('<picture>')
  .option('--json', 'one JSON document on stdout', false)
  .action(check);

program
  .command('stations')
  .description('Every station’s settings.')
  .option('--json', 'one JSON document on stdout', false)
  .action(stations);

program
  .command('recipe')
  .description('Recipes.')
  .command('check')
  .description('Validates a recipe.')
  .argument('<file>')
  .action(recipeCheck);

program
  .command('stack')
  .description('Stacks of coats.')
  .command('check')
  .description('Says what is wrong with a stack of coats, or what it holds and needs.')
  .argument('<file>')
  .action(stackCheck);

program
  .command('worker')
  .description('Builds crates from a queue in Redis that servers and other workers share.')
  .option('--redis <url>', 'address of the Redis', process.env.ZESTY_REDIS)
  .option('--shared <dir>', 'folder of blobs and crates that all of them see', process.env.ZESTY_SHARED)
  .option('--workers <n>', 'threads that make crates', process.env.ZESTY_WORKERS || '2')
  .action(worker);

try {
  await program.parseAsync();
  process.exitCode = process.exitCode ?? DONE;
} catch (error) {
  if (error instanceof CommanderError && error.exitCode === 0) {
    process.exitCode = DONE;
  } else if (error instanceof CommanderError) {
    process.stderr.write(`${error.message.replace(/^error: /, '')}. zesty --help shows how to call it.\n`);
    process.exitCode = WRONG_CALL;
  } else {
    const { words, code } = wordsOf(error);
    process.stderr.write(`${words}\n`);
    process.exitCode = code;
  }
}
