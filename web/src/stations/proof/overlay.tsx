import { useSight } from '../../bench/floor/sight.ts';
import { CropOutline } from '../square/overlay.tsx';
import type { FloorScene } from '../station.ts';
import { FarLayer } from './far-layer.tsx';
import { RepeatLayer } from './repeat-layer.tsx';

/** The spots that will be seen repeating, or the tile as far as a game will show it. */
export function ProofOverlay(scene: FloorScene) {
  const { shown, isPhoto, isBefore, plane, stage } = scene;
  const far = useSight((s) => s.far);
  if (isPhoto) return <CropOutline {...scene} />;
  if (far) return <FarLayer shown={shown} stage={stage} view={far} />;
  return shown.view === 'albedo' && !isBefore ? <RepeatLayer plane={plane} stage={stage} /> : null;
}
