import type { MaskStroke } from '@zesty-tile/core';
import { useEffect, useMemo } from 'react';
import type { Size } from '../bench/floor/geometry.ts';
import { maskOf, TintLayer } from '../bench/floor/tint-layer.tsx';
import type { BrushPlane } from '../bench/floor/use-brush.ts';
import { type BenchState, useBench } from '../bench/state.ts';
import { engineNow } from '../bench/use-engine.ts';
import { CropOutline } from '../stations/square/overlay.tsx';
import type { FloorScene } from '../stations/station.ts';
import { addMaskStroke, masksNow, strokesIn, useMasks } from './use-masks.ts';

/** Asks for what each zone covers, the open one first, whenever it or the tile changes. */
export function useCovers(): void {
  const open = useMasks((s) => s.open);
  // Made again whenever a pass is whole: before the first is, no zone covers anything.
  const work = useBench((s) => s.work);
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new pass is asked again
  useEffect(() => {
    let latest = 0;
    const ask = async () => {
      const mine = ++latest;
      const order = [...masksNow()].sort((a, b) => Number(b.id === open) - Number(a.id === open));
      for (const zone of order) {
        const cover = await engineNow()?.cover(zone);
        if (mine !== latest) return;
        if (!cover) continue;
        useMasks.setState(({ shares }) => ({
          shares: { ...shares, [zone.id]: cover.share },
          ...(zone.id === open ? { cover: { ...cover, zone: zone.id, strokes: strokesIn(zone) } } : {}),
        }));
      }
    };
    void ask();
    const zonesOf = ({ recipe }: BenchState) => recipe.masks;
    // Asked before the dials are drawn again, so that the engine is at it meanwhile.
    const end = useBench.subscribe((now, before) => {
      if (zonesOf(now) !== zonesOf(before)) void ask();
    });
    return () => {
      end();
      latest++;
    };
  }, [open, work]);
}

/** One and the same, so that a dial that moves no stroke draws nothing again before there is a new cover. */
const NONE: MaskStroke[] = [];

interface ZoneLayerProps {
  plane: BrushPlane;
  stage: Size;
  lay: number;
}

/** Over the Floor: what the open zone covers; with its brush in use it is painted. */
export function MaskLayer(props: ZoneLayerProps) {
  const { open, shown, brush: tool, radius, softness, cover } = useMasks();
  const zone = useBench((s) => s.recipe.masks.find(({ id }) => id === open));
  const axes = useBench((s) => s.recipe.stations.join.axes);
  const brush = useMemo(
    () => (tool ? { radius, softness, erase: tool.erase } : null),
    [tool, radius, softness],
  );
  const own = cover?.zone === open ? cover : null;
  const mask = useMemo(() => own && maskOf(own), [own]);
  // Strokes that were drawn since the cover was made lie over it.
  const pending = useMemo(() => {
    if (!zone || !tool) return NONE;
    const part = zone.parts[tool.part];
    const late = own ? strokesIn(zone) - own.strokes : 0;
    return part?.by === 'brush' && late > 0 ? part.strokes.slice(-late) : NONE;
  }, [zone, tool, own]);
  if (!zone || (!shown && !tool)) return null;
  return (
    <TintLayer
      {...props}
      name={zone.name}
      look="veil"
      wraps={axes !== 'neither'}
      mask={mask}
      strokes={pending}
      brush={brush}
      onStroke={addMaskStroke}
    />
  );
}

/** What the open zone covers, over the tile. */
export function MaskOverlay(scene: FloorScene) {
  const { isPhoto, isBefore, plane, stage, repeats } = scene;
  const isOpen = useMasks((s) => s.open !== null);
  if (isPhoto) return <CropOutline {...scene} />;
  return isOpen && !isBefore ? <MaskLayer plane={plane} stage={stage} lay={repeats} /> : null;
}
