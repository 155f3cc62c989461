import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { onFloor, openStage, type Stage } from './stage.ts';

/** Serves pages as a server does that knows nothing of shared memory. */
const unshared = (page: Page) =>
  page.route(
    (url) => !url.pathname.startsWith('/api/'),
    async (route) => {
      const response = await route.fetch();
      const headers = { ...response.headers() };
      delete headers['cross-origin-opener-policy'];
      delete headers['cross-origin-embedder-policy'];
      await route.fulfill({ response, headers });
    },
  );

/** What the Bench's engine says it worked with, and the picture that came of it. */
async function made(page: Page, stage: Stage, address: string) {
  await page.goto(`${stage.url}/settings`);
  await page.getByRole('checkbox', { name: 'Show below the tile' }).check();
  await page.goto(`${stage.url}${address}`);
  await onFloor(page, 'albedo', 512);
  const line = page.getByTestId('engine-line').getByText(/\d threads?/);
  const threads = /(\d+) threads?/.exec((await line.textContent())!)![1];
  const picture = await page
    .locator('section[aria-label="Floor"] canvas[data-view="albedo"][data-size="512"][data-fine="yes"]')
    .evaluate((canvas) => (canvas as HTMLCanvasElement).toDataURL());
  return { threads: Number(threads), picture };
}

describe('where the page may not share memory', () => {
  let stage: Stage;
  let address: string;
  before(async () => {
    stage = await openStage(['stucco'], 512);
    const { tiles } = await (await fetch(`${stage.url}/api/tiles`)).json();
    address = `/tiles/${tiles[0].id}/gauge`;
  });
  after(() => stage.end());

  it('one thread does all of it, to the same picture', async () => {
    const [shared, alone] = [await stage.page(), await stage.page()];
    await unshared(alone);
    const expected = await made(shared, stage, address);
    expect(await shared.evaluate('crossOriginIsolated')).to.equal(true);
    await shared.context().close();
    const found = await made(alone, stage, address);
    expect(await alone.evaluate('crossOriginIsolated')).to.equal(false);
    const cores = (await alone.evaluate('navigator.hardwareConcurrency')) as number;
    expect(expected.threads).to.equal(Math.min(8, cores));
    expect(found.threads).to.equal(1);
    expect(found.picture === expected.picture, 'the same picture').to.equal(true);
    await alone.context().close();
  });

  it('no page met an error of its own on the way', () => {
    expect(stage.faults).to.deep.equal([]);
  });
});
