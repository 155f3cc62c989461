import { CropOutline } from '../square/overlay.tsx';
import type { FloorScene } from '../station.ts';
import { LeaveLayer } from './leave-layer.tsx';
import { useLeave } from './use-leave.ts';

/** What is painted to be left as it is, while its brush is in use. */
export function EvenOverlay(scene: FloorScene) {
  const { shown, isBefore, plane, stage, repeats } = scene;
  const isPainting = useLeave((s) => s.tool !== null);
  if (!isPainting || shown.view !== 'evened' || isBefore) return <CropOutline {...scene} />;
  return <LeaveLayer plane={plane} stage={stage} lay={repeats} />;
}
