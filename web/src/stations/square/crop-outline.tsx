import { cropMapper } from '@zesty-tile/core';
import type { Look, Size } from '../../bench/floor/geometry.ts';
import { useBench } from '../../bench/state.ts';

const CORNERS = [
  [0, 0],
  [1, 0],
  [1, 1],
  [0, 1],
];

/** Where the crop lies on the photo. */
export function CropOutline({ look, tile }: { look: Look; tile: Size }) {
  const crop = useBench((s) => s.recipe.stations.square);
  const mapper = cropMapper(tile.width, tile.height, crop);
  const scale = look.edge / tile.width;
  const points = CORNERS.map(([u, v]) => {
    const [x, y] = mapper.at(u, v);
    return `${look.x + x * scale},${look.y + y * scale}`;
  }).join(' ');
  return (
    <svg
      style={{ position: 'absolute', inset: 0, width: '100%', height: '100%', pointerEvents: 'none' }}
      aria-hidden="true"
    >
      <polygon points={points} fill="none" stroke="#000" strokeOpacity=".55" strokeWidth="3" />
      <polygon points={points} fill="none" stroke="#fff" strokeWidth="1.5" strokeDasharray="6 4" />
    </svg>
  );
}
