import { readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { createClient } from '@libsql/client';
import { sha256Of } from '@zesty-tile/codecs';

/** What is wrong with a set in a folder: its manifest and every file that it names. Empty where it is whole. */
export async function brokenSet(folder: string): Promise<string[]> {
  const names = await readdir(folder).catch(() => []);
  const manifest = names.find((name) => name.endsWith('.tile.json'));
  if (!manifest) return [`no manifest in ${folder}`];
  const { files, texts } = JSON.parse(await readFile(join(folder, manifest), 'utf8'));
  const broken: string[] = [];
  for (const { file, inside, sha256 } of [...files, ...texts]) {
    if (inside) continue;
    const bytes = await readFile(join(folder, file)).catch(() => null);
    if (!bytes) broken.push(`${file} is missing`);
    else if (sha256Of(bytes) !== sha256) broken.push(`${file} is not the one of its manifest`);
  }
  return broken;
}

/** Unfinished work that lies about in a folder. */
export async function partsIn(folder: string): Promise<string[]> {
  const names = await readdir(folder, { recursive: true }).catch(() => []);
  return names.filter((name) => name.endsWith('.part')).map((name) => `${name} was left`);
}

/** What the database finds wrong with itself. */
export async function brokenDatabase(data: string): Promise<string[]> {
  const client = createClient({ url: pathToFileURL(join(data, 'zesty.db')).href });
  try {
    const { rows } = await client.execute('PRAGMA integrity_check');
    const words = rows.map((row) => String(row[0]));
    return words.length === 1 && words[0] === 'ok' ? [] : [`database: ${words.join(', ')}`];
  } finally {
    client.close();
  }
}
