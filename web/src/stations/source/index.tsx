import type { StationView } from '../station.ts';
import { SourceTools } from './source-tools.tsx';

export const source: StationView = {
  name: 'source',
  toolGroups: ['given-maps', 'where-from'],
  Tools: SourceTools,
};
