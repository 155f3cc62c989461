import { join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { createClient } from '@libsql/client';
import { drizzle, type LibSQLDatabase } from 'drizzle-orm/libsql';
import { migrate } from 'drizzle-orm/libsql/migrator';
import * as schema from './schema.ts';

export type Database = LibSQLDatabase<typeof schema>;

const MIGRATIONS = fileURLToPath(new URL('../../drizzle', import.meta.url));

/** Opens (or makes) the database in a folder that is there and brings it to the present schema. */
export async function openDatabase(folder: string): Promise<{ db: Database; close(): void }> {
  const client = createClient({ url: pathToFileURL(join(folder, 'zesty.db')).href });
  const db = drizzle(client, { schema });
  try {
    await client.execute('PRAGMA journal_mode = WAL');
    await client.execute('PRAGMA busy_timeout = 5000');
    await client.execute('PRAGMA foreign_keys = ON');
    await migrate(db, { migrationsFolder: MIGRATIONS });
  } catch (error) {
    client.close();
    throw error;
  }
  return { db, close: () => client.close() };
}
