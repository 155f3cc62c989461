import { spawn, spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { dirname } from 'node:path';
import { ensureInstalled, ROOT, run } from './setup.mjs';

// npm run check: types, lint, boundaries, unused code, and the unit tests beside what changed since the last commit.

/** Tests that take minutes: npm test runs them. */
const LONG = ['torture/test', 'demo/test'];

ensureInstalled();

const CHECKS = {
  types: ['tsc', '-p', 'tsconfig.json'],
  'types of core without a platform': ['tsc', '-p', 'core/tsconfig.json'],
  lint: ['biome', 'check', '.'],
  'module boundaries': ['node', 'scripts/boundaries.mjs'],
  'unused exports and packages': ['knip'],
};

/** Runs a command; its output is shown only where it fails. */
function passes(name, [command, ...args]) {
  return new Promise((resolve) => {
    const isNode = command === 'node';
    const child = spawn(isNode ? process.execPath : 'npx', isNode ? args : ['--no', '--', command, ...args], {
      cwd: ROOT,
    });
    let output = '';
    for (const stream of [child.stdout, child.stderr]) {
      stream.on('data', (text) => {
        output += text;
      });
    }
    child.on('exit', (code) => {
      console.log(`${code === 0 ? 'passed' : 'FAILED'}: ${name}`);
      if (code !== 0) console.log(output);
      resolve(code === 0);
    });
  });
}

const changed = spawnSync('git', ['status', '--porcelain', '--untracked-files=all'], {
  cwd: ROOT,
  encoding: 'utf8',
})
  .stdout.split('\n')
  .map((line) => line.slice(3).split(' -> ').at(-1).replaceAll('"', ''))
  .filter((file) => /\.tsx?$/.test(file));

/** The folder of tests that mirrors a source's folder, or the nearest one above it that there is. */
function testsOf(file) {
  const [name, part] = file.split('/');
  if (part === 'test') return /\.test\.ts$/.test(file) ? file : null;
  if (part !== 'src') return null;
  let folder = dirname(file).replace(`${name}/src`, `${name}/test`);
  while (folder.startsWith(`${name}/test`) && !existsSync(`${ROOT}${folder}`)) folder = dirname(folder);
  return folder.startsWith(`${name}/test`) ? `${folder}/*.test.ts` : null;
}

const tests = [...new Set(changed.map(testsOf))].filter(
  (glob) => glob && !glob.startsWith('e2e/') && !LONG.some((folder) => glob.startsWith(folder)),
);
const results = await Promise.all(Object.entries(CHECKS).map(([name, command]) => passes(name, command)));
let isPassed = results.every(Boolean);
if (tests.length > 0) {
  console.log(`Unit tests beside what changed: ${tests.join(', ')}`);
  const args = ['mocha', '--no-config', '--import=tsx', '--parallel', '--jobs', '2', '--reporter', 'dot'];
  isPassed = run('npx', [...args, '--timeout', '180000', ...tests], { mayFail: true }) === 0 && isPassed;
} else console.log('No unit test is beside what changed.');
process.exit(isPassed ? 0 : 1);
