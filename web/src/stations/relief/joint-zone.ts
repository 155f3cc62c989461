import type { Mask } from '@zesty-tile/core';
import { useBench } from '../../bench/state.ts';

/** Joints as a zone, for Gauge, Finish and Coats. */
const ZONE: Mask = {
  id: 'joints',
  name: 'Joints',
  parts: [{ by: 'range', how: 'and', map: 'joints', from: 0.5, to: 1, softness: 0.5 }],
  wetness: 0,
};

/** Adds the joints to the tile's zones. */
export function addJointZone(): void {
  const { recipe, setRoot } = useBench.getState();
  setRoot('masks', [...recipe.masks, ZONE], '');
}
