import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { expect } from 'chai';
import { TASKS } from '../../src/engine/tasks.ts';
import { KERNELS } from '../../src/kernels/kernels.ts';
import { REFERENCE } from '../../src/kernels/registry.ts';

const at = (path: string) => fileURLToPath(new URL(`../../${path}`, import.meta.url));

describe('kernels and tasks', () => {
  it('every kernel has its folder, with a twin and a source of the same name in assembly', () => {
    const folders = readdirSync(at('src/kernels'), { withFileTypes: true })
      .filter((entry) => entry.isDirectory() && entry.name !== 'host')
      .map(({ name }) => name);
    expect(folders).to.have.length.above(20);
    for (const folder of folders) {
      expect(existsSync(at(`src/kernels/${folder}/reference.ts`)), folder).to.equal(true);
      expect(existsSync(at(`src/kernels/${folder}/wasm.ts`)), folder).to.equal(true);
      expect(existsSync(at(`assembly/${folder}.ts`)), folder).to.equal(true);
    }
    expect(Object.keys(KERNELS).sort()).to.deep.equal(Object.keys(REFERENCE).sort());
    for (const [name, kernel] of Object.entries(KERNELS)) {
      expect(kernel, `${name} in WASM`).to.not.equal(REFERENCE[name as keyof typeof REFERENCE]);
    }
  });

  it('every task that is declared is known to helpers', () => {
    const files = readdirSync(at('src'), { recursive: true, encoding: 'utf8' }).filter(
      (file) => file.endsWith('.ts') && file !== 'team/task.ts',
    );
    const declared = files.flatMap((file) =>
      [...readFileSync(at(`src/${file}`), 'utf8').matchAll(/= task\(\s*'(\w+)'/g)].map(([, name]) => name),
    );
    expect(declared.sort()).to.deep.equal(TASKS.map(({ name }) => name).sort());
    expect(new Set(declared).size).to.equal(declared.length);
  });
});
