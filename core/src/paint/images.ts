import type { Sides } from '../raster/sides.ts';
import type { PaintStroke } from './stroke.ts';

/** Stamps that are turned with the points of their stroke. */
const TURN_BY_WAY: readonly string[] = ['along', 'pen'];

/** An angle in degrees, −180..180. */
const turned = (degrees: number): number => ((((degrees + 180) % 360) + 360) % 360) - 180;

/** A stroke and the same turned about a place by equal parts of a whole turn. */
export function turnedImages(stroke: PaintStroke, { width, height }: Sides): PaintStroke[] {
  const { turns } = stroke;
  if (!turns) return [stroke];
  const [cx, cy] = [turns.x * width, turns.y * height];
  return Array.from({ length: turns.count }, (_, k) => {
    const angle = (2 * Math.PI * k) / turns.count;
    const [sin, cos] = [Math.sin(angle), Math.cos(angle)];
    const points = stroke.points.map(([u, v, pressure, lean]) => {
      const rest =
        lean === undefined ? [pressure ?? 1] : [pressure ?? 1, turned(lean + (360 * k) / turns.count)];
      const [dx, dy] = [u * width - cx, v * height - cy];
      return [(cx + cos * dx - sin * dy) / width, (cy + sin * dx + cos * dy) / height, ...rest];
    }) as PaintStroke['points'];
    // Stamps are turned with the rest.
    const prints = stroke.prints && {
      ...stroke.prints,
      degrees:
        stroke.prints.degrees + (TURN_BY_WAY.includes(stroke.prints.turning) ? 0 : (360 * k) / turns.count),
    };
    return { ...stroke, points, prints };
  });
}
