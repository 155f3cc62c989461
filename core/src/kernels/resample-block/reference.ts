import type { Affine } from '../../raster/affine.ts';
import { type Edges, edgeIndex } from '../../raster/edges.ts';
import { PHASES, type PhaseTable } from '../../raster/phases.ts';
import type { Raster } from '../../raster/raster.ts';

/** A rectangle of output pixels. */
export interface Block {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** How far a grid may lean against the picture for two passes: seen along a leaning line, detail is finer by as much. */
const LEAN = 0.25;

/** Whether a grid lies so nearly along the rows and columns of its picture that it can be made in two passes. */
export const leansLittle = ({ rightX, rightY, downX, downY }: Affine): boolean =>
  Math.abs(rightY) <= LEAN * Math.abs(rightX) && Math.abs(downX) <= LEAN * Math.abs(downY);

/** Where the first pass takes column `u` of a grid from row `r` of the picture: at `from` + `along`·u + `lean`·r. */
export function alongRows({ originX, originY, rightX, rightY, downX, downY }: Affine) {
  const lean = downX / downY;
  return { from: originX - lean * originY, along: rightX - lean * rightY, lean };
}

/** Rows and columns of the picture that a block of a grid looks at, those beyond its edges too. */
export function lookedAt(grid: Affine, { taps, before }: PhaseTable, { x, y, width, height }: Block) {
  const { from, along, lean } = alongRows(grid);
  const whole = (ends: number[]) => {
    const low = Math.floor(Math.min(...ends)) - before;
    return { low, count: Math.floor(Math.max(...ends)) - before + taps - low };
  };
  const columns = [x, x + width - 1];
  const rows = whole(
    columns.flatMap((u) => [y, y + height - 1].map((v) => grid.originY + u * grid.rightY + v * grid.downY)),
  );
  const ends = [rows.low, rows.low + rows.count - 1];
  return { rows, columns: whole(columns.flatMap((u) => ends.map((r) => from + along * u + lean * r))) };
}

/**
 * A block of an affine grid that leans little, in two passes (Catmull & Smith 1980): columns of the grid from the rows of the
 * picture, then its rows from those columns. Written in its place in `into`.
 */
export function resampleBlock(
  { width, height, planes }: Raster,
  edges: Edges,
  grid: Affine,
  table: PhaseTable,
  block: Block,
  into: Raster,
): void {
  const { taps, before, weights } = table;
  const { from, along, lean } = alongRows(grid);
  const { rows } = lookedAt(grid, table, block);
  const phase = (at: number) => Math.floor((at - Math.floor(at)) * PHASES) * taps;
  const middle = new Float32Array(rows.count * block.width);
  for (const [c, plane] of planes.entries()) {
    for (let j = 0, i = 0; j < rows.count; j++) {
      const row = edgeIndex(rows.low + j, height, edges.y) * width;
      for (let u = block.x; u < block.x + block.width; u++, i++) {
        const at = from + along * u + lean * (rows.low + j);
        const [left, w] = [Math.floor(at) - before, phase(at)];
        let sum = 0;
        for (let k = 0; k < taps; k++)
          sum += weights[w + k] * plane[row + edgeIndex(left + k, width, edges.x)];
        middle[i] = sum;
      }
    }
    for (let v = block.y; v < block.y + block.height; v++) {
      for (let x = 0; x < block.width; x++) {
        const at = grid.originY + (block.x + x) * grid.rightY + v * grid.downY;
        const [top, w] = [Math.floor(at) - before - rows.low, phase(at)];
        let sum = 0;
        for (let k = 0; k < taps; k++) sum += weights[w + k] * middle[(top + k) * block.width + x];
        into.planes[c][v * into.width + block.x + x] = sum;
      }
    }
  }
}

export const reference = { resampleBlock };
