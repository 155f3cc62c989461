import { Problem } from '@zesty-tile/core';
import type { Context, MiddlewareHandler } from 'hono';
import { knownHosts } from './hosts.ts';

const SAFE = ['GET', 'HEAD', 'OPTIONS'];

const refuse = (what: string): never => {
  throw new Problem('foreign', `${what} is not this server.`, 'Open it by the address it printed.');
};
const quoted = (text: string) => `“${text.slice(0, 100)}”`;

/** A page that is opened by a link or a bookmark: it is shown, and reads nothing. */
const isPageOpened = (c: Context): boolean =>
  c.req.method === 'GET' &&
  c.req.header('sec-fetch-mode') === 'navigate' &&
  c.req.header('sec-fetch-dest') === 'document' &&
  !c.req.path.startsWith('/api');

const isBrowser = (c: Context): boolean =>
  c.req.header('sec-fetch-site') !== undefined || /^Mozilla\//.test(c.req.header('user-agent') ?? '');

/**
 * Refuses requests that name another host, or come from another site's page, so that no web page can reach this server through
 * the user's browser. `host` is the address the server listens on.
 */
export function guard(host: string): MiddlewareHandler {
  const known = knownHosts(host);
  return async (c, next) => {
    const asked = c.req.header('host') ?? '';
    if (!known.has(asked.replace(/:\d+$/, '').toLowerCase())) refuse(quoted(asked));
    const origin = c.req.header('origin');
    if (origin !== undefined && origin.replace(/^https?:\/\//, '') !== asked) refuse(quoted(origin));
    const site = c.req.header('sec-fetch-site');
    if ((site === 'cross-site' || site === 'same-site') && !isPageOpened(c)) refuse('The page that asks');
    if (!SAFE.includes(c.req.method) && origin === undefined && isBrowser(c)) {
      refuse('A page that does not say where it is from');
    }
    await next();
  };
}
