import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { idle, onFloor, openStage, type Stage, station } from './stage.ts';

const dials = (page: Page) => page.getByRole('region', { name: 'Dials' });
const choice = (page: Page, words: string) => dials(page).getByRole('button', { name: words, exact: true });

/** Mean and deviation of the Floor's values within a rectangle of the tile, in shares of it: codes 0…255. */
const measured = (page: Page, view: string, [left, top, right, bottom]: [number, number, number, number]) =>
  page.evaluate(
    `(() => {
      const canvas = document.querySelector('canvas[data-view="${view}"]');
      const look = JSON.parse(canvas.dataset.look);
      const scale = canvas.width / canvas.clientWidth;
      const [x, y] = [look.x + ${left} * look.edge, look.y + ${top} * look.edge].map((v) => Math.round(scale * v));
      const [w, h] = [${right - left} * look.edge, ${bottom - top} * look.edge].map((v) => Math.round(scale * v));
      const { data } = canvas.getContext('2d').getImageData(x, y, w, h);
      const values = [...data].filter((_value, k) => k % 4 === 0);
      const mean = values.reduce((a, b) => a + b) / values.length;
      return { mean, deviation: Math.sqrt(values.reduce((a, b) => a + (b - mean) ** 2, 0) / values.length) };
    })()`,
  ) as Promise<{ mean: number; deviation: number }>;

/** Waits until joints are carved: a part of the height is black. */
const carvedOnFloor = (page: Page) =>
  page.waitForFunction(`(() => {
    const canvas = document.querySelector('canvas[data-view="height"]');
    const { data } = canvas.getContext('2d').getImageData(0, 0, canvas.width, canvas.height);
    let [low, high] = [0, 0];
    for (let i = 0; i < data.length; i += 4) {
      if (data[i] < 40) low++;
      if (data[i] > 190) high++;
    }
    return low > 0.02 * data.length / 4 && high > 0.6 * data.length / 4;
  })()`);

describe('what stands out', () => {
  let stage: Stage;
  let page: Page;
  const open = async (at: string) => {
    const { tiles } = await (await fetch(`${stage.url}/api/tiles`)).json();
    await page.goto(`${stage.url}/tiles/${tiles[0].id}/${at}`);
    await station(page, at).and(page.locator('[aria-current="step"]')).waitFor();
    await idle(page);
  };

  before(async function () {
    this.timeout(300_000);
    stage = await openStage(['pamments'], 512);
    page = await stage.page();
    await open('relief');
  });
  after(async () => {
    await page.context().close();
    await stage.end();
  });

  it('is asked by four lit readings; pressed one is taken: joints lie low and faces level', async () => {
    for (const way of ['bright', 'dark', 'faces', 'light']) {
      await page.locator(`canvas[data-drawn="${way}"]`).waitFor();
    }
    await page.getByText(/Thin light lines close faces \(\d+ %\): they may be joints\./).waitFor();
    await onFloor(page, 'height');
    // Within one of the faces.
    const face: [number, number, number, number] = [0.06, 0.06, 0.19, 0.19];
    const before = await measured(page, 'height', face);
    await choice(page, 'Faces between joints').click();
    await carvedOnFloor(page);
    await idle(page);
    const after = await measured(page, 'height', face);
    expect(after.mean).to.be.above(before.mean);
    expect(after.deviation).to.be.below(0.6 * before.deviation);
    expect(await choice(page, 'Faces between joints').getAttribute('aria-pressed')).to.equal('true');
  });

  it('the depth that is said is that of joints and tone together, and dials of joints are there', async () => {
    const isDeep = (low: number, high: number) =>
      page.waitForFunction(
        `((mm) => mm > ${low} && mm < ${high})(parseFloat(document.querySelector('[data-testid="depth-share"]').textContent))`,
      );
    await isDeep(6.1, 9);
    const depth = dials(page).getByRole('textbox', { name: 'Joint depth, figure' });
    await depth.fill('20');
    await depth.press('Enter');
    await isDeep(20, 24);
    await page.getByRole('button', { name: /^Undo: Relief, Joint depth 20/ }).click();
    await isDeep(6.1, 9);
    await idle(page);
  });

  it('the net is seen on the Floor and repaired by the brush: what is painted is joint', async () => {
    await choice(page, 'Net of joints').click();
    await dials(page).getByRole('button', { name: 'Show joints on the Floor' }).click();
    await onFloor(page, 'joints');
    // In the middle of a face nothing is tinted: the clay is more red than green.
    const middle = `(() => {
      const canvas = document.querySelector('canvas[data-view="joints"]');
      const look = JSON.parse(canvas.dataset.look);
      const scale = canvas.width / canvas.clientWidth;
      const [x, y] = [look.x + 0.125 * look.edge, look.y + 0.125 * look.edge].map((v) => Math.round(scale * v));
      return [...canvas.getContext('2d').getImageData(x, y, 1, 1).data];
    })()`;
    const [red, green] = (await page.evaluate(middle)) as number[];
    expect(red).to.be.above(green);
    await dials(page).getByRole('button', { name: 'Paint', exact: true }).click();
    const layer = page.locator('canvas[data-tint-layer="joints"]');
    await layer.waitFor();
    const box = (await layer.boundingBox())!;
    const look = (await page.evaluate(
      'JSON.parse(document.querySelector("canvas[data-look]").dataset.look)',
    )) as { x: number; y: number; edge: number };
    const [x, y] = [box.x + look.x + 0.125 * look.edge, box.y + look.y];
    await page.mouse.move(x, y + 0.02 * look.edge);
    await page.mouse.down();
    await page.mouse.move(x, y + 0.23 * look.edge, { steps: 8 });
    await page.mouse.up();
    await dials(page).getByText('1 stroke', { exact: true }).waitFor();
    await page.waitForFunction(`(([r, g]) => g > 150 && g > r)(${middle})`);
    await dials(page).getByRole('button', { name: 'Undo last stroke' }).click();
    await dials(page).getByText('0 strokes', { exact: true }).waitFor();
  });

  it('a zone is read in a way of its own: sunk by a level, the tile is deeper', async () => {
    await dials(page).getByRole('button', { name: 'Zones', exact: true }).click();
    await dials(page).getByRole('button', { name: 'By colour', exact: true }).first().click();
    const values = dials(page).getByRole('group', { name: 'Values of Zone 1' });
    const level = values.getByRole('textbox', { name: 'Level, figure' });
    await level.fill('-30');
    await level.press('Enter');
    await page.waitForFunction(
      `parseFloat(document.querySelector('[data-testid="depth-share"]').textContent) > 15`,
    );
    await page.getByRole('button', { name: /^Undo: Relief, Readings of zones/ }).waitFor();
    await dials(page).getByRole('button', { name: 'Delete', exact: true }).click();
    await page.waitForFunction(
      `parseFloat(document.querySelector('[data-testid="depth-share"]').textContent) < 10`,
    );
  });

  it('joints become a zone, which Finish has in its list', async () => {
    await dials(page).getByRole('button', { name: 'Make the joints a zone' }).click();
    await dials(page).getByRole('button', { name: 'Joints are the zone “Joints”' }).waitFor();
    await station(page, 'finish').click();
    await onFloor(page, 'roughness');
    await dials(page).locator('[data-zone="Joints"]').waitFor();
  });
});
