import type { Sides } from '../raster/sides.ts';
import type { PaintStroke } from './stroke.ts';

/** A stroke and the same turned about a place by equal parts of a whole turn. */
export function turnedImages(stroke: PaintStroke, { width, height }: Sides): PaintStroke[] {
  const { turns } = stroke;
  if (!turns) return [stroke];
  const [cx, cy] = [turns.x * width, turns.y * height];
  return Array.from({ length: turns.count }, (_, k) => {
    const angle = (2 * Math.PI * k) / turns.count;
    const [sin, cos] = [Math.sin(angle), Math.cos(angle)];
    const points = stroke.points.map(([u, v, ...pressure]) => {
      const [dx, dy] = [u * width - cx, v * height - cy];
      return [(cx + cos * dx - sin * dy) / width, (cy + sin * dx + cos * dy) / height, ...pressure];
    }) as PaintStroke['points'];
    // Stamps are turned with the rest.
    const prints = stroke.prints && {
      ...stroke.prints,
      degrees: stroke.prints.degrees + (stroke.prints.turning === 'along' ? 0 : (360 * k) / turns.count),
    };
    return { ...stroke, points, prints };
  });
}
