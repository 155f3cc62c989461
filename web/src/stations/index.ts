import type { StationName } from '@zesty-tile/core';
import { coats } from './coats/index.tsx';
import { crate } from './crate/index.tsx';
import { even } from './even/index.tsx';
import { finish } from './finish/index.tsx';
import { gauge } from './gauge/index.tsx';
import { join } from './join/index.tsx';
import { proof } from './proof/index.tsx';
import { relief } from './relief/index.tsx';
import { source } from './source/index.tsx';
import { square } from './square/index.tsx';
import { CropOutline } from './square/overlay.tsx';
import type { StationView } from './station.ts';
import { style } from './style/index.tsx';

/** How every station is shown, by its name. */
export const STATION_VIEWS: Record<StationName, StationView> = {
  source,
  square,
  even,
  join,
  style,
  gauge,
  relief,
  finish,
  coats,
  proof,
  crate,
};

/** What lies over the Floor at a station: its own overlay, or the crop where the photo is shown. */
export const overlayOf = (name: StationName) => STATION_VIEWS[name].Overlay ?? CropOutline;
