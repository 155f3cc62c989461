import { Problem } from '@zesty-tile/core';
import type { Context } from 'hono';
import * as v from 'valibot';

interface BodyLimit {
  /** The most bytes of a JSON body. */
  most: number;
  /** What to do about more. */
  hint: string;
}

const USUAL_BODY: BodyLimit = { most: 2 ** 20, hint: 'Send less at once.' };
/** Of a body that holds a recipe, with its strokes. */
export const RECIPE_BODY: BodyLimit = {
  most: 16 * 2 ** 20,
  hint: 'Remove some of the strokes by hand, then save it again.',
};
/** The deepest nesting of a JSON body; a recipe has eight levels. */
const MOST_LEVELS = 32;

const size = (bytes: number) => `${bytes / 2 ** 20} MB`;

/** The body of a request as text. @throws Problem `body_too_large` as soon as more than `most` bytes have come. */
async function textOf(c: Context, { most, hint }: BodyLimit): Promise<string> {
  const tooLarge = () =>
    new Problem('body_too_large', `The request holds more than ${size(most)}; nothing was changed.`, hint);
  if (Number(c.req.header('content-length') ?? 0) > most) throw tooLarge();
  const decoder = new TextDecoder();
  let text = '';
  let bytes = 0;
  for await (const chunk of (c.req.raw.body ?? []) as AsyncIterable<Uint8Array>) {
    bytes += chunk.length;
    if (bytes > most) throw tooLarge();
    text += decoder.decode(chunk, { stream: true });
  }
  return text + decoder.decode();
}

/** Keys that reach into the objects of the program itself. */
const FORBIDDEN = new Set(['__proto__', 'constructor', 'prototype']);

/** @throws Problem `bad_input` for keys that no object may have, and for nesting that no request needs. */
function checkShape(value: unknown, level = 0): void {
  if (typeof value !== 'object' || value === null) return;
  if (level >= MOST_LEVELS) {
    throw new Problem('bad_input', 'The request is nested too deeply.', 'Send a flatter JSON object.');
  }
  for (const [key, inner] of Object.entries(value)) {
    if (FORBIDDEN.has(key)) {
      throw new Problem('bad_input', `“${key}” is not a name that may be used here.`, 'Remove it.', key);
    }
    checkShape(inner, level + 1);
  }
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    throw new Problem('bad_input', 'The request holds no JSON.', 'Send a JSON object.');
  }
}

/**
 * The JSON body of a request through a schema.
 * @throws Problem `bad_input` that names the field, `body_too_large` above its limit.
 */
export async function bodyOf<T>(
  c: Context,
  schema: v.GenericSchema<unknown, T>,
  limit = USUAL_BODY,
): Promise<T> {
  const value = parsed(await textOf(c, limit));
  checkShape(value);
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

/** Characters that no name has: those that steer a terminal or a text, and unpaired halves of a character. */
const isPrintable = (text: string) => !/\p{Cc}|\p{Cs}/u.test(text);

/** A name as people write it: not empty, one line, at most 120 characters. */
export const nameSchema = v.pipe(
  v.string('A name is a text.'),
  v.transform((name) => name.replace(/\s+/g, ' ').trim()),
  v.minLength(1, 'A name needs at least one character.'),
  v.maxLength(120, 'A name has at most 120 characters.'),
  v.check(isPrintable, 'A name holds printable characters only.'),
);

/** A short word to find tiles by. */
export const tagSchema = v.pipe(
  v.string('A tag is a text.'),
  v.transform((name) => name.replace(/\s+/g, ' ').trim().toLowerCase()),
  v.minLength(1, 'A tag needs at least one character.'),
  v.maxLength(40, 'A tag has at most 40 characters.'),
  v.check(isPrintable, 'A tag holds printable characters only.'),
);
