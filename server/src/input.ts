import { Problem } from '@zesty-tile/core';
import type { Context } from 'hono';
import * as v from 'valibot';

/** The JSON body of a request through a schema. @throws Problem that names the field. */
export async function bodyOf<T>(c: Context, schema: v.GenericSchema<unknown, T>): Promise<T> {
  let value: unknown;
  try {
    value = await c.req.json();
  } catch {
    throw new Problem('bad_input', 'The request holds no JSON.', 'Send a JSON object.');
  }
  const result = v.safeParse(schema, value);
  if (result.success) return result.output;
  const issue = result.issues[0];
  const field = v.getDotPath(issue) ?? undefined;
  throw new Problem(
    'bad_input',
    `${field ? `“${field}”: ` : ''}${issue.message}`,
    'Correct it and send again.',
    field,
  );
}

/** A name as people write it: not empty, one line, at most 120 characters. */
export const nameSchema = v.pipe(
  v.string('A name is a text.'),
  v.transform((name) => name.replace(/\s+/g, ' ').trim()),
  v.minLength(1, 'A name needs at least one character.'),
  v.maxLength(120, 'A name has at most 120 characters.'),
);

/** A short word to find tiles by. */
export const tagSchema = v.pipe(
  v.string('A tag is a text.'),
  v.transform((name) => name.replace(/\s+/g, ' ').trim().toLowerCase()),
  v.minLength(1, 'A tag needs at least one character.'),
  v.maxLength(40, 'A tag has at most 40 characters.'),
);
