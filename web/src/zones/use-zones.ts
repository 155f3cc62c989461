import type { Zone, ZonePart } from '@zesty-tile/core';
import { create } from 'zustand';
import { type BrushPoint, fromHome } from '../bench/floor/use-brush.ts';
import { useBench } from '../bench/state.ts';
import type { ShownCover } from '../engine/protocol.ts';

interface ZonesState {
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

export const useZones = create<ZonesState>(() => ({
  open: null,
  shown: true,
  brush: null,
  radius: 0.04,
  softness: 0.3,
  shares: {},
  cover: null,
}));

export const zonesNow = (): Zone[] => useBench.getState().recipe.stations.gauge.zones;

const put = (zones: Zone[], gesture: string) => useBench.getState().setDials('gauge', { zones }, gesture);

/** Changes one zone; `gesture` names what moves it, where it goes on moving. */
export function changeZone(id: string, change: (zone: Zone) => Zone, gesture = ''): void {
  put(
    zonesNow().map((zone) => (zone.id === id ? change(zone) : zone)),
    gesture && `zone ${id} ${gesture}`,
  );
}

export const changePart = (id: string, at: number, part: ZonePart, gesture = ''): void =>
  changeZone(
    id,
    (zone) => ({ ...zone, parts: zone.parts.map((one, k) => (k === at ? part : one)) }),
    gesture && `part ${at} ${gesture}`,
  );

/** A fresh part of each kind. */
export function freshPart(by: ZonePart['by'], how: ZonePart['how']): ZonePart {
  switch (by) {
    case 'colour':
      return { by, how, colour: '#808080', reach: 0.05, softness: 0.4 };
    case 'range':
      return { by, how, map: 'height', from: 0, to: 0.4, softness: 0.2 };
    case 'brush':
      return { by, how, strokes: [] };
  }
}

/** A new zone with one part, opened. */
export function addZone(by: ZonePart['by']): void {
  const zones = zonesNow();
  let k = zones.length + 1;
  while (zones.some(({ id }) => id === `zone-${k}`)) k++;
  const zone: Zone = { id: `zone-${k}`, name: `Zone ${k}`, parts: [freshPart(by, 'and')], wetness: 0 };
  put([...zones, zone], '');
  useZones.setState({ open: zone.id, shown: true, brush: by === 'brush' ? { part: 0, erase: false } : null });
}

/** Takes a zone out, and all that was set for it. */
export function removeZone(id: string): void {
  const { recipe, replaceRecipe } = useBench.getState();
  const { gauge, finish } = recipe.stations;
  const others = <T extends { zone: string }>(values: T[]) => values.filter(({ zone }) => zone !== id);
  const stations = {
    ...recipe.stations,
    gauge: {
      ...gauge,
      zones: gauge.zones.filter((zone) => zone.id !== id),
      zoneTones: others(gauge.zoneTones),
    },
    finish: { ...finish, zoneFinish: others(finish.zoneFinish) },
  };
  useZones.setState({ open: null, brush: null });
  replaceRecipe({ ...recipe, stations }, 'A zone taken out');
}

/** How many strokes a zone has. */
export const strokesIn = (zone: Zone): number =>
  zone.parts.reduce((sum, part) => sum + (part.by === 'brush' ? part.strokes.length : 0), 0);

/** Adds what was drawn to the open zone's painted part. */
export function addZoneStroke(points: BrushPoint[]): void {
  const { open, brush, radius, softness } = useZones.getState();
  if (!open || !brush) return;
  const part = zonesNow().find(({ id }) => id === open)?.parts[brush.part];
  if (part?.by !== 'brush') return;
  changePart(open, brush.part, {
    ...part,
    strokes: [...part.strokes, { points: fromHome(points), radius, softness, erase: brush.erase }],
  });
}
