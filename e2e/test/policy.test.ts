import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { onFloor, openStage, type Stage, station, verdictOf } from './stage.ts';

describe('the policy of what pages may load and run', () => {
  let stage: Stage;
  let page: Page;
  before(async () => {
    stage = await openStage(['stucco'], 512);
    page = await stage.page({ strict: true, sill: true });
  });
  after(async () => {
    await page.context().close();
    await stage.end();
  });

  it('lets every page, the engine with its kernels, and the lit view work', async () => {
    await page.goto(stage.url);
    await page.locator('[data-tile="Limewashed stucco"]').getByRole('img').waitFor();
    for (const name of ['Palettes', 'Charts', 'Recipes', 'Crates', 'Settings']) {
      await page.getByRole('link', { name, exact: true }).click();
      await page.getByRole('heading', { level: 1 }).waitFor();
    }
    await page.getByRole('link', { name: 'Yard', exact: true }).click();
    await page.locator('[data-tile="Limewashed stucco"]').dblclick();
    await onFloor(page, 'photo');
    for (const name of ['join', 'relief', 'proof']) {
      await station(page, name).click();
      await verdictOf(page, name);
    }
    await page.locator('[data-sill="lit"]').waitFor();
    expect(stage.faults).to.deep.equal([]);
  });
});

describe('a page of another site', () => {
  let stage: Stage;
  let page: Page;
  let other: Server;
  let html = '';
  before(async () => {
    stage = await openStage([]);
    other = createServer((_request, response) => {
      response.setHeader('Content-Type', 'text/html');
      response.end(html);
    });
    await new Promise<void>((resolve) => other.listen(0, '127.0.0.1', resolve));
    page = await stage.page();
  });
  after(async () => {
    await page.context().close();
    other.close();
    await stage.end();
  });
  const otherUrl = () => `http://localhost:${(other.address() as AddressInfo).port}`;
  const projects = async () => (await (await fetch(`${stage.url}/api/projects`)).json()).projects.length;

  it('cannot show the program in a frame', async () => {
    html = `<iframe src="${stage.url}"></iframe>`;
    await page.goto(otherUrl());
    const frame = page.frames()[1];
    await frame.waitForLoadState();
    expect(await frame.content()).not.to.include('Zesty Tile');
    expect(frame.url()).to.match(/^chrome-error:/);
  });

  it('cannot change anything by a form or a request, nor read an answer', async () => {
    html = `<form method="post" enctype="text/plain" action="${stage.url}/api/projects"><input name='{"name":"' value='stolen"}'></form>`;
    await page.goto(otherUrl());
    await page.locator('form').evaluate((form) => (form as HTMLFormElement).submit());
    await page.getByText('is not this server').waitFor();
    await page.goto(otherUrl());
    const read = await page.evaluate(async (url) => {
      const body = JSON.stringify({ name: 'stolen' });
      const tries = [
        fetch(`${url}/api/projects`, { method: 'POST', mode: 'no-cors', body }),
        fetch(`${url}/api/projects`, { method: 'POST', body }),
        fetch(`${url}/api/tiles`),
      ];
      const answers = await Promise.allSettled(tries);
      return answers.map((one) => (one.status === 'fulfilled' ? one.value.type : 'refused'));
    }, stage.url);
    expect(read.slice(1)).to.deep.equal(['refused', 'refused']);
    expect(await projects()).to.equal(0);
  });
});
