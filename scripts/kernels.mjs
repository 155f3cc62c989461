import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

const ROOT = fileURLToPath(new URL('..', import.meta.url));
const SOURCES = `${ROOT}core/assembly`;
const OUT = `${ROOT}core/src/kernels/host/compiled.ts`;

const KERNELS = `${ROOT}core/src/kernels`;
const REGISTRY = `${KERNELS}/registry.ts`;

/** Writes the list of kernels: every folder with a reference in TypeScript and its twin in WASM. */
const folders = readdirSync(KERNELS, { withFileTypes: true })
  .filter((entry) => entry.isDirectory() && existsSync(`${KERNELS}/${entry.name}/reference.ts`))
  .map(({ name }) => name)
  .sort();
const nameOf = (folder) => folder.replace(/-(\w)/g, (_dash, letter) => letter.toUpperCase());
const registry = `// Written by scripts/kernels.mjs from the folders beside it.
import type { WasmHost } from './host/wasm.ts';
${folders.map((folder) => `import * as ${nameOf(folder)} from './${folder}/reference.ts';\nimport * as ${nameOf(folder)}Twin from './${folder}/wasm.ts';`).join('\n')}

/** In plain TypeScript. */
export const REFERENCE = {
${folders.map((folder) => `  ...${nameOf(folder)}.reference,`).join('\n')}
};

/** In WASM with SIMD. */
export const wasmKernels = (host: WasmHost): typeof REFERENCE => ({
${folders.map((folder) => `  ...${nameOf(folder)}Twin.wasm(host),`).join('\n')}
});
`;
if (!existsSync(REGISTRY) || readFileSync(REGISTRY, 'utf8') !== registry) writeFileSync(REGISTRY, registry);

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
