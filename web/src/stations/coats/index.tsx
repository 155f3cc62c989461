import type { StationView } from '../station.ts';
import { CoatList } from './coat-list.tsx';
import { useCoats } from './use-coats.ts';

export const coats: StationView = {
  name: 'coats',
  dials: { stack: () => null },
  Main: CoatList,
  onClose: () => useCoats.setState({ open: null }),
};
