import { type EngineHost, type Pixels, Problem } from '@zesty-tile/core';
import { api } from '../api/client.ts';
import { plainPixels } from './plain-source.ts';

interface PixelsHeader {
  width: number;
  height: number;
  channels: 3 | 4;
  bits: 8 | 16 | 32;
  originalWidth: number;
  originalHeight: number;
}

async function fetchPixels(sha256: string, shortEdge: number, as: 'colour' | 'data'): Promise<Pixels> {
  let response: Response;
  try {
    response = await api.sources[':sha256'].pixels.$get({
      param: { sha256 },
      query: { edge: String(shortEdge), as },
    } as never);
  } catch {
    throw new Problem(
      'away',
      'The server does not answer, so the photo cannot be read.',
      'See that it runs; the work goes on as soon as it is back.',
    );
  }
  if (!response.ok) {
    const { error } = await response.json();
    throw new Problem(error.code, error.message, error.hint);
  }
  const header: PixelsHeader = JSON.parse(response.headers.get('X-Pixels') ?? '{}');
  const buffer = await response.arrayBuffer();
  const { bits, ...facts } = header;
  const Samples = { 8: Uint8Array, 16: Uint16Array, 32: Float32Array }[bits];
  return { ...facts, data: new Samples(buffer) };
}

/** Samples come from the server alone, so that browser, crate and command line start from the same. */
export const serverHost: EngineHost = {
  pixels: async ({ sha256 }, shortEdge, kind) =>
    plainPixels(sha256, shortEdge) ?? fetchPixels(sha256, shortEdge, kind),
};
