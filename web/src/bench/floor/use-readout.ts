import { useMemo } from 'react';
import type { ShownView } from '../../engine/protocol.ts';
import { usePalettes } from '../../palettes/use-palettes.ts';
import { useSettings } from '../../settings/settings.ts';
import { useBench } from '../state.ts';
import { useReliefDepth } from '../use-depth.ts';
import { readoutAt } from './readout.ts';

/** The values at a place of the picture, in words; what to do where the pointer is beside it. */
export function useReadout(shown: ShownView | null, at: { x: number; y: number } | null): string {
  const depthMm = useReliefDepth();
  const line = useBench((s) => s.recipe.stations.gauge.line);
  const ownLine = useBench((s) => s.recipe.stations.gauge.ownLine);
  const language = useSettings((s) => s.language);
  const { data: palettes } = usePalettes(useBench((s) => s.projectId));
  const palette = useMemo(() => (palettes ?? []).flatMap((one) => one.colours), [palettes]);
  if (!at || !shown) return 'Hover over the image to read values';
  return readoutAt(shown, at.x, at.y, { depthMm, line: { line, ownLine }, language, palette });
}
