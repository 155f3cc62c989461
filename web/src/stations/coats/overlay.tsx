import { useBench } from '../../bench/state.ts';
import type { FloorScene } from '../station.ts';
import { AloneLayer } from './alone-layer.tsx';
import { BrushLayer } from './brush/brush-layer.tsx';
import { BrushStrip } from './brush/brush-strip.tsx';
import { PartHandles } from './part-handles.tsx';
import { type Owner, useCoats } from './use-coats.ts';

/** Over the Floor: a coat by itself where that is asked for, and the handles of the open coat's or group's mask. */
export function CoatsOverlay({ plane, stage, repeats, isPhoto, isBefore, isPanning }: FloorScene) {
  const open = useCoats((s) => s.open);
  const alone = useCoats((s) => s.alone);
  const { stack, groups } = useBench((s) => s.recipe.stations.coats);
  const edgeMetres = useBench((s) => s.recipe.stations.square.edgeMetres);
  if (isPhoto || isBefore) return null;
  const coat = stack.find(({ id }) => id === open);
  const group = groups.find(({ id }) => id === open);
  const owned = coat ?? group;
  const owner: Owner = { kind: coat ? 'coat' : 'group', id: owned?.id ?? '' };
  return (
    <>
      {alone && <AloneLayer alone={alone} plane={plane} stage={stage} lay={repeats} />}
      {owned && <BrushLayer owner={owner} parts={owned.parts} plane={plane} stage={stage} lay={repeats} />}
      {owned && <BrushStrip edgeMetres={edgeMetres} />}
      {owned && !isPanning && <PartHandles owner={owner} parts={owned.parts} plane={plane} />}
    </>
  );
}
