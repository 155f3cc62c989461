import { newPart, type PaintStroke, runToEnd } from '@zesty-tile/core';
import { expect } from 'chai';
import { emptyCanvas } from '../../../src/paint/canvas.ts';
import { painting } from '../../../src/paint/painting.ts';
import { TORUS } from '../../../src/raster/edges.ts';
import { coatCover } from '../../../src/stations/coats/mask/cover.ts';
import type { Scene } from '../../../src/stations/coats/scene.ts';
import { PLAIN_CONTEXT, type WorkContext } from '../../../src/team/context.ts';
import { frameOf } from '../run.ts';

const SIZE = 64;
const empty = () => new Float32Array(SIZE * SIZE);
function drawn(strokes: PaintStroke[]): Float32Array {
  const canvas = emptyCanvas(SIZE * SIZE, []);
  runToEnd(painting(strokes, canvas, { width: SIZE, height: SIZE, edges: TORUS }));
  return canvas.cover;
}

const line = (k: number, more: Partial<PaintStroke> = {}): PaintStroke => ({
  points: [
    [0.013 * k, 0.9],
    [0.35 + 0.02 * k, 1.3 + 0.01 * k],
  ],
  radius: 0.03 + 0.001 * k,
  softness: (k % 5) / 5,
  erase: k % 7 === 6,
  ...more,
});

/** A context that keeps parts, and counts how often one was made. */
function keeping(): { context: WorkContext; made: string[] } {
  const parts = new Map<string, unknown>();
  const made: string[] = [];
  const context: WorkContext = {
    ...PLAIN_CONTEXT,
    part: async (name, dependsOn, make) => {
      const key = JSON.stringify([name, dependsOn]);
      if (!parts.has(key)) {
        made.push(name);
        parts.set(key, await make());
      }
      return parts.get(key) as Awaited<ReturnType<typeof make>>;
    },
  };
  return { context, made };
}

const coverIn = (context: WorkContext, strokes: PaintStroke[]) =>
  coatCover([newPart('strokes', { strokes })], {
    frame: { ...frameOf(SIZE, 0.5), masks: [] },
    context,
    below: {},
    isLasting: () => true,
  } as unknown as Scene);

describe('masks painted by hand', () => {
  it('what is mirrored is the same to the bit, about the middle of the tile', () => {
    for (const mirror of ['across', 'down', 'both'] as const) {
      const cover = drawn([line(3, { mirror })]);
      const single = drawn([line(3)]);
      for (let y = 0; y < SIZE; y++) {
        for (let x = 0; x < SIZE; x++) {
          const at = (across: boolean, down: boolean, of = cover) =>
            of[(down ? SIZE - 1 - y : y) * SIZE + (across ? SIZE - 1 - x : x)];
          if (mirror !== 'down') expect(at(true, false)).to.equal(cover[y * SIZE + x]);
          if (mirror !== 'across') expect(at(false, true)).to.equal(cover[y * SIZE + x]);
          expect(cover[y * SIZE + x]).to.be.at.least(single[y * SIZE + x]);
        }
      }
    }
  });

  it('erasing all of it leaves nothing, to the bit', () => {
    const all = { points: [[0.5, 0.5]], radius: 0.5, softness: 0, erase: true } as PaintStroke;
    const over = [0, 0.25, 0.5, 0.75].flatMap((x) =>
      [0, 0.25, 0.5, 0.75].map((y) => ({ ...all, points: [[x, y]] }) as PaintStroke),
    );
    expect(drawn([line(1), line(2), ...over])).to.deep.equal(empty());
  });

  it('strokes that are kept drawn come to the same as all drawn at once, and are not drawn again', async () => {
    const { context, made } = keeping();
    for (const count of [31, 32, 33, 64, 65, 70]) {
      const strokes = Array.from({ length: count }, (_, k) => line(k));
      expect(await coverIn(context, strokes), String(count)).to.deep.equal(drawn(strokes));
    }
    expect(made.filter((name) => name === 'painted first')).to.have.length(2);
  });

  it('200 strokes taken back and put on again in any order come to the exact bytes', async () => {
    const { context } = keeping();
    const prints = {
      spacing: 0.7,
      turning: 'along',
      degrees: 0,
      size: 0.3,
      stray: 0.5,
      tint: 0,
      seed: 4,
    } as const;
    const strokes = Array.from({ length: 200 }, (_, k) =>
      line(k, {
        flow: k % 3 === 0 ? 0.4 : undefined,
        prints: k % 4 === 1 ? { ...prints, stamp: 'leaf' } : undefined,
      }),
    );
    const fresh = new Map<number, Float32Array>();
    // Lengths that jump to and fro as undo and redo do, each met twice.
    for (let turn = 0; turn < 40; turn++) {
      const count = 1 + (((turn % 20) * 73 + 11 * (turn % 3)) % 200);
      if (!fresh.has(count)) fresh.set(count, drawn(strokes.slice(0, count)));
      expect(await coverIn(context, strokes.slice(0, count)), String(count)).to.deep.equal(fresh.get(count));
    }
  });

  it('nothing painted selects nothing', async () => {
    expect(await coverIn(PLAIN_CONTEXT, [])).to.equal(0);
  });
});
