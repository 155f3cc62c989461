import { expect } from 'chai';
import { News } from '../src/engine/news.ts';

describe('what is news to the page', () => {
  it('is sent once for each size, as long as it was made from the same', () => {
    const news = new News<string>();
    const [quick, sharp] = [{}, {}];
    expect(news.is('albedo', 512, quick)).to.equal(true);
    expect(news.is('albedo', 1024, sharp)).to.equal(true);
    expect(news.is('albedo', 512, quick), 'the quick one again, which would blur the sharp one').to.equal(
      false,
    );
    expect(news.is('albedo', 1024, sharp)).to.equal(false);
  });

  it('is the sharp one again when a quick one of something else came between', () => {
    const news = new News<string>();
    const [quick, other, sharp] = [{}, {}, {}];
    news.is('albedo', 512, quick);
    news.is('albedo', 1024, sharp);
    expect(news.is('albedo', 512, other)).to.equal(true);
    expect(news.is('albedo', 512, quick)).to.equal(true);
    expect(news.is('albedo', 1024, sharp)).to.equal(true);
  });

  it('is kept apart for each thing, and hangs on all that it was made from', () => {
    const news = new News<string>();
    const [a, b] = [{}, {}];
    news.is('packed', 512, a, b);
    expect(news.is('normal', 512, a, b)).to.equal(true);
    expect(news.is('packed', 512, a, {})).to.equal(true);
    expect(news.is('packed', 512, a)).to.equal(true);
  });
});
