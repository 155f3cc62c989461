import { readdirSync } from 'node:fs';
import { cruise } from 'dependency-cruiser';
import { ROOT } from './setup.mjs';

process.chdir(ROOT);

const ROOMS = ['core', 'codecs', 'server', 'web', 'cli', 'demo', 'e2e', 'torture'];

/** The room's code; browser tests are all code there is of theirs. */
const codeOf = (room) => (room === 'e2e' ? 'e2e/test' : `${room}/src`);

/** What each room may import of the others. */
const MAY_USE = {
  core: [],
  codecs: ['core'],
  server: ['core', 'codecs'],
  // The server's types alone, for the typed client.
  web: ['core', 'server'],
  // The worker of a shared queue is the server's.
  cli: ['core', 'codecs', 'server'],
  demo: ['core', 'codecs', 'server'],
  e2e: ['core', 'codecs', 'server', 'demo'],
  // It starts the server and the command line as processes of their own.
  torture: ['core', 'codecs'],
};

const walls = ROOMS.map((room) => ({
  name: `wall-of-${room}`,
  severity: 'error',
  from: { path: `^${codeOf(room)}/` },
  to: { path: `^(${ROOMS.filter((r) => r !== room && !MAY_USE[room].includes(r)).join('|')})/` },
}));

const ruleSet = {
  forbidden: [
    ...walls,
    {
      name: 'core-knows-no-platform',
      severity: 'error',
      from: { path: '^core/src/' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'core-uses-only-its-packages',
      severity: 'error',
      from: { path: '^core/src/' },
      to: { path: 'node_modules/', pathNot: 'node_modules/(@noble/hashes|fft\\.js|mustache|valibot)/' },
    },
    {
      name: 'web-takes-only-types-of-the-server',
      severity: 'error',
      from: { path: '^web/src/' },
      to: { path: '^server/', dependencyTypesNot: ['type-only'] },
    },
    {
      name: 'no-circles',
      severity: 'error',
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
  ],
};

const sources = ROOMS.flatMap((room) =>
  readdirSync(codeOf(room), { recursive: true, encoding: 'utf8' })
    .filter((file) => /\.tsx?$/.test(file) && !file.endsWith('.d.ts'))
    .map((file) => `${codeOf(room)}/${file}`),
);

const { output } = await cruise(
  ROOMS.map(codeOf),
  { ruleSet, validate: true, tsPreCompilationDeps: true, doNotFollow: { path: 'node_modules' } },
  {
    extensions: ['.ts', '.tsx', '.js', '.json'],
    conditionNames: ['import', 'types', 'default'],
    exportsFields: ['exports'],
  },
);

const read = new Set(output.modules.map((module) => module.source));
const unread = sources.filter((file) => !read.has(file));
const typed = output.modules.filter(
  (module) => /\.tsx?$/.test(module.source) && module.dependencies.length > 0,
);
for (const { rule, from, to } of output.summary.violations) console.error(`${rule.name}: ${from} → ${to}`);
if (unread.length > 0) console.error(`Not read: ${unread.join(', ')}`);
// A reader that cannot parse TypeScript sees files without imports and finds no fault with them.
if (typed.length < sources.length / 2)
  console.error(`Only ${typed.length} of ${sources.length} modules show any import.`);
const sound = output.summary.error === 0 && unread.length === 0 && typed.length >= sources.length / 2;
console.log(`${sources.length} modules read, ${output.summary.error} walls broken.`);
process.exit(sound ? 0 : 1);
