import { wrapped } from '../raster/wrapped.ts';
import { type Canvas, layerOf, numbersOf, put, type Where } from './canvas.ts';
import { type Filling, filled } from './fill.ts';
import type { PaintStroke } from './stroke.ts';

/** The region of like colour about the first point of a stroke. */
export function paintFill(canvas: Canvas, stroke: PaintStroke & { fill: Filling }, where: Where): void {
  const { width, height, ground, indices } = where;
  const { cover, carried } = canvas;
  const painted = carried.colour;
  /** What is painted, over what is below it. */
  const seen = (i: number): readonly [number, number, number] => {
    const [r, g, b] = ground ? ground.planes.map((plane) => plane[i]) : [0, 0, 0];
    if (!painted) return [r, g, b];
    const [share, part] = [cover[i], painted.has[i]];
    const over = (below: number, c: number) => below + share * (painted.values[c][i] - part * below);
    return [over(r, 0), over(g, 1), over(b, 2)];
  };
  const [u, v] = stroke.points[0];
  const at = (share: number, n: number) => wrapped(Math.floor(share * n), n);
  const start = at(v, height) * width + at(u, width);
  const { pixels, shares, lines } = filled(seen, start, stroke.fill, where);
  const flow = stroke.flow ?? 1;
  const whole = layerOf(canvas, stroke, true);
  const colour = numbersOf(stroke.paint, 'colour', 0);
  for (const [k, i] of pixels.entries()) {
    const line = lines[k];
    for (const index of indices) {
      if (!line || !colour || flow < 1 || stroke.erase) {
        put(canvas, index(i), flow * shares[k], whole);
        continue;
      }
      // Where a line covers a part of the pixel, that keeps its colour.
      const mixed = colour.map((own, c) => line[c] + shares[k] * (own - line[c]));
      const into = whole.into.map((one) => (one.channel === 'colour' ? { ...one, numbers: mixed } : one));
      put(canvas, index(i), 1, { ...whole, into });
    }
  }
}
