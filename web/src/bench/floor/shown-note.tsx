import { useMemo } from 'react';
import type { ShownView } from '../../engine/protocol.ts';
import { isDetail, viewKind } from '../../engine/views.ts';
import { GREY } from '../../theme.ts';

/** A map that stays within two codes of eight bits holds one value. */
const NO_CHANGE = 2 / 255;

/** Which way a map is meant, and whether one value would do for it. */
function noteOf({ view, planes }: ShownView): string {
  const words = view === 'roughness' ? 'dark is shiny' : view === 'gloss' ? 'bright is shiny' : '';
  const isMap = viewKind(view) === 'data' || view === 'specular';
  if (!isMap || view === 'left' || isDetail(view)) return words;
  const isOne = planes.every((plane) => {
    let [low, high] = [plane[0], plane[0]];
    for (const value of plane) {
      if (value < low) low = value;
      else if (value > high) high = value;
    }
    return high - low < NO_CHANGE;
  });
  const value = planes
    .map((plane) => plane[0].toFixed(3))
    .filter((text, k, all) => k === 0 || text !== all[0]);
  return [words, isOne ? `one value is enough here: ${value.join(' ')}` : ''].filter(Boolean).join(' · ');
}

/** Written on the picture, where it says something that the eye cannot tell. */
export function ShownNote({ shown }: { shown: ShownView }) {
  const note = useMemo(() => noteOf(shown), [shown]);
  if (!note) return null;
  return (
    <span
      data-testid="note"
      style={{
        position: 'absolute',
        left: 8,
        bottom: 8,
        padding: '1px 8px',
        background: GREY.ink,
        color: GREY.onInk,
        borderRadius: 4,
        fontSize: 12.5,
        pointerEvents: 'none',
      }}
    >
      {note}
    </span>
  );
}
