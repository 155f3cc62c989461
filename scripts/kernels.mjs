import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

const ROOT = fileURLToPath(new URL('..', import.meta.url));
const SOURCES = `${ROOT}core/assembly`;
const OUT = `${ROOT}core/src/kernels/compiled.ts`;

/** Compiles the kernels to WASM with SIMD, as text in a module that is bundled; does nothing where that is done already. */
const names = readdirSync(SOURCES)
  .filter((name) => name.endsWith('.ts'))
  .sort();
const hash = createHash('sha256');
for (const name of names) hash.update(readFileSync(`${SOURCES}/${name}`));
const mark = `// ${hash.digest('hex')}`;
if (!existsSync(OUT) || !readFileSync(OUT, 'utf8').startsWith(mark)) {
  const { default: asc } = await import('assemblyscript/asc');
  let binary;
  const { error, stderr } = await asc.main(
    ['index.ts', '--outFile', 'kernels.wasm', '-O3', '--runtime', 'stub', '--noAssert', '--enable', 'simd'],
    {
      readFile: (name, base) => {
        const path = `${base.startsWith('/') ? base : `${SOURCES}/${base}`}/${name}`;
        return existsSync(path) ? readFileSync(path, 'utf8') : null;
      },
      writeFile: (_name, contents) => {
        binary = contents;
      },
      listFiles: () => [],
    },
  );
  if (error || !binary) {
    console.error(`The kernels could not be compiled: ${error?.message}\n${stderr}`);
    process.exit(1);
  }
  const text = Buffer.from(binary).toString('base64');
  writeFileSync(OUT, `${mark}\n/** The kernels as WASM, base64. */\nexport const COMPILED =\n  '${text}';\n`);
  console.log(`Kernels compiled: ${binary.length} bytes of WASM.`);
}
