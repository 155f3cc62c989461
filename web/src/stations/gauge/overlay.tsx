import { MaskOverlay } from '../../masks/mask-layer.tsx';
import type { FloorScene } from '../station.ts';
import { PatchHandles } from './patch-handles.tsx';
import { ReadingLayer } from './reading-layer.tsx';

/** Over the photo its known patches, over the tile the open zone and the places that are read. */
export function GaugeOverlay(scene: FloorScene) {
  const { shown, isPhoto, isBefore, look, tile, plane, stage, repeats } = scene;
  if (isPhoto) return <PatchHandles look={look} tile={tile} />;
  return (
    <>
      <MaskOverlay {...scene} />
      {shown.view === 'albedo' && !isBefore && <ReadingLayer plane={plane} stage={stage} lay={repeats} />}
    </>
  );
}
