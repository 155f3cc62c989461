import { readFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import { ROOT } from './setup.mjs';

/** What the browser loads before it can show any page, kB on the wire. */
const MOST_KB = 195;

const dist = `${ROOT}/web/dist`;
const page = readFileSync(`${dist}/index.html`, 'utf8');
const scripts = [...page.matchAll(/(?:src|href)="(\/assets\/[^"]+\.js)"/g)].map(([, path]) => path);
const kb = scripts.map((path) => gzipSync(readFileSync(dist + path)).length / 1000);
const sum = kb.reduce((all, one) => all + one, 0);
for (const [k, path] of scripts.entries()) console.log(`${kb[k].toFixed(1).padStart(7)} kB  ${path}`);
console.log(`${sum.toFixed(1).padStart(7)} kB in all before the first page, compressed; ${MOST_KB} at most`);
if (scripts.length === 0 || sum > MOST_KB) process.exit(1);
