import type { App } from '@zesty-tile/server';
import { hc } from 'hono/client';

/** The server's API, typed end to end. */
export const api = hc<App>('/').api;

/** What the server says is wrong, or that it is not there. */
export class ApiError extends Error {
  readonly code: string;
  readonly hint: string;

  constructor(code: string, message: string, hint: string) {
    super(message);
    this.code = code;
    this.hint = hint;
  }
}

/** The JSON of an answer. @throws ApiError in plain words. */
export async function answerOf<T>(request: Promise<{ ok: boolean; json(): Promise<T> }>): Promise<T> {
  let response: { ok: boolean; json(): Promise<T> };
  try {
    response = await request;
  } catch {
    throw new ApiError('away', 'Cannot reach the server.', 'See that it runs, then try again.');
  }
  if (response.ok) return response.json();
  const { error } = (await response.json()) as unknown as {
    error: { code: string; message: string; hint: string };
  };
  throw new ApiError(error.code, error.message, error.hint);
}
