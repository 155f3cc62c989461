import { MASK_PARTS, type Mask, type MaskPart, type MaskPartKind, newItem } from '@zesty-tile/core';
import { create } from 'zustand';
import { type BrushPoint, fromHome } from '../bench/floor/use-brush.ts';
import { useBench } from '../bench/state.ts';
import type { ShownCover } from '../engine/protocol.ts';

interface MasksState {
  /** The zone that is open to be changed and shown over the Floor. */
  open: string | null;
  shown: boolean;
  /** Which part is painted, and what the brush does. */
  brush: { part: number; erase: boolean } | null;
  radius: number;
  softness: number;
  /** What each zone covered when it was last asked, 0…1. */
  shares: Record<string, number>;
  cover: (ShownCover & { zone: string; strokes: number }) | null;
}

export const useMasks = create<MasksState>(() => ({
  open: null,
  shown: true,
  brush: null,
  radius: 0.04,
  softness: 0.3,
  shares: {},
  cover: null,
}));

/** Puts the brush away. */
export const putMaskBrushAway = (): void => useMasks.setState({ brush: null });

/** Forgets the zones of a tile that is closed. */
export const closeMasks = (): void => useMasks.setState({ open: null, brush: null, shares: {}, cover: null });

export const masksNow = (): Mask[] => useBench.getState().recipe.masks;

const put = (masks: Mask[], gesture: string) => useBench.getState().setRoot('masks', masks, gesture);

/** Changes one mask; `gesture` names what moves it, where it goes on moving. */
export function changeMask(id: string, change: (mask: Mask) => Mask, gesture = ''): void {
  put(
    masksNow().map((mask) => (mask.id === id ? change(mask) : mask)),
    gesture && `zone ${id} ${gesture}`,
  );
}

export const changePart = (id: string, at: number, part: MaskPart, gesture = ''): void =>
  changeMask(
    id,
    (mask) => ({ ...mask, parts: mask.parts.map((one, k) => (k === at ? part : one)) }),
    gesture && `part ${at} ${gesture}`,
  );

/** A new part of each kind; painted ones add to what is selected already. */
export const newPart = (by: MaskPartKind, isFirst: boolean): MaskPart => ({
  ...newItem(MASK_PARTS, by),
  how: by === 'brush' && !isFirst ? 'or' : 'and',
});

/** A new zone with one part, opened. */
export function addMask(by: MaskPartKind): void {
  const masks = masksNow();
  let k = masks.length + 1;
  while (masks.some(({ id }) => id === `zone-${k}`)) k++;
  const mask: Mask = { id: `zone-${k}`, name: `Zone ${k}`, parts: [newPart(by, true)], wetness: 0 };
  put([...masks, mask], '');
  useMasks.setState({ open: mask.id, shown: true, brush: by === 'brush' ? { part: 0, erase: false } : null });
}

/** Removes a zone, and all that was set for it. */
export function removeMask(id: string): void {
  const { recipe, replaceRecipe } = useBench.getState();
  const { gauge, relief, finish } = recipe.stations;
  const others = <T extends { zone: string }>(values: T[]) => values.filter(({ zone }) => zone !== id);
  const stations = {
    ...recipe.stations,
    gauge: { ...gauge, zoneTones: others(gauge.zoneTones) },
    relief: { ...relief, zoneReadings: others(relief.zoneReadings) },
    finish: { ...finish, zoneFinish: others(finish.zoneFinish) },
  };
  useMasks.setState({ open: null, brush: null });
  const masks = recipe.masks.filter((mask) => mask.id !== id);
  replaceRecipe({ ...recipe, masks, stations }, 'A zone removed');
}

/** How many strokes a zone has. */
export const strokesIn = (mask: Mask): number =>
  mask.parts.reduce((sum, part) => sum + (part.by === 'brush' ? part.strokes.length : 0), 0);

/** Adds what was drawn to the open zone's painted part. */
export function addMaskStroke(points: BrushPoint[]): void {
  const { open, brush, radius, softness } = useMasks.getState();
  if (!open || !brush) return;
  const part = masksNow().find(({ id }) => id === open)?.parts[brush.part];
  if (part?.by !== 'brush') return;
  changePart(open, brush.part, {
    ...part,
    strokes: [...part.strokes, { points: fromHome(points), radius, softness, erase: brush.erase }],
  });
}
