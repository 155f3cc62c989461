import { readdirSync } from 'node:fs';
import { cruise } from 'dependency-cruiser';
import { ROOT } from './setup.mjs';

process.chdir(ROOT);

const PACKAGES = ['core', 'codecs', 'crates', 'server', 'web', 'cli', 'demo', 'e2e', 'torture'];

/** A package's code; browser tests are all the code there is of theirs. */
const codeOf = (name) => (name === 'e2e' ? 'e2e/test' : `${name}/src`);

/** What each package may import of the others. */
const MAY_USE = {
  core: [],
  codecs: ['core'],
  crates: ['core', 'codecs'],
  server: ['core', 'codecs', 'crates'],
  // The server's types alone, for the typed client.
  web: ['core', 'server'],
  // The worker of a shared queue is the server's.
  cli: ['core', 'codecs', 'crates', 'server'],
  demo: ['core', 'codecs', 'crates', 'server'],
  e2e: ['core', 'codecs', 'crates', 'server', 'demo'],
  // It starts the server and the command line as processes of their own.
  torture: ['core', 'codecs', 'crates'],
};

/** The folders of core from the lowest to the highest: each may import from itself and from those before it. */
const LAYERS = [
  'hashing',
  'work',
  'memory',
  'raster',
  'strokes',
  'lattice',
  'pattern',
  'outline',
  'stamps',
  'settings',
  'colour',
  'statistics',
  'kernels',
  'noise',
  'planes',
  'pixels',
  'team',
  'sampling',
  'filters',
  'algebra',
  'fft',
  'masks',
  'tile',
  'paint',
  'chart',
  'surface',
  'maps',
  'lit',
  'far',
  'stations',
  'recipe',
  'engine',
  'setup',
  'checks',
];
const FILES_OF_CORE = 'problem|verdict|index';

const packages = PACKAGES.map((name) => ({
  name: `imports-of-${name}`,
  severity: 'error',
  from: { path: `^${codeOf(name)}/` },
  to: { path: `^(${PACKAGES.filter((p) => p !== name && !MAY_USE[name].includes(p)).join('|')})/` },
}));

const layers = LAYERS.slice(0, -1).map((name, k) => ({
  name: `core-${name}-imports-nothing-above-it`,
  severity: 'error',
  from: { path: `^core/src/${name}/` },
  to: { path: `^core/src/(${LAYERS.slice(k + 1).join('|')})/` },
}));

const ruleSet = {
  forbidden: [
    ...packages,
    ...layers,
    {
      name: 'core-imports-no-platform',
      severity: 'error',
      from: { path: '^core/src/' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'core-imports-only-its-packages',
      severity: 'error',
      from: { path: '^core/src/' },
      to: { path: 'node_modules/', pathNot: 'node_modules/(@noble/hashes|fft\\.js|mustache|valibot)/' },
    },
    {
      name: 'web-imports-only-types-of-the-server',
      severity: 'error',
      from: { path: '^web/src/' },
      to: { path: '^server/', dependencyTypesNot: ['type-only'] },
    },
    {
      name: 'the-bench-names-no-station',
      severity: 'error',
      from: { path: '^web/src/bench/' },
      to: { path: '^web/src/stations/', pathNot: '^web/src/stations/(index|station)\\.ts$' },
    },
    {
      name: 'the-engine-names-no-station',
      severity: 'error',
      from: { path: '^core/src/engine/', pathNot: '^core/src/engine/tasks\\.ts$' },
      to: {
        path: '^core/src/stations/',
        pathNot: '^core/src/stations/(index|station|inquiry|view)\\.ts$',
      },
    },
    {
      name: 'routes-import-no-routes',
      severity: 'error',
      from: { path: '^server/src/(routes|store|http)/' },
      to: { path: '^server/src/routes/' },
    },
    { name: 'no-cycles', severity: 'error', from: {}, to: { circular: true } },
  ],
};

const sources = PACKAGES.flatMap((name) =>
  readdirSync(codeOf(name), { recursive: true, encoding: 'utf8' })
    .filter((file) => /\.tsx?$/.test(file) && !file.endsWith('.d.ts'))
    .map((file) => `${codeOf(name)}/${file}`),
);

const { output } = await cruise(
  PACKAGES.map(codeOf),
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
const loose = sources.filter((file) => {
  const [, folder] = /^core\/src\/([^/]+)\//.exec(file) ?? [];
  return folder
    ? !LAYERS.includes(folder)
    : file.startsWith('core/src/') && !new RegExp(`^core/src/(${FILES_OF_CORE})\\.ts$`).test(file);
});
for (const { rule, from, to, cycle } of output.summary.violations) {
  const way = cycle ? cycle.map(({ name }) => name).join(' → ') : to;
  console.error(`${rule.name}: ${from} → ${way}`);
}
if (unread.length > 0) console.error(`Not read: ${unread.join(', ')}`);
if (loose.length > 0) console.error(`In no layer of core: ${loose.join(', ')}`);
// A reader that cannot parse TypeScript sees files without imports and finds no fault with them.
if (typed.length < sources.length / 2)
  console.error(`Only ${typed.length} of ${sources.length} modules show any import.`);
const isValid =
  output.summary.error === 0 &&
  unread.length === 0 &&
  loose.length === 0 &&
  typed.length >= sources.length / 2;
console.log(`${sources.length} modules read, ${output.summary.error} boundaries broken.`);
process.exit(isValid ? 0 : 1);
