import type { StationView } from '../station.ts';
import { FarControls } from './far-controls.tsx';
import { ProofOverlay } from './overlay.tsx';
import { ProofTools } from './proof-tools.tsx';

export const proof: StationView = {
  name: 'proof',
  Tools: ProofTools,
  Controls: ({ view }) => (view === 'photo' ? null : <FarControls />),
  Overlay: ProofOverlay,
  showsFar: true,
};
