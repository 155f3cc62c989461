import { lazy, Suspense } from 'react';
import { ZoneTools } from '../../masks/mask-tools.tsx';
import { EyeTools } from './eye-tools.tsx';
import { PatchTools } from './patch-tools.tsx';
import { ReadingTools } from './reading-tools.tsx';

// What draws it is large, and the dials need not wait for it.
const LuminanceGraph = lazy(async () => ({
  default: (await import('./luminance-graph.tsx')).LuminanceGraph,
}));

/** What Gauge offers beside its dials. */
export function GaugeTools() {
  return (
    <>
      <ReadingTools />
      <ZoneTools station="gauge" />
      <PatchTools />
      <EyeTools />
      <Suspense>
        <LuminanceGraph />
      </Suspense>
    </>
  );
}
