import type { StationView } from '../station.ts';
import { SquareOverlay } from './overlay.tsx';
import { SquareTools } from './square-tools.tsx';
import { putSquareToolsAway } from './use-square.ts';

export const square: StationView = {
  name: 'square',
  Tools: SquareTools,
  views: { photo: 'Set the crop', crop: 'Crop tiled' },
  Overlay: SquareOverlay,
  onLeave: putSquareToolsAway,
};
