import { beginRepairJump } from '../proof/use-proof.ts';
import type { StationView } from '../station.ts';
import { JoinControls } from './controls.tsx';
import { JoinOverlay } from './overlay.tsx';
import { TryWays } from './proposals.tsx';
import { RepairTools } from './repair/repair-tools.tsx';
import { takeTool } from './repair/use-repair.ts';

export const join: StationView = {
  name: 'join',
  toolGroups: ['repair'],
  Tools: () => (
    <>
      <TryWays />
      <RepairTools />
    </>
  ),
  views: { joined: 'Joined', photo: 'Where it is taken' },
  Controls: JoinControls,
  Overlay: JoinOverlay,
  onEnter: beginRepairJump,
  onLeave: () => takeTool(null),
};
