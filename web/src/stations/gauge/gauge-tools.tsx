import { ZoneTools } from '../../zones/zone-tools.tsx';
import { EyeTools } from './eye-tools.tsx';
import { LuminanceGraph } from './luminance-graph.tsx';
import { PatchTools } from './patch-tools.tsx';
import { ReadingTools } from './reading-tools.tsx';

/** What Gauge offers beside its dials. */
export function GaugeTools() {
  return (
    <>
      <ReadingTools />
      <ZoneTools station="gauge" />
      <PatchTools />
      <EyeTools />
      <LuminanceGraph />
    </>
  );
}
