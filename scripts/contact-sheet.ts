import sharp, { type Sharp } from 'sharp';

/** A small picture of a sheet: RGBA codes of a square, and the words below it. */
export interface SheetCell {
  words: string;
  rgba: Uint8ClampedArray;
}

interface SheetLayout {
  columns: number;
  /** Side of a cell, in pixels. */
  cell: number;
}

const WORDS = 18;
const GAP = 6;

/** Cells row by row, their words below. */
export function contactSheet(cells: readonly SheetCell[], { columns, cell }: SheetLayout): Sharp {
  const rows = Math.ceil(cells.length / columns);
  const place = (k: number) => ({
    left: GAP + (k % columns) * (cell + GAP),
    top: GAP + Math.floor(k / columns) * (cell + WORDS + GAP),
  });
  const width = GAP + columns * (cell + GAP);
  const height = GAP + rows * (cell + WORDS + GAP);
  const pictures = cells.map(({ rgba }, k) => ({
    input: Buffer.from(rgba.buffer),
    raw: { width: cell, height: cell, channels: 4 as const },
    ...place(k),
  }));
  const words = cells.map(({ words }, k) => {
    const { left, top } = place(k);
    return `<text x="${left + cell / 2}" y="${top + cell + 13}" text-anchor="middle">${words}</text>`;
  });
  const labels = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" font-family="sans-serif" font-size="11" fill="#1d1d1d">${words.join('')}</svg>`;
  return sharp({ create: { width, height, channels: 3, background: '#f2f2f2' } }).composite([
    ...pictures,
    { input: Buffer.from(labels), left: 0, top: 0 },
  ]);
}
