import { randomBytes, timingSafeEqual } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Problem } from '@zesty-tile/core';
import { writeWhole } from '@zesty-tile/crates';
import type { MiddlewareHandler } from 'hono';
import { getCookie, setCookie } from 'hono/cookie';

const COOKIE = 'zesty_token';
const COOKIE_SECONDS = 30 * 24 * 3600;
const FORM = /^[0-9a-f]{48}$/;

/** The token of a data folder, made at the first need. It stays the same, so that browsers stay admitted. */
export async function tokenOf(folder: string): Promise<string> {
  const path = join(folder, 'token');
  const known = await readFile(path, 'utf8').catch(() => '');
  if (FORM.test(known)) return known;
  const token = randomBytes(24).toString('hex');
  await writeWhole(path, new TextEncoder().encode(token), 0o600);
  return token;
}

const page = `<!doctype html>
<html lang="en">
<meta charset="utf-8">
<title>Zesty Tile</title>
<body style="font: 16px/1.5 sans-serif; max-width: 34em; margin: 12vh auto; padding: 0 1em">
<h1 style="font-size: 1.3em">This server asks for its token</h1>
<p>It can be reached from other machines, so it admits only those who know its token. The token was printed when the
server started, and is in the file “token” of its data folder.</p>
<form><label>Token <input name="token" autocomplete="off" style="font: inherit; width: 20em"></label> <button style="font: inherit">Open</button></form>
</body>
</html>
`;

/** Admits only requests that carry the token: in a cookie, which an address with `?token=` sets, or as a bearer token. */
export function tokenGuard(token: string): MiddlewareHandler {
  const expected = Buffer.from(token);
  const isToken = (given: string | undefined) => {
    const bytes = Buffer.from(given ?? '');
    return bytes.length === expected.length && timingSafeEqual(bytes, expected);
  };
  return async (c, next) => {
    const bearer = /^Bearer (.*)$/.exec(c.req.header('authorization') ?? '')?.[1];
    if (isToken(getCookie(c, COOKIE)) || isToken(bearer)) return next();
    const isApi = c.req.path.startsWith('/api');
    if (!isApi && isToken(c.req.query('token'))) {
      setCookie(c, COOKIE, token, { httpOnly: true, sameSite: 'Lax', path: '/', maxAge: COOKIE_SECONDS });
      return c.redirect(c.req.path, 303);
    }
    if (!isApi) return c.html(page, 401);
    throw new Problem(
      'unauthorised',
      'This server asks for its token.',
      'Open the address it printed at its start, or send the token as a bearer token.',
    );
  };
}
