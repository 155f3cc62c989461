import { useBench } from '../../bench/state.ts';
import type { StationView } from '../station.ts';
import { BallOverlay } from './ball-overlay.tsx';
import { BallDial, InvertedDial, NoDial, ShotsDial } from './shot-dials.tsx';
import { SourceTools } from './source-tools.tsx';

export const source: StationView = {
  name: 'source',
  dials: { shots: ShotsDial, lightDirections: NoDial, ball: BallDial, isInverted: InvertedDial },
  toolGroups: ['given-maps', 'where-from'],
  views: { photo: 'Photo', residual: 'Left over' },
  useOffersViews: () => useBench((s) => s.recipe.stations.source.shots.length > 0),
  Overlay: BallOverlay,
  Tools: SourceTools,
};
