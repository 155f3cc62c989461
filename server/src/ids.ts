import { randomUUID } from 'node:crypto';

/** A name for a new row. */
export const newId = (): string => randomUUID();
