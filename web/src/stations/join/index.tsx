import { beginRepairJump } from '../proof/use-proof.ts';
import type { StationView } from '../station.ts';
import { JoinControls } from './controls.tsx';
import { JoinOverlay } from './overlay.tsx';
import { FindMethod, TryWays } from './proposals.tsx';
import { RepairTools } from './repair/repair-tools.tsx';
import { takeTool } from './repair/use-repair.ts';

export const join: StationView = {
  name: 'join',
  toolGroups: ['repair'],
  Remedy: FindMethod,
  Tools: () => (
    <>
      <TryWays />
      <RepairTools />
    </>
  ),
  views: { joined: 'Joined', photo: 'Source layout' },
  Controls: JoinControls,
  Overlay: JoinOverlay,
  onEnter: beginRepairJump,
  onLeave: () => takeTool(null),
};
