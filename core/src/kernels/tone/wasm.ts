import { bends } from '../../colour/luminance-map.ts';
import { isPlain, recolouring } from '../../colour/recolouring.ts';
import { vectors } from '../host/blocks.ts';
import type { Call, WasmHost } from '../host/wasm.ts';
import { MOST_LIFT, type reference, toneBlock } from './reference.ts';

const wasmToneBlock =
  (call: Call): typeof toneBlock =>
  (picture, out, tone, colour, from, to, cover) => {
    const count = to - from;
    const { gain, contrast, pivot, hold } = tone;
    const [low, high] = hold ?? [0, 1];
    const [toe, shoulder] = bends([low, high]);
    const recolours = !isPlain(colour);
    // Of colours turned linearly: what a, what b and what L alone become.
    const change = recolouring(colour);
    const [cos, sin] = change(0, 1, 0);
    const [addA, addB] = change(1, 0, 0);
    const values = [gain, contrast, pivot, low, toe, shoulder, high, gain * MOST_LIFT, cos, sin, addA, addB];
    const left = call((exports, arena) => {
      const plane = vectors(count);
      arena.begin(8 * plane + 256);
      const put = (whole: Float32Array) => {
        const at = arena.room(plane);
        arena.view(at, plane / 4).fill(0);
        arena.view(at, count).set(whole.subarray(from, to));
        return at;
      };
      const source = picture.planes.map(put);
      const made = out.planes.map(put);
      const flags = arena.room(plane / 16);
      exports.toneBlock(
        source[0],
        made[0],
        plane,
        cover ? put(cover) : 0,
        flags,
        arena.floats(Float32Array.from(values)),
        Number(contrast !== 1),
        Number(hold !== null),
        Number(recolours),
      );
      for (const [c, at] of made.entries()) out.planes[c].set(arena.view(at, count), from);
      return arena.bytesAt(flags, plane / 16);
    });
    // Almost every pixel is in gamut as it is; the others take the long way.
    if (left.some((bits) => bits !== 0)) {
      toneBlock(picture, out, tone, colour, from, to, cover, left);
    }
  };

export const wasm = ({ call }: WasmHost): typeof reference => ({
  toneBlock: wasmToneBlock(call),
});
