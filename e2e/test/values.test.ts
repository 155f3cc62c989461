import { luminanceOf, srgbToLinear } from '@zesty-tile/core';
import { expect } from 'chai';
import type { Locator, Page } from 'playwright-core';
import { idle, onFloor, openStage, type Stage, saved, station } from './stage.ts';

const unfold = async (page: Page, title: string): Promise<Locator> => {
  const button = page.getByRole('button', { name: title, exact: true });
  if ((await button.getAttribute('aria-expanded')) === 'false') await button.click();
  return page.getByRole('group', { name: title, exact: true });
};

async function setFigure(within: Page | Locator, name: string, value: number): Promise<void> {
  const field = within.getByRole('textbox', { name: `${name}, figure`, exact: true });
  await field.fill(String(value));
  await field.press('Enter');
}

/** Presses on the Floor at shares of the tile that is laid first, where something is to be picked. */
async function pickAt(page: Page, view: string, x: number, y: number): Promise<void> {
  const layer = page.locator(`[data-pick="${view}"]`);
  await layer.waitFor();
  const box = (await layer.boundingBox())!;
  const look = (await page.evaluate(
    'JSON.parse(document.querySelector("canvas[data-look]").dataset.look)',
  )) as { x: number; y: number; edge: number };
  await page.mouse.click(box.x + look.x + x * look.edge, box.y + look.y + y * look.edge);
  await layer.waitFor({ state: 'detached' });
}

const NUMBERS = /[\d.]+/g;

