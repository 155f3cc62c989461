import type { Recipe } from '@zesty-tile/core';
import { expect } from 'chai';
import type { CrateMaker } from '../src/crates/make.ts';
import type { CrateEnd, CrateOrder } from '../src/crates/order.ts';
import { OwnQueue } from '../src/crates/own-queue.ts';
import { smallRecipe } from './crating.ts';

describe('the queue', () => {
  const order = (id: string, size = 256): CrateOrder => ({
    id,
    tile: 'a',
    crate: 1,
    source: { sha256: 'a'.repeat(64), width: 9, height: 9, file: 'a.png' },
    given: [],
    recipe: {
      ...smallRecipe(),
      stations: { ...smallRecipe().stations, square: { ...smallRecipe().stations.square, size } },
    } as Recipe,
  });

  /** A queue whose crates take until they are told to end. */
  function slowQueue(workers: number) {
    const begun: string[] = [];
    const ended: string[] = [];
    const ends = new Map<string, () => void>();
    const make = (one: CrateOrder, _tell: unknown, signal: AbortSignal) =>
      new Promise<CrateEnd>((resolve) => {
        ends.set(one.id, () => resolve({ state: 'done', files: [] }));
        signal.addEventListener('abort', () => resolve({ state: 'stopped' }));
      });
    const queue = new OwnQueue({ make } as unknown as CrateMaker, workers);
    const settled = () => new Promise((resolve) => setImmediate(resolve));
    const end = async (id: string) => {
      ends.get(id)?.();
      await settled();
    };
    const listener = {
      started: (id: string) => begun.push(id),
      moved() {},
      returned() {},
      ended: (id: string, { state }: CrateEnd) => ended.push(`${id} ${state}`),
    };
    return { queue, listener, begun, ended, end, settled };
  }

  it('makes so many at once as there are workers, the least place first, and one of 8192 px alone', async () => {
    const { queue, listener, begun, end, settled } = slowQueue(2);
    await queue.begin(listener);
    await queue.add(order('a'), 1);
    await queue.add(order('b'), 2);
    await queue.add(order('c'), 5);
    await queue.add(order('large', 8192), 4);
    await queue.add(order('d'), 6);
    await queue.place('d', 3);
    await settled();
    expect(begun).to.deep.equal(['a', 'b']);
    await end('a');
    expect(begun).to.deep.equal(['a', 'b', 'd']);
    await end('b');
    // It waits for the other to end, and nothing goes before it.
    expect(begun).to.have.length(3);
    await end('d');
    expect(begun.slice(3)).to.deep.equal(['large']);
    await end('large');
    expect(begun.slice(4)).to.deep.equal(['c']);
  });

  it('stops one that waits and one that is made', async () => {
    const { queue, listener, begun, ended, settled } = slowQueue(1);
    await queue.begin(listener);
    await queue.add(order('a'), 1);
    await queue.add(order('b'), 2);
    await settled();
    await queue.stop('b');
    expect(ended).to.deep.equal(['b stopped']);
    await queue.stop('a');
    await settled();
    expect(ended).to.deep.equal(['b stopped', 'a stopped']);
    expect(begun).to.deep.equal(['a']);
  });

  it('a server that closes calls nothing stopped', async () => {
    const { queue, listener, ended, settled } = slowQueue(1);
    await queue.begin(listener);
    await queue.add(order('a'), 1);
    await settled();
    await queue.close();
    expect(ended).to.deep.equal([]);
  });
});
