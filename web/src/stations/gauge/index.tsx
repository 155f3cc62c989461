import { LineDial } from '../../bench/dials/line-dial.tsx';
import { useBench } from '../../bench/state.ts';
import { closeMasks, putMaskBrushAway } from '../../masks/use-masks.ts';
import type { StationView } from '../station.ts';
import { GaugeControls } from './controls.tsx';
import { GaugeTools } from './gauge-tools.tsx';
import { GaugeOverlay } from './overlay.tsx';
import { closeGauge, endJudgingByEye } from './use-gauge.ts';

export const gauge: StationView = {
  name: 'gauge',
  dials: { line: ({ setting }) => <LineDial station="gauge" setting={setting} /> },
  toolGroups: ['own-line', 'patches', 'by-eye', 'zones', 'readings'],
  Tools: GaugeTools,
  views: { albedo: 'Albedo', photo: 'Patches' },
  useOffersViews: () => useBench((s) => s.recipe.stations.gauge.patches.length > 0),
  Controls: GaugeControls,
  Overlay: GaugeOverlay,
  showsLimits: true,
  onLeave: () => {
    putMaskBrushAway();
    endJudgingByEye();
  },
  onClose: () => {
    closeMasks();
    closeGauge();
  },
};
