import { readFileSync, rmSync } from 'node:fs';
import { ensureChromium, ensureInstalled, ensureRedis, ROOT, run } from './setup.mjs';

ensureInstalled();
const chromium = ensureChromium();
if (!ensureRedis())
  console.log('\nNo Redis for the tests of the shared queue. Run: sudo apt-get install -y redis-server');

let passed = 0;
const failed = [];
const again = [];

function check(name, command, args) {
  console.log(`\n— ${name}`);
  if (run(command, args, { mayFail: true }) === 0) passed++;
  else failed.push(name);
}

function suite(name, args, env = {}) {
  console.log(`\n— ${name}`);
  const report = `${ROOT}/node_modules/.cache/counts-${name.replace(/\W/g, '-')}.json`;
  rmSync(report, { force: true });
  const code = run('npx', ['mocha', ...args], { mayFail: true, env: { ...env, ZESTY_COUNTS: report } });
  try {
    const counts = JSON.parse(readFileSync(report, 'utf8'));
    passed += counts.passes;
    failed.push(...counts.failed);
    again.push(...counts.again);
    if (code !== 0 && counts.failed.length === 0) failed.push(`${name}: ended with code ${code}`);
  } catch {
    failed.push(`${name}: broke off before they were counted`);
  }
}

check('types', 'npx', ['tsc', '-p', 'tsconfig.json']);
check('types of core without a platform', 'npx', ['tsc', '-p', 'core/tsconfig.json']);
check('lint', 'npx', ['biome', 'check', '.']);
check('module boundaries', 'node', ['scripts/boundaries.mjs']);
check('unused exports and packages', 'npx', ['knip']);
suite('unit tests', []);
check('build', 'npm', ['run', '--silent', 'build']);
check('size of the main bundle', 'node', ['scripts/bundle.mjs']);
if (chromium) {
  suite('browser tests', ['--config', 'e2e/.mocharc.json'], { ZESTY_CHROMIUM: chromium });
} else {
  console.log('\nNo Chromium for the browser tests. Run: sudo apt-get install -y chromium');
  failed.push('browser tests: no Chromium');
}

if (again.length > 0) console.log(`\ntried a second time:\n${again.map((name) => `  ${name}`).join('\n')}`);
// Named once more at the end, where a log that is cut off still shows them.
if (failed.length > 0) console.log(`\nfailed:\n${failed.map((name) => `  ${name}`).join('\n')}`);
console.log(`\ntests: ${passed} passed, ${failed.length} failed`);
process.exit(failed.length === 0 ? 0 : 1);
