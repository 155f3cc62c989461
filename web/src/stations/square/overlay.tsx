import { useBench } from '../../bench/state.ts';
import type { FloorScene } from '../station.ts';
import { BendHandles } from './bend-handles.tsx';
import { CornerHandles } from './corner-handles.tsx';
import { CropHandles } from './crop-handles.tsx';
import { LevelLine } from './level-line.tsx';
import { useSquare } from './use-square.ts';

/** The crop on the photo, with handles to set it by. */
export function SquareOverlay({ isPhoto, look, tile, isPanning }: FloorScene) {
  const { corners, bend } = useBench((s) => s.recipe.stations.square);
  const { drawing, bending } = useSquare();
  if (!isPhoto) return null;
  return (
    <>
      {bend && bending ? (
        <BendHandles look={look} tile={tile} bend={bend} />
      ) : corners ? (
        <CornerHandles look={look} tile={tile} corners={corners} />
      ) : (
        <CropHandles look={look} tile={tile} live={!isPanning} />
      )}
      {drawing && <LevelLine />}
    </>
  );
}

/** The crop on the photo, only to be seen. */
export const CropOutline = ({ isPhoto, look, tile }: FloorScene) =>
  isPhoto ? <CropHandles look={look} tile={tile} live={false} /> : null;
