import { type Counts, type Field, type Layout, modulo } from './cell.ts';

/** Whether the thread that runs down is on top where two cross. */
type IsWarp = (column: number, row: number) => boolean;

const CROSSINGS: Record<'plain' | 'twill' | 'basket', { period: number; isWarp: IsWarp }> = {
  plain: { period: 2, isWarp: (column, row) => modulo(column + row, 2) === 0 },
  twill: { period: 4, isWarp: (column, row) => modulo(column - row, 4) < 2 },
  basket: {
    period: 4,
    isWarp: (column, row) => modulo(Math.floor(column / 2) + Math.floor(row / 2), 2) === 0,
  },
};

/** The first and the last crossing about `at` over which a thread stays on top. */
function stretchOf(at: number, period: number, isOn: (at: number) => boolean): [number, number] {
  let [first, last] = [at, at];
  while (at - first < period && isOn(first - 1)) first--;
  while (last - first < period && isOn(last + 1)) last++;
  return [first, last];
}

/**
 * Threads that cross: each stretch of a thread on top of others is a cell, and the edge is that of the thread. Counts are
 * threads, brought to whole periods of the weave.
 */
const weave =
  (kind: keyof typeof CROSSINGS) =>
  (field: Field, counts: Counts): Layout => {
    const { period, isWarp } = CROSSINGS[kind];
    const whole = (count: number) => Math.max(period, period * Math.round(count / period));
    const [across, down] = [whole(counts.across), whole(counts.down)];
    const width = field.widthMm / across;
    const height = field.heightMm / down;
    return (x, y, out) => {
      const left = modulo(x, field.widthMm);
      const top = modulo(y, field.heightMm);
      const column = Math.min(across - 1, Math.floor(left / width));
      const row = Math.min(down - 1, Math.floor(top / height));
      const isDown = isWarp(column, row);
      // Along the thread that is on top, and aside of its middle.
      const [first, last] = isDown
        ? stretchOf(row, period, (at) => isWarp(column, at))
        : stretchOf(column, period, (at) => !isWarp(at, row));
      const [along, unit] = isDown ? [top, height] : [left, width];
      const aside = isDown
        ? width / 2 - Math.abs(left - (column + 0.5) * width)
        : height / 2 - Math.abs(top - (row + 0.5) * height);
      const start = isDown ? modulo(first, down) * across + column : row * across + modulo(first, across);
      out.cell = 2 * start + (isDown ? 1 : 0);
      out.edge = Math.min(aside, along - first * unit, (last + 1) * unit - along);
    };
  };

export const plainWeave = weave('plain');
export const twill = weave('twill');
export const basketWeave = weave('basket');
