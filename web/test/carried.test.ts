import { MASK_PARTS, type Mask, newItem, newRecipe, type Recipe } from '@zesty-tile/core';
import { expect } from 'chai';
import { type Carried, packer, receiving, sending, unpacker } from '../src/engine/carried.ts';

type Painted = Extract<Mask['parts'][number], { by: 'brush' }>;
type Strokes = Painted['strokes'];

const stroke = (k: number): Strokes[number] => ({
  points: [[k / 1000, 0.5]],
  radius: 0.02,
  softness: 0.5,
  erase: false,
});
const painted = (strokes: Strokes): Recipe => {
  const part = { ...newItem(MASK_PARTS, 'brush'), strokes } as Mask['parts'][number];
  return { ...newRecipe(), masks: [{ id: 'moss', name: 'Moss', wetness: 0, parts: [part] }] };
};
const strokesOf = ({ masks }: Recipe): Strokes => (masks[0].parts[0] as Painted).strokes;

describe('recipes on their way to the engine', () => {
  it('arrive whole, and of their strokes only those go along that are new', () => {
    const [pack, unpack] = [packer(), unpacker()];
    const way = (recipe: Recipe): [Carried, Recipe] => {
      const carried = structuredClone(pack(recipe));
      return [carried, unpack(carried)];
    };
    const strokes = Array.from({ length: 70 }, (_, k) => stroke(k));
    const [first, whole] = way(painted(strokes));
    expect(whole).to.deep.equal(painted(strokes));
    expect(first.sheets.size).to.equal(3);
    const [second, more] = way(painted([...strokes, stroke(70)]));
    expect(more).to.deep.equal(painted([...strokes, stroke(70)]));
    expect(second.sheets.size).to.equal(1);
    // What came once is the same object, so that its hash is known.
    expect(strokesOf(more)[31]).to.equal(strokesOf(whole)[31]);
    const [undone] = way(painted(strokes));
    expect(undone.sheets.size).to.equal(0);
  });

  it('leave nothing behind for good: what was not needed for long is given up, and sent again when it is', () => {
    const [pack, unpack] = [packer(), unpacker()];
    const early = painted([stroke(-1)]);
    const way = (recipe: Recipe) => unpack(structuredClone(pack(recipe)));
    way(early);
    const carried = Array.from({ length: 400 }, (_, k) => pack(painted([stroke(k)])));
    for (const one of carried) unpack(one);
    const spent = carried.flatMap((one) => one.spent);
    expect(spent.length).to.be.within(100, 200);
    expect(new Set(spent).size).to.equal(spent.length);
    expect(way(early)).to.deep.equal(early);
    expect(pack(early).sheets.size).to.equal(0);
  });

  it('are packed in whatever an engine is asked, and everything else is as it was', async () => {
    const asked: unknown[] = [];
    const engine = receiving({
      repeatFigure: async (request: { recipe: Recipe; size: number }, edge: number) => {
        asked.push(request, edge);
        return 4;
      },
      stop: () => 'stopped',
    });
    const sent: unknown[] = [];
    const port = sending({
      repeatFigure: (request: never, edge: number) => {
        sent.push(request);
        return engine.repeatFigure(structuredClone(request), edge);
      },
      stop: engine.stop,
    });
    const recipe = painted([stroke(1)]);
    expect(await port.repeatFigure({ recipe, size: 512 } as never, 3)).to.equal(4);
    expect(asked).to.deep.equal([{ recipe, size: 512 }, 3]);
    expect(JSON.stringify((sent[0] as { recipe: Carried }).recipe.carried)).to.not.include('radius');
    expect(port.stop()).to.equal('stopped');
  });
});
