import { enqueueSnackbar } from 'notistack';
import { storePicture } from '../../../api/upload.ts';
import { wordsOf } from '../../../api/words-of.ts';
import { endPick, startPick } from '../../../bench/floor/use-pick.ts';
import { engineNow } from '../../../bench/use-engine.ts';
import type { ShownView } from '../../../engine/protocol.ts';
import { setTip, useTip } from './tip.ts';

/** Longest side of a stamp that is taken, in pixels. */
const LONGEST = 512;
/** How much of its radius fades out, so that no edge is seen. */
const FADE = 0.15;

const wrapped = (at: number, n: number): number => ((at % n) + n) % n;

/** The round piece of a view about a place in shares, of a radius in shares of its longer side: RGBA that fades out at its border. */
export function roundPiece(
  { width, height, rgba }: Pick<ShownView, 'width' | 'height' | 'rgba'>,
  [u, v]: readonly [number, number],
  radius: number,
): { side: number; rgba: Uint8ClampedArray<ArrayBuffer> } {
  const reach = radius * Math.max(width, height);
  const side = Math.max(1, Math.min(LONGEST, Math.round(2 * reach)));
  const out = new Uint8ClampedArray(4 * side * side);
  for (let j = 0; j < side; j++) {
    for (let k = 0; k < side; k++) {
      const [x, y] = [k, j].map((at) => (2 * (at + 0.5)) / side - 1);
      const column = wrapped(Math.floor(u * width + x * reach), width);
      const row = wrapped(Math.floor(v * height + y * reach), height);
      const [from, to] = [4 * (row * width + column), 4 * (j * side + k)];
      out.set(rgba.subarray(from, from + 3), to);
      out[to + 3] = 255 * Math.min(1, Math.max(0, (1 - Math.hypot(x, y)) / FADE));
    }
  }
  return { side, rgba: out };
}

async function storeStamp(at: readonly [number, number]): Promise<void> {
  const shown = await engineNow()?.peek('albedo');
  if (!shown) return;
  const { side, rgba } = roundPiece(shown, at, useTip.getState().tip.radius);
  const canvas = new OffscreenCanvas(side, side);
  canvas.getContext('2d')!.putImageData(new ImageData(rgba, side, side), 0, 0);
  const blob = await canvas.convertToBlob({ type: 'image/png' });
  const { sha256, width, height, name } = await storePicture(
    new File([blob], 'from-the-tile.png', { type: 'image/png' }),
  );
  setTip({ print: 'picture', picture: { sha256, width, height, name }, ownColours: true });
}

/** Asks for a place of the tile, and makes what lies there under the brush the picture that it prints. */
export const takeStamp = (): void =>
  startPick({
    words: 'Press on what the brush shall print; it is as large as the brush',
    view: 'albedo',
    take: ({ at: [u, v] }) => {
      endPick();
      storeStamp([u, v]).catch((error) => enqueueSnackbar(wordsOf(error), { variant: 'error' }));
    },
  });
