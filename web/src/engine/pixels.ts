import { type EngineHost, type Pixels, Problem } from '@zesty-tile/core';

interface PixelsHeader {
  width: number;
  height: number;
  channels: 3 | 4;
  bits: 8 | 16;
  originalWidth: number;
  originalHeight: number;
}

async function fetchPixels(sha256: string, shortEdge: number): Promise<Pixels> {
  let response: Response;
  try {
    response = await fetch(`/api/sources/${sha256}/pixels?edge=${shortEdge}`);
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
  return { ...facts, data: bits === 16 ? new Uint16Array(buffer) : new Uint8Array(buffer) };
}

/** Samples come from the server alone, so that browser, crate and command line start from the same. */
export const serverHost: EngineHost = {
  pixels: (source, shortEdge) => fetchPixels(source.sha256, shortEdge),
};
