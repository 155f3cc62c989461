import { readdirSync, readFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import { ROOT } from './setup.mjs';

/** What the browser loads, kB on the wire: before it can show any page, and with what the Yard needs before it is seen. */
const MOST_KB = { 'any page': 185, 'the Yard': 290 };

const assets = `${ROOT}/web/dist/assets`;
const page = readFileSync(`${ROOT}/web/dist/index.html`, 'utf8');
const first = [...page.matchAll(/(?:src|href)="\/assets\/([^"]+\.js)"/g)].map(([, name]) => name);
const yard = readdirSync(assets).filter((name) => /^yard-[^.]*\.js$/.test(name));

/** Chunks, with all that they import at once. */
function withImports(names) {
  const found = new Set();
  const add = (name) => {
    if (found.has(name)) return;
    found.add(name);
    const text = readFileSync(`${assets}/${name}`, 'utf8');
    for (const [, next] of text.matchAll(/(?:from|import)"\.\/([^"]+\.js)"/g)) add(next);
  };
  for (const name of names) add(name);
  return [...found];
}

let isOver = first.length === 0 || yard.length !== 1;
for (const [what, names] of [
  ['any page', withImports(first)],
  ['the Yard', withImports([...first, ...yard])],
]) {
  const kb = names.map((name) => gzipSync(readFileSync(`${assets}/${name}`)).length / 1000);
  const sum = kb.reduce((all, one) => all + one, 0);
  for (const [k, name] of names.entries()) console.log(`${kb[k].toFixed(1).padStart(7)} kB  ${name}`);
  console.log(
    `${sum.toFixed(1).padStart(7)} kB in all before ${what} is seen, compressed; ${MOST_KB[what]} at most\n`,
  );
  if (sum > MOST_KB[what]) isOver = true;
}
if (isOver) process.exit(1);
