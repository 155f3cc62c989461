import {
  ALONE,
  type Answer,
  type Asked,
  answered,
  Crew,
  type Helper,
  MIRROR,
  newPart,
  Raster,
  TORUS,
} from '@zesty-tile/core';
import { expect } from 'chai';
import { resampleAffine } from '../../src/sampling/sample.ts';
import { partValues } from '../../src/stations/coats/mask/cover.ts';
import type { Scene } from '../../src/stations/coats/scene.ts';
import { visibility } from '../../src/stations/relief/occlusion.ts';
import { resampleBand } from '../../src/stations/square/resample-band.ts';
import { PLAIN_CONTEXT } from '../../src/team/context.ts';
import { inBands } from '../../src/team/in-bands.ts';
import type { Team } from '../../src/team/team.ts';
import { noisePlane } from '../fields.ts';
import { frameOf } from '../stations/run.ts';

/** A helper on this thread, that sees only what a message carries over. */
class Here implements Helper {
  asked = 0;
  #onAnswer: (answer: Answer) => void = () => {};
  #onEnd = () => {};
  /** After so many tasks it is gone and says nothing of them; below 0 it never is ready. */
  constructor(readonly until = Number.POSITIVE_INFINITY) {}
  ask(task: Asked): void {
    this.asked++;
    if (this.asked > this.until) {
      setImmediate(() => this.#onEnd());
      return;
    }
    const carried = structuredClone(task);
    setImmediate(() => void answered(carried, (answer) => this.#onAnswer(structuredClone(answer))));
  }
  listen(onReady: () => void, onAnswer: (answer: Answer) => void, onEnd: () => void): void {
    if (this.until >= 0) onReady();
    this.#onAnswer = onAnswer;
    this.#onEnd = onEnd;
  }
}

/** Twelve tasks, each of 64 rows. */
const SIZE = 384;
const field = noisePlane(SIZE * SIZE, 3).map((value) => 4 * value);
const on = async () => {};
const seenBy = (team = ALONE) => visibility(field, SIZE, 12, TORUS, on, 0, team);

/** What is said where the work is told to stop at a turn after so many. */
async function stoppedAfter(most: number, crew: Crew): Promise<string> {
  let turns = 0;
  const checkpoint = async () => {
    if (++turns > most) throw new Error('enough');
  };
  return visibility(field, SIZE, 12, TORUS, checkpoint, 0, crew).then(
    () => 'went on',
    (error: Error) => error.message,
  );
}

describe('a team', () => {
  it('comes to the same to the bit as one thread, whoever did what', async () => {
    const helpers = [new Here(), new Here()];
    expect([...(await seenBy(new Crew(helpers)))]).to.deep.equal([...(await seenBy())]);
    for (const { asked } of helpers) expect(asked).to.be.at.least(2);
  });

  it('draws masks of coats in bands that come to the same to the bit', async () => {
    const parts = [
      newPart('noise', { warp: 0.4 }),
      newPart('noise', { kind: 'cells' }),
      newPart('pattern', { kind: 'herringbone' }),
      newPart('gradient', { kind: 'radial' }),
    ];
    for (const part of parts) {
      const helper = new Here();
      const drawnBy = (team: Team) =>
        partValues(part, { frame: frameOf(192), context: { ...PLAIN_CONTEXT, team } } as Scene, 1);
      const alone = await drawnBy(ALONE);
      const shared = await drawnBy(new Crew([helper]));
      expect([...(shared as Float32Array)]).to.deep.equal([...(alone as Float32Array)]);
      expect(helper.asked).to.be.at.least(1);
    }
  });

  it('takes a turned crop in bands that meet without a step', async () => {
    const picture = new Raster(
      90,
      70,
      [1, 2, 3].map((k) => noisePlane(90 * 70, k)),
    );
    const framing = {
      crop: { centreX: 0.5, centreY: 0.5, share: 0.7, turnDegrees: 7, corners: null, bend: null },
      sides: { width: 64, height: 64 },
      margins: { left: 0.125, right: 0.125, top: 0, bottom: 0.125 },
      out: { width: 80, height: 72 },
      held: { low: 0 },
    } as never;
    const whole = await inBands(resampleBand, picture, framing, ALONE, on);
    const shared = await inBands(resampleBand, picture, framing, new Crew([new Here()]), on);
    for (const [c, plane] of whole.planes.entries()) {
      expect([...shared.planes[c]]).to.deep.equal([...plane]);
    }
  });

  it('reads no more of a picture than a band looks at, and makes the same of it to the bit', async () => {
    const [width, height] = [90, 400];
    const picture = new Raster(width, height, [noisePlane(width * height, 6)]);
    const shifted = (originY: number, downY: number) => ({
      ...{ originX: 4.3, originY, rightX: 0.9, rightY: 0.3, downX: -0.5, downY },
    });
    // Inside; over both ends of the picture; and far beyond them, where all of it is looked at.
    for (const grid of [shifted(5, 0.9), shifted(-2, 1), shifted(-90, 1.6)]) {
      const make = (band?: { from: number; to: number }) =>
        resampleAffine(picture, 80, 380, grid, 1.4, MIRROR, on, band);
      // Edges that wrap are looked at whole: inside they make no difference.
      const together = (await make()).planes[0];
      const looked = (await resampleAffine(picture, 80, 380, grid, 1.4, { x: 'mirror', y: 'wrap' }, on))
        .planes[0];
      expect([...together.subarray(80 * 150, 80 * 200)]).to.deep.equal([
        ...looked.subarray(80 * 150, 80 * 200),
      ]);
      for (const [from, to] of [
        [0, 7],
        [100, 140],
        [371, 380],
      ]) {
        const part = (await make({ from, to })).planes[0];
        const rows = (plane: Float32Array) => [...plane.subarray(80 * from, 80 * to)];
        expect(rows(part)).to.deep.equal(rows(together));
      }
    }
  });

  it('goes on without a helper that is gone, and does what was asked of it', async () => {
    const crew = new Crew([new Here(1), new Here()]);
    expect(crew.size).to.equal(3);
    expect([...(await seenBy(crew))]).to.deep.equal([...(await seenBy())]);
    expect(crew.size).to.equal(2);
  });

  it('waits for nobody who is still on the way', async () => {
    const late = new Here(-1);
    const crew = new Crew([late]);
    expect(crew.size).to.equal(1);
    expect([...(await seenBy(crew))]).to.deep.equal([...(await seenBy())]);
    expect(late.asked).to.equal(0);
  });

  it('asks nobody for more once it is stopped', async () => {
    const helper = new Here();
    const crew = new Crew([helper]);
    const words = await stoppedAfter(1, crew);
    expect(words).to.equal('enough');
    const { asked } = helper;
    await seenBy();
    await new Promise((resolve) => setImmediate(resolve));
    expect(helper.asked).to.equal(asked);
    expect(asked).to.be.below(8);
  });

  it('stops at once though a helper is still at what it was given', async () => {
    // It takes what it is asked, and never answers.
    const deep: Helper = { ask: () => {}, listen: (onReady) => onReady() };
    // Long after all that this thread can do is done: two tasks are the helper's.
    const words = await stoppedAfter(60, new Crew([deep]));
    expect(words).to.equal('enough');
  });

  it('says what went wrong with a helper', async () => {
    const failing: Helper = {
      ask: () => {},
      listen(onReady, onAnswer) {
        onReady();
        this.ask = ({ id }) => setImmediate(() => onAnswer({ id, failure: 'out of memory' }));
      },
    };
    const words = await seenBy(new Crew([failing])).then(
      () => 'went on',
      (error: Error) => error.message,
    );
    expect(words).to.equal('out of memory');
  });

  it('shares a plane once: what is shared already stays where it is', () => {
    const crew = new Crew([]);
    const shared = crew.shared(field);
    expect(shared.buffer).to.be.instanceOf(SharedArrayBuffer);
    expect([...shared]).to.deep.equal([...field]);
    expect(crew.shared(shared)).to.equal(shared);
    expect(ALONE.shared(field)).to.equal(field);
  });
});
