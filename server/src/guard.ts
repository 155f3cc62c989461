import { Problem } from '@zesty-tile/core';
import type { MiddlewareHandler } from 'hono';

const LOCAL = ['127.0.0.1', 'localhost', '[::1]'];

const hostOf = (value: string): string => value.replace(/:\d+$/, '');

/**
 * Refuses requests that name another host, or come from another site's page, so that no web page can
 * reach this server through the user's browser. `host` is the address the server listens on.
 */
export function guard(host: string): MiddlewareHandler {
  const known = new Set([...LOCAL, host]);
  const refuse = (what: string) => {
    throw new Problem('foreign', `${what} is not this server.`, 'Open it by the address it printed.');
  };
  return async (c, next) => {
    const asked = c.req.header('host') ?? '';
    if (!known.has(hostOf(asked))) refuse(`“${asked}”`);
    const origin = c.req.header('origin');
    if (origin !== undefined && origin.replace(/^https?:\/\//, '') !== asked) refuse(`“${origin}”`);
    await next();
    c.header('Cross-Origin-Opener-Policy', 'same-origin');
    c.header('Cross-Origin-Embedder-Policy', 'require-corp');
    c.header('Cross-Origin-Resource-Policy', 'same-origin');
    c.header('X-Content-Type-Options', 'nosniff');
  };
}
