import { expect } from 'chai';
import { requests } from '../src/bench/requests.ts';
import type { ShownView, Update } from '../src/engine/protocol.ts';

const AT_ONCE = { painting: async () => {}, later: (work: () => void) => work(), end: () => {} };

const picture = (repairs: number): Update => ({
  kind: 'view',
  size: 512,
  shown: { repairs } as ShownView,
});

/** Requests of an engine that says what it is made to say: their numbers, and what was taken. */
function asked() {
  const numbers: number[] = [];
  const taken: Update[] = [];
  const asking = requests(
    (number) => numbers.push(number),
    (update) => taken.push(update),
    AT_ONCE,
  );
  return { asking, numbers, taken };
}

describe('what the Bench asks of its engine', () => {
  it('is asked for at once, and a newer wish as soon as the picture before is there', () => {
    const { asking, numbers, taken } = asked();
    asking.ask();
    asking.ask();
    asking.ask();
    expect(numbers).to.deep.equal([1]);
    asking.hear(picture(1), 1);
    expect(numbers).to.deep.equal([1, 2]);
    asking.hear(picture(2), 2);
    expect(numbers).to.deep.equal([1, 2]);
    expect(taken).to.deep.equal([picture(1), picture(2)]);
    asking.end();
  });

  it('maps of an older request are taken too, as later ones hold only what changed', () => {
    const { asking, taken } = asked();
    const maps: Update = { kind: 'maps', maps: { isMetal: false } };
    asking.ask();
    asking.hear(picture(1), 1);
    asking.ask();
    asking.hear(maps, 1);
    asking.hear(maps, 2);
    expect(taken).to.deep.equal([picture(1), maps, maps]);
    asking.end();
  });

  it('an older request that ends does not let go of a newer one that has no picture yet', () => {
    const { asking, numbers } = asked();
    asking.ask();
    asking.hear(picture(1), 1);
    asking.ask();
    asking.ask();
    asking.hear({ kind: 'idle' }, 1);
    expect(numbers).to.deep.equal([1, 2]);
    asking.hear({ kind: 'idle' }, 2);
    expect(numbers).to.deep.equal([1, 2, 3]);
    asking.end();
  });

  it('after its end nothing is taken any more', () => {
    const { asking, taken } = asked();
    asking.ask();
    asking.end();
    asking.hear(picture(1), 1);
    expect(taken).to.deep.equal([]);
  });
});
