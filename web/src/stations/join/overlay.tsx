import { useSight } from '../../bench/floor/sight.ts';
import { CropOutline } from '../square/overlay.tsx';
import type { FloorScene } from '../station.ts';
import { CutOverlay } from './cut-overlay.tsx';
import { SeamHeat } from './heat.tsx';
import { RepairLayer } from './repair/repair-layer.tsx';
import { useRepair } from './repair/use-repair.ts';
import { VectorHandles } from './vector-handles.tsx';

/** Over the photo where the tile is taken, over the tile its cut, its seams and its repairs. */
export function JoinOverlay(scene: FloorScene) {
  const { shown, picture, isPhoto, isBefore, look, tile, stage, repeats, halfShift, plane } = scene;
  const { cut, heat } = useSight();
  const isRepairing = useRepair((s) => s.tool !== null);
  if (isPhoto) {
    return (
      <>
        <CropOutline {...scene} />
        <VectorHandles look={look} tile={tile} />
      </>
    );
  }
  if (shown.view !== 'joined' || isBefore) return null;
  const over = { look, tile, stage, lay: repeats, halfShift };
  return (
    <>
      {cut && <CutOverlay {...over} />}
      {heat && <SeamHeat {...over} />}
      {isRepairing && (
        <RepairLayer plane={plane} picture={picture} stage={stage} lay={repeats} laid={shown.repairs} />
      )}
    </>
  );
}
