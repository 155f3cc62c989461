import type { PaletteColour } from './use-palettes.ts';

/** What a palette's JSON file holds. */
export interface PaletteFile {
  name: string;
  colours: PaletteColour[];
}

export const paletteText = ({ name, colours }: PaletteFile): string =>
  `${JSON.stringify({ name, colours }, null, 2)}\n`;

/** Reads a palette's JSON: `{ name, colours: [{ name, hex }] }`. @throws Error in plain words. */
export function readPalette(text: string, fallbackName: string): PaletteFile {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new Error('The file is not JSON. Use one that was exported here.');
  }
  const { name, colours } = (value ?? {}) as { name?: unknown; colours?: unknown };
  if (!Array.isArray(colours)) {
    throw new Error(
      'The file holds no list “colours”. It should read { "name": …, "colours": [{ "name": …, "hex": "#rrggbb" }] }.',
    );
  }
  return {
    name: typeof name === 'string' && name.trim() ? name : fallbackName,
    colours: colours.map((colour, k) => {
      const { name: own, hex } = (colour ?? {}) as { name?: unknown; hex?: unknown };
      if (typeof hex !== 'string' || !/^#[0-9a-f]{6}$/i.test(hex)) {
        throw new Error(`Colour ${k + 1} is “${String(hex)}”; a colour is written as #rrggbb.`);
      }
      return { name: typeof own === 'string' ? own : '', hex: hex.toLowerCase() };
    }),
  };
}
