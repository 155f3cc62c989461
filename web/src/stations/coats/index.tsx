import type { StationView } from '../station.ts';
import { ShapeBrush } from './brush/on-shape/shape-brush.tsx';
import { CoatList } from './coat-list.tsx';
import { CoatControls } from './controls.tsx';
import { CoatsOverlay } from './overlay.tsx';
import { closeCoats, useCoats } from './use-coats.ts';

export const coats: StationView = {
  name: 'coats',
  dials: { stack: () => null, groups: () => null },
  Main: CoatList,
  Controls: CoatControls,
  Overlay: CoatsOverlay,
  OverSill: ShapeBrush,
  onLeave: () => useCoats.setState({ alone: null, brush: null }),
  onClose: closeCoats,
};