describe('values of a tile', () => {
  let stage: Stage;
  let page: Page;
  let tiles: { id: string; name: string }[];
  const open = async (name: string, at: string) => {
    const { id } = tiles.find((tile) => tile.name.includes(name))!;
    await page.goto(`${stage.url}/tiles/${id}/${at}`);
    await station(page, at).and(page.locator('[aria-current="step"]')).waitFor();
    await idle(page);
  };
  const verdict = () => page.getByRole('region', { name: 'Dials' }).getByRole('status').first().textContent();

  before(async function () {
    this.timeout(300_000);
    stage = await openStage(['pamments', 'ripples'], 512);
    ({ tiles } = await (await fetch(`${stage.url}/api/tiles`)).json());
    page = await stage.page();
  });
  after(async () => {
    await page.context().close();
    await stage.end();
  });

  it('a chart of one’s own is made and its line chosen by name; a band upside down is refused in words', async () => {
    await page.goto(`${stage.url}/charts`);
    await page.getByRole('button', { name: 'New chart' }).click();
    await page.getByRole('button', { name: 'Add a line' }).click();
    const name = page.getByRole('textbox', { name: 'Name of Line 1' });
    await name.fill('Island tuff');
    await name.press('Enter');
    const row = page.getByRole('group', { name: 'Island tuff' });
    const low = row.getByRole('textbox', { name: 'Lowest Y of Island tuff' });
    await low.fill('0.6');
    await low.press('Enter');
    await page.getByText('“Island tuff”, reflectance: A band needs its lower value first.').waitFor();
    expect(await low.inputValue()).to.equal('0.2');
    await low.fill('0.28');
    await low.press('Enter');
    await page.getByRole('searchbox', { name: 'Find a line' }).fill('tuff');
    await page.getByText('No line of that name here.').waitFor();
    await page.getByRole('searchbox', { name: 'Find a line' }).fill('');
    await open('pamments', 'gauge');
    await page.getByRole('combobox', { name: 'Reference' }).click();
    const options = page.getByRole('listbox');
    await options.getByText('Used in this project').waitFor();
    const first = options.getByRole('option').nth(1);
    expect(await first.textContent()).to.include('Fired clay, red');
    await page.getByRole('combobox', { name: 'Reference' }).fill('tuff');
    await page.getByRole('option', { name: /Island tuff.*Y 0\.28–0\.3/ }).click();
    await page.getByText(/inside the band 0\.28–0\.30/).waitFor();
    await page.getByRole('button', { name: /^Undo: Gauge, reference, own line/ }).click();
    await page.getByText(/inside the band 0\.11–0\.28/).waitFor();
  });

  it('a chart goes out as JSON and comes in again; a wrong file says what is wrong with it', async () => {
    await page.goto(`${stage.url}/charts`);
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name: 'Export' }).click(),
    ]);
    const path = await download.path();
    await page.getByLabel('Chart file').setInputFiles(path);
    await page.getByRole('group', { name: 'Island tuff' }).nth(1).waitFor();
    await page.getByLabel('Chart file').setInputFiles({
      name: 'wrong.json',
      mimeType: 'application/json',
      buffer: Buffer.from(
        JSON.stringify({
          name: 'Wrong',
          lines: [
            {
              id: 'a',
              name: 'Marl',
              group: '',
              kind: 'dielectric',
              reflectance: [0.5, 0.4],
              f0: 0.04,
              roughness: [0.1, 0.2],
            },
          ],
        }),
      ),
    });
    await page.getByText(/“Marl”, reflectance: A band needs its lower value first/).waitFor();
    await page.getByRole('button', { name: 'Copy it' }).click();
    await page.getByRole('group', { name: 'Fired clay, red' }).waitFor();
  });

  it('a zone is picked by its colour, shown with its share, and brought to a line of its own', async () => {
    await open('pamments', 'gauge');
    const zones = await unfold(page, 'Zones');
    await zones.getByRole('button', { name: 'By colour' }).click();
    await zones.getByRole('button', { name: 'Pick Colour from the tile' }).click();
    // A joint: paving squares lie four to an edge.
    await pickAt(page, 'joined', 0.249, 0.37);
    await onFloor(page, 'albedo');
    await page.locator('canvas[data-tinted="yes"]').waitFor();
    await setFigure(zones, 'Reach', 0.03);
    await page.waitForFunction(
      '/^Zone 1(\\d+\\.\\d) %$/.test(document.querySelector("[aria-expanded=true][data-zone]")?.textContent ?? "")',
    );
    const field = zones.getByRole('textbox', { name: 'Name of the zone' });
    await field.fill('Joints');
    await field.press('Enter');
    await zones.getByRole('combobox', { name: 'Reference of the zone' }).fill('basalt');
    await page
      .getByRole('option', { name: /Basalt/ })
      .last()
      .click();
    const measured = page.locator('dl').getByText('Median, Basalt');
    await measured.waitFor();
    const words = await measured.locator('xpath=..').textContent();
    expect(Number(words!.match(NUMBERS)![0])).to.be.within(0.04, 0.11);
    await saved(page);
  });

  it('the same zone is wet at Finish: smoother there, and darker at Gauge, and said to be gone when deleted', async () => {
    await open('pamments', 'finish');
    const zones = await unfold(page, 'Zones');
    await zones.getByRole('button', { name: /^Joints/ }).click();
    const low = async () => Number((await verdict())!.match(/from ([\d.]+) to/)![1]);
    const dry = await low();
    await setFigure(zones, 'Wetness', 1);
    await page.waitForFunction(
      `(/from ([\\d.]+) to/.exec(document.querySelector('[aria-label="Dials"] [role="status"]').textContent)?.[1] ?? 1) < ${dry - 0.2}`,
    );
    expect(await verdict()).to.match(/F0 0\.02\d–0\.04/);
    await zones.getByRole('button', { name: 'Delete' }).click();
    await page.waitForFunction(
      `(/from ([\\d.]+) to/.exec(document.querySelector('[aria-label="Dials"] [role="status"]').textContent)?.[1] ?? 0) > ${dry - 0.05}`,
    );
    await page.getByRole('button', { name: 'Undo: A zone removed' }).click();
    await zones.getByRole('button', { name: /^Joints/ }).waitFor();
  });

  it('a painted zone grows with its strokes, which are undone one by one', async () => {
    await open('pamments', 'finish');
    const zones = await unfold(page, 'Zones');
    await zones.getByRole('button', { name: 'By brush' }).last().click();
    const layer = page.locator('canvas[data-tint-layer="Zone 2"]');
    await layer.waitFor();
    const box = (await layer.boundingBox())!;
    const draw = async (x: number) => {
      await page.mouse.move(box.x + x * box.width, box.y + 0.4 * box.height);
      await page.mouse.down();
      await page.mouse.move(box.x + (x + 0.08) * box.width, box.y + 0.42 * box.height, { steps: 4 });
      await page.mouse.up();
    };
    await draw(0.3);
    await zones.getByText('1 stroke', { exact: true }).waitFor();
    await draw(0.45);
    await zones.getByText('2 strokes').waitFor();
    await page.waitForFunction(
      '/^Zone 2[1-9]/.test(document.querySelector("[aria-expanded=true][data-zone]")?.textContent ?? "")',
    );
    await page.getByRole('button', { name: /^Undo: Zones, / }).click();
    await zones.getByText('1 stroke', { exact: true }).waitFor();
    await zones.getByRole('button', { name: 'Delete' }).click();
  });

  it('readings are dropped, dragged and sized; they give what stands there, with a grey beside', async () => {
    await open('pamments', 'gauge');
    const readings = await unfold(page, 'Readings');
    await readings.getByRole('button', { name: 'Drop a reading' }).click();
    await pickAt(page, 'albedo', 0.37, 0.37);
    const row = readings.getByRole('row').nth(1);
    await row.getByText(/inside|above|below/).waitFor();
    const cell = (k: number) => row.getByRole('cell').nth(k).textContent();
    const y = Number(await cell(1));
    expect(y).to.be.within(0.05, 0.6);
    const codes = (await cell(2))!.split(' ').map(Number);
    // sRGB and Y speak of the same colour.
    const linear = codes.map((code) => srgbToLinear(code / 255));
    expect(luminanceOf(linear[0], linear[1], linear[2])).to.be.closeTo(y, 0.005);
    expect(await cell(3)).to.equal('0.040');
    expect(Number(await cell(4))).to.be.within(0.05, 0.35);
    const before = await row.textContent();
    const handle = page.getByRole('slider', { name: 'Reading 1' });
    const box = (await handle.boundingBox())!;
    await page.mouse.move(box.x + 9, box.y + 9);
    await page.mouse.down();
    await page.mouse.move(box.x + 60, box.y + 75, { steps: 4 });
    await page.mouse.up();
    await page.waitForFunction(
      `document.querySelector('tbody tr')?.textContent !== ${JSON.stringify(before)}`,
    );
    await setFigure(readings, 'Patch', 200);
    await readings.getByRole('button', { name: 'Grey beside it' }).click();
    const swatch = page.locator('rect[data-grey]');
    expect(await swatch.getAttribute('fill')).to.equal('rgb(118 118 118)');
    for (let k = 2; k <= 8; k++) {
      await readings.getByRole('button', { name: 'Drop a reading' }).click();
      await pickAt(page, 'albedo', 0.1 * k, 0.6);
      await page.getByRole('slider', { name: `Reading ${k}` }).waitFor();
    }
    expect(await readings.getByRole('button', { name: 'Drop a reading' }).isDisabled()).to.equal(true);
    await page.getByRole('button', { name: /^Undo: Gauge, Readings/ }).click();
    await page.getByRole('slider', { name: 'Reading 8' }).waitFor({ state: 'detached' });
  });

  it('luminance alone takes the colour out of what is looked at, and nothing else', async () => {
    const pixel = () =>
      page.evaluate(
        '[...document.querySelector("canvas[data-view]").getContext("2d").getImageData(200, 250, 1, 1).data]',
      ) as Promise<number[]>;
    const [r, , b] = await pixel();
    expect(r - b).to.be.above(15);
    await page.getByRole('button', { name: 'Luminance', exact: true }).click();
    const grey = await pixel();
    expect(Math.max(...grey.slice(0, 3)) - Math.min(...grey.slice(0, 3))).to.be.below(2);
    await page.getByRole('button', { name: 'Luminance', exact: true }).click();
  });

  it('by eye: white light beside grey steps, a multiplier that is kept and said as what it means', async () => {
    const lit = await stage.page({ sill: true });
    await lit.goto(page.url());
    await onFloor(lit, 'albedo');
    const eye = await unfold(lit, 'By eye');
    await eye.getByRole('button', { name: 'Next to grey steps' }).click();
    await lit.getByTestId('grey-steps').getByText('0.045 0.09 0.18 0.36 0.72').waitFor();
    await lit.locator('[data-show="eye"] canvas').waitFor();
    const said = eye.getByText(/comes to Y/);
    const y = async () => Number(/Y ([\d.]+)/.exec((await said.textContent())!)![1]);
    const before = await y();
    await setFigure(eye, 'By eye', 1.3);
    const comesTo = (times: string, value: number, slack: number) =>
      lit.waitForFunction(
        `(() => {
          const said = /×${times} comes to Y ([\\d.]+)/.exec(document.body.textContent);
          return said && Math.abs(Number(said[1]) - ${value}) < ${slack};
        })()`,
      );
    await comesTo('1\\.30', 1.3 * before, 0.03 * before);
    await eye.getByRole('button', { name: 'Reset' }).click();
    await comesTo('1\\.00', before, 0.002);
    await station(lit, 'relief').click();
    await lit.locator('[data-show="finished"]').waitFor();
    await lit.context().close();
  });

  it('the grey card in the photo sets exposure and white', async () => {
    await open('ripples', 'gauge');
    await unfold(page, 'Known patches');
    await page.getByRole('button', { name: 'Pick one in the photo' }).click();
    await pickAt(page, 'photo', 0.954, 0.714);
    await page.getByText(/One patch sets exposure and white; 0\.0 % remains as error/).waitFor();
    await onFloor(page, 'photo');
    const patch = page.getByRole('group', { name: 'Patch 1 in the photo' });
    const median = async () => Number(/Median ([\d.]+)/.exec((await verdict())!)![1]);
    const one = await median();
    // Salt and silt of the made-up pan lie between these.
    expect(one).to.be.within(0.15, 0.6);
    await setFigure(patch, 'Reflectance', 0.36);
    await page.waitForFunction(
      `Math.abs(Number(/Median ([\\d.]+)/.exec(document.querySelector('[aria-label="Dials"] [role="status"]').textContent)?.[1]) / ${one} - 2) < 0.5`,
    );
    await page.getByRole('button', { name: 'Albedo', exact: true }).click();
    await onFloor(page, 'albedo');
  });

  it('bands are named by their size and looked at alone; both readings of high are compared lit', async () => {
    await open('pamments', 'relief');
    await unfold(page, 'Bands');
    const solo = page.getByRole('button', { name: /^Band of 25 mm alone/ });
    await solo.click();
    await onFloor(page, 'band3');
    await solo.click();
    await onFloor(page, 'height');
    expect(await page.getByTestId('depth-share').textContent()).to.include(
      '6 mm over 1.24 m: height scale 0.00484',
    );
    for (const way of ['bright', 'dark']) await page.locator(`canvas[data-drawn="${way}"]`).waitFor();
    const drawn = (way: string) =>
      page.evaluate(
        `[...document.querySelector('canvas[data-drawn="${way}"]').getContext('2d').getImageData(0, 0, 150, 150).data].filter((_v, k) => k % 4 === 0)`,
      ) as Promise<number[]>;
    await page.getByRole('button', { name: 'Turns' }).click();
    // Both are drawn under the light at which it stopped.
    await page.evaluate('new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)))');
    const [bright, dark] = [await drawn('bright'), await drawn('dark')];
    const mean = (v: number[]) => v.reduce((s, x) => s + x, 0) / v.length;
    const [mb, md] = [mean(bright), mean(dark)];
    // What is lit in one is shaded in the other.
    expect(bright.reduce((sum, value, i) => sum + (value - mb) * (dark[i] - md), 0)).to.be.below(0);
    await page.getByRole('button', { name: 'Bright is high' }).click();
    await page.getByRole('button', { name: /^Undo: Relief, Raised Bright/ }).click();
  });

  it('light is dragged on its disc where slanting light is read', async () => {
    await unfold(page, 'How height is read');
    await page.getByRole('combobox', { name: 'Height from' }).click();
    await page.getByRole('option', { name: 'Both' }).click();
    // The fading menu would take the pointer.
    await page.locator('.MuiPopover-root').waitFor({ state: 'detached' });
    const disc = page.getByRole('slider', { name: 'Where slanting light comes from' });
    await page.getByText(/Light from \d+°, as found/).waitFor();
    await disc.scrollIntoViewIfNeeded();
    const box = (await disc.boundingBox())!;
    await page.mouse.move(box.x + 31, box.y + 31);
    await page.mouse.down();
    await page.mouse.move(box.x + 58, box.y + 31, { steps: 3 });
    await page.mouse.up();
    await page.getByText('Light from 90°, set by hand').waitFor();
  });

  it('the way of shine is written on roughness and gloss; what is one value is said', async () => {
    await open('pamments', 'finish');
    await page.getByTestId('note').getByText('dark is shiny').waitFor();
    await page.getByText(/One value is enough here: metallic \(0\)/).waitFor();
    await page.getByRole('combobox', { name: 'Map on the Floor' }).click();
    await page.locator('[role="option"][data-value="gloss"]').click();
    await page.getByTestId('note').getByText('bright is shiny').waitFor();
  });

  it('points of the tone curve are added, dragged and taken away, and never fold', async () => {
    await open('pamments', 'finish');
    const curve = await unfold(page, 'Tone curve');
    // A try that ended early may have left its point.
    const straight = curve.getByRole('button', { name: 'Straight' });
    if (await straight.isEnabled()) await straight.click();
    await curve.getByRole('button', { name: 'Add a point' }).click();
    const point = curve.getByRole('slider', { name: 'Point 2' });
    const words = () => point.getAttribute('aria-valuetext');
    expect(await words()).to.equal('0.50 to 0.50');
    const low = async () => Number((await verdict())!.match(/middle ([\d.]+)/)![1]);
    const before = await low();
    await point.scrollIntoViewIfNeeded();
    const box = (await point.boundingBox())!;
    await page.mouse.move(box.x + 6, box.y + 6);
    await page.mouse.down();
    // Far past its neighbour: it stops short of it.
    await page.mouse.move(box.x + 400, box.y + 80, { steps: 5 });
    await page.mouse.up();
    expect(await words()).to.match(/^0\.98 to 0\.0/);
    const middle = (test: string) =>
      page.waitForFunction(
        `(() => { const middle = Number(/middle ([\\d.]+)/.exec(document.querySelector('[aria-label="Dials"] [role="status"]').textContent)[1]); return ${test}; })()`,
      );
    await middle(`middle < ${before - 0.05}`);
    await point.press('Delete');
    await curve.getByRole('slider', { name: 'Point 3' }).waitFor({ state: 'detached' });
    await middle(`Math.abs(middle - ${before}) < 0.01`);
  });

  it('nothing failed on the way', () => {
    expect(stage.faults).to.deep.equal([]);
    expect(stage.serverErrors).to.deep.equal([]);
  });
});
