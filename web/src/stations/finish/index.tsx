import { LineDial } from '../../bench/dials/line-dial.tsx';
import { MaskOverlay } from '../../masks/mask-layer.tsx';
import { putMaskBrushAway } from '../../masks/use-masks.ts';
import type { StationView } from '../station.ts';
import { FinishTools } from './finish-tools.tsx';

export const finish: StationView = {
  name: 'finish',
  dials: { line: ({ setting }) => <LineDial station="finish" setting={setting} /> },
  toolGroups: ['own-line', 'zones', 'grey-map', 'tone-curve'],
  Tools: FinishTools,
  Overlay: MaskOverlay,
  onLeave: putMaskBrushAway,
};
