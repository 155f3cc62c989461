import { luminanceOf, srgbCode } from '@zesty-tile/core';
import { useMemo } from 'react';
import type { ShownView } from '../../engine/protocol.ts';
import { viewKind } from '../../engine/views.ts';
import { STATION_VIEWS } from '../../stations/index.ts';
import { useBench } from '../state.ts';
import { useBefore } from './before.ts';
import { hatchesOf } from './hatch.ts';
import { useSight } from './sight.ts';

function pictureOf({ rgba, width, height, planes, view }: ShownView, isGrey = false): HTMLCanvasElement {
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = height;
  const picture = new ImageData(rgba, width, height);
  if (isGrey && viewKind(view) === 'colour') {
    picture.data.set(rgba);
    const [r, g, b] = planes;
    for (let i = 0, k = 0; i < r.length; i++, k += 4) {
      picture.data.fill(srgbCode(luminanceOf(r[i], g[i], b[i])), k, k + 3);
    }
  }
  canvas.getContext('2d')?.putImageData(picture, 0, 0);
  return canvas;
}

/** What is drawn on the Floor: the picture, the one from before it, and hatches over values that no real surface has. */
export function usePictures() {
  const shown = useBench((s) => s.shown);
  const station = useBench((s) => s.station);
  const marks = useBench((s) => s.marks);
  const { picture: beforeView } = useBefore();
  const { hatching, luminance } = useSight();
  const { showsLimits } = STATION_VIEWS[station];
  const isGrey = luminance && showsLimits === true;
  const isHatched = showsLimits && shown?.view === 'albedo' && hatching;
  const picture = useMemo(() => shown && pictureOf(shown, isGrey), [shown, isGrey]);
  const beforePicture = useMemo(() => beforeView && pictureOf(beforeView), [beforeView]);
  const hatches = useMemo(() => (isHatched && marks ? hatchesOf(marks) : null), [isHatched, marks]);
  return { picture, beforePicture, hatches };
}
