import { paints } from '@zesty-tile/core';
import { useBench } from '../../bench/state.ts';
import type { StationView } from '../station.ts';
import { BandsDial } from './bands-dial.tsx';
import { LightDial } from './light-dial.tsx';
import { Starts } from './starts.tsx';

export const style: StationView = {
  name: 'style',
  dials: { lightDegrees: LightDial, heightBands: BandsDial, occlusionBands: BandsDial },
  Head: Starts,
  views: { styled: 'Painted', simplified: 'Simplified' },
  useOffersViews: () => useBench((s) => paints(s.recipe.stations.style)),
};
