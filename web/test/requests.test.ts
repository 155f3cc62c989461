import { expect } from 'chai';
import { requests } from '../src/bench/requests.ts';
import type { ShownView, Update } from '../src/engine/protocol.ts';

const AT_ONCE = { painting: async () => {}, later: (work: () => void) => work(), end: () => {} };

const picture = (repairs: number): Update => ({
  kind: 'view',
  size: 512,
  shown: { repairs } as ShownView,
});

/** Requests whose engine answers when it is told to, and what was taken of its answers. */
function asked() {
  const answers: ((update: Update) => unknown)[] = [];
  const taken: Update[] = [];
  const asking = requests(
    (take) => answers.push(take),
    (update) => taken.push(update),
    AT_ONCE,
  );
  return { asking, answers, taken };
}

describe('what the Bench asks of its engine', () => {
  it('is asked for at once, and a newer wish as soon as the picture before is there', () => {
    const { asking, answers, taken } = asked();
    asking.ask();
    asking.ask();
    asking.ask();
    expect(answers).to.have.length(1);
    answers[0](picture(1));
    expect(answers).to.have.length(2);
    answers[1](picture(2));
    expect(answers).to.have.length(2);
    expect(taken).to.deep.equal([picture(1), picture(2)]);
    asking.end();
  });

  it('an older request that is heard late does not bring its picture back over a newer one', () => {
    const { asking, answers, taken } = asked();
    asking.ask();
    answers[0](picture(2));
    asking.ask();
    // Until the newer one answers, the older one may still say something.
    answers[0]({ kind: 'repeats', repeats: [] });
    answers[1](picture(3));
    answers[0](picture(2));
    answers[0]({ kind: 'idle' });
    expect(taken.map(({ kind }) => kind)).to.deep.equal(['view', 'repeats', 'view']);
    expect(taken.at(-1)).to.deep.equal(picture(3));
    asking.end();
  });

  it('after its end nothing is taken any more', () => {
    const { asking, answers, taken } = asked();
    asking.ask();
    asking.end();
    answers[0](picture(1));
    expect(taken).to.deep.equal([]);
  });
});
