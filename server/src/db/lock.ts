import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { createClient } from '@libsql/client';
import { Problem } from '@zesty-tile/core';

/**
 * Locks a data folder for this server, so that a second one cannot work on the same files. The lock is a write transaction on
 * a database of its own: the system ends it with the process, however that ends. Returns how to release it.
 * @throws Problem `in_use` where another server has the folder.
 */
export async function lockFolder(folder: string): Promise<() => Promise<void>> {
  const client = createClient({ url: pathToFileURL(join(folder, 'server.lock')).href });
  try {
    const held = await client.transaction('write');
    return async () => {
      // A connection that is closed within a transaction keeps its lock until it is collected.
      await held.rollback();
      client.close();
    };
  } catch (error) {
    client.close();
    const { code } = error as { code?: string };
    if (code !== 'SQLITE_BUSY' && code !== 'SQLITE_LOCKED') throw error;
    throw new Problem(
      'in_use',
      `Another server works on the data folder ${folder}.`,
      'Use that one, end it first, or name another folder with ZESTY_DATA.',
    );
  }
}
