import { useEffect } from 'react';
import type { ShownView } from '../../engine/protocol.ts';
import { isOfPhoto } from './of-photo.ts';
import { Said } from './said.tsx';
import { type BrushPlane, shareAt } from './use-brush.ts';
import { endPick, usePick } from './use-pick.ts';

/** Values are the mean over this many pixels each way, so that grain has no say. */
const AROUND = 2;

function meanOf({ planes, width, height }: ShownView, u: number, v: number): number[] {
  const wrap = (i: number, n: number) => ((i % n) + n) % n;
  const [x, y] = [Math.floor(u * width), Math.floor(v * height)];
  return planes.map((plane) => {
    let sum = 0;
    for (let j = -AROUND; j <= AROUND; j++) {
      for (let i = -AROUND; i <= AROUND; i++) sum += plane[wrap(y + j, height) * width + wrap(x + i, width)];
    }
    return sum / (2 * AROUND + 1) ** 2;
  });
}

/** Over the Floor while something is to be picked: one press takes it, Escape leaves it. */
export function PickLayer({ shown, plane }: { shown: ShownView; plane: BrushPlane }) {
  const pick = usePick((s) => s.pick);
  useEffect(() => {
    const leave = (event: KeyboardEvent) => {
      if (event.key === 'Escape') endPick();
    };
    window.addEventListener('keydown', leave);
    return () => window.removeEventListener('keydown', leave);
  }, []);
  if (!pick || pick.view !== shown.view) return null;
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: what is picked here can be set by dials too
    // biome-ignore lint/a11y/noStaticElementInteractions: a place on a picture has no name
    <div
      data-pick={pick.view}
      style={{ position: 'absolute', inset: 0, cursor: 'copy' }}
      onClick={(event) => {
        const box = event.currentTarget.getBoundingClientRect();
        const at = shareAt(plane, event.clientX - box.left, event.clientY - box.top);
        const isPhoto = isOfPhoto(shown.view);
        if (isPhoto && (Math.min(...at) < 0 || Math.max(...at) > 1)) return;
        pick.take({ at, values: meanOf(shown, at[0], at[1]) });
      }}
    >
      <Said>{`${pick.words}. Escape leaves it.`}</Said>
    </div>
  );
}
