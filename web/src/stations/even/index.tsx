import type { StationView } from '../station.ts';
import { LeaveTools } from './leave-tools.tsx';
import { EvenOverlay } from './overlay.tsx';
import { takeLeaveBrush } from './use-leave.ts';

export const even: StationView = {
  name: 'even',
  Tools: LeaveTools,
  views: { evened: 'Evened', light: 'Light taken out', left: 'Left alone' },
  Overlay: EvenOverlay,
  onLeave: () => takeLeaveBrush(null),
};
