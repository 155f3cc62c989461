import type { StationView } from '../station.ts';
import { CratePanel, NewestCrate } from './crate-panel.tsx';

export const crate: StationView = {
  name: 'crate',
  toolGroups: ['own-profile', 'names'],
  Head: NewestCrate,
  Tools: CratePanel,
};
