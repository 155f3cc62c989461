import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { apart, sharp } from './sill-view.ts';
import { idle, onFloor, openStage, type Stage, saved, verdictOf } from './stage.ts';

describe('seen as the game will show it', () => {
  let stage: Stage;
  let page: Page;

  before(async function () {
    this.timeout(300_000);
    stage = await openStage(['copper'], 512);
    const { tiles } = await (await fetch(`${stage.url}/api/tiles`)).json();
    page = await stage.page();
    await page.goto(`${stage.url}/tiles/${tiles[0].id}/proof`);
    await onFloor(page, 'albedo');
    await idle(page);
  });
  after(async () => {
    await page.context().close();
    await stage.end();
  });

  const spots = () => page.getByRole('list', { name: 'Spots' }).getByRole('listitem');
  it('numbers what will be seen repeating, and tones it down where it is asked to', async () => {
    await spots().first().waitFor();
    const count = Number(/(\d+) \w+ repeats?/.exec(await verdictOf(page, 'proof'))![1]);
    expect(await spots().count()).to.equal(Math.min(8, count));
    expect(await page.locator('g[data-repeat]').count()).to.equal(Math.min(8, count));
    const told = (test: string) =>
      page.waitForFunction(
        `Number(/(\\d+) \\w+ repeats?/.exec(document.querySelector('[data-station="proof"]').textContent)?.[1] ?? 0) ${test}`,
      );
    const first = (await spots().first().textContent())!;
    const firstIs = (same: boolean) =>
      page.waitForFunction(
        `(document.querySelector('[aria-label="Spots"] > li')?.textContent === ${JSON.stringify(first)}) === ${same}`,
      );
    await page.getByRole('button', { name: 'Tone spot 1 down' }).click();
    await page.getByText('1 spot is toned down').waitFor();
    const toned = page.getByTestId('before-toned');
    await toned.getByText(/^\d+\.\d → \d+\.\d$/).waitFor();
    const [was, is] = (await toned.locator('strong').textContent())!.split(' → ').map(Number);
    expect(was).to.be.above(is);
    await firstIs(false);
    await saved(page);
    await page.getByRole('button', { name: /^Undo: Join/ }).click();
    await firstIs(true);
    await page.getByRole('button', { name: 'Tone all down' }).click();
    await page.getByText('8 spots are toned down').waitFor();
    await told(`<= ${count - 4}`);
    await page.getByRole('button', { name: /^Undo: Join/ }).click();
    await told(`=== ${count}`);
  });

  it('the tile is laid eight times each way, and every verdict leads to its station', async () => {
    await page.getByRole('button', { name: '8 × 8' }).click();
    await page.getByRole('img', { name: /tiled 8 × 8/ }).waitFor();
    await page.getByRole('button', { name: '2 × 2' }).click();
    const all = page.getByRole('region', { name: 'All verdicts' });
    const check = (id: string) => all.locator(`[data-check="${id}"]`);
    await check('roughness')
      .getByText(/Median against Verdigris/)
      .waitFor();
    expect(await all.locator('[data-check]').count()).to.equal(14);
    await check('seam')
      .getByText(/albedo \d\.\d\d, .*normal \d\.\d\d/)
      .waitFor();
    await check('green').getByText('+Y').waitFor();
    await check('agree')
      .getByText(/explains all but .* of 4\.0\./)
      .waitFor();
    await check('roughness').getByRole('link', { name: 'Finish' }).click();
    await onFloor(page, 'roughness');
    await page.keyboard.press('0');
    await page.locator('[data-station="proof"][aria-current="step"]').waitFor();
  });

  it('on the Floor a far field is seen from above and along the ground, with mips and without', async () => {
    const picture = async (kind: string) => {
      await page.locator(`[data-far="${kind}"]`).waitFor();
      const bytes = await page.locator('[data-far]').screenshot();
      const { data } = await sharp(bytes)
        .removeAlpha()
        .resize(200, 180, { kernel: 'nearest' })
        .raw()
        .toBuffer({ resolveWithObject: true });
      return [...data] as number[];
    };
    await page.getByRole('button', { name: 'Grazing', exact: true }).click();
    const eight = await picture('along eight');
    await page.getByRole('button', { name: 'Mips', exact: true }).click();
    const mips = await picture('along mips');
    await page.getByRole('button', { name: 'No mips' }).click();
    const none = await picture('along none');
    /** How much neighbours differ near the horizon, where a pixel covers many repeats. */
    const roughOf = (codes: number[]) => {
      let sum = 0;
      for (let y = 55; y < 75; y++)
        for (let x = 0; x < 199; x++)
          sum += Math.abs(codes[3 * (200 * y + x)] - codes[3 * (200 * y + x + 1)]);
      return sum;
    };
    expect(roughOf(none)).to.be.above(1.5 * roughOf(eight));
    expect(roughOf(eight)).to.be.above(roughOf(mips));
    const box = (await page.locator('[data-far]').boundingBox())!;
    await page.mouse.move(box.x + 200, box.y + 300);
    await page.mouse.down();
    await page.mouse.move(box.x + 260, box.y + 330, { steps: 3 });
    await page.mouse.up();
    let moved = none;
    for (let tries = 0; tries < 20 && apart(moved, none) < 1; tries++) moved = await picture('along none');
    expect(apart(moved, none)).to.be.at.least(1);
    await page.getByRole('button', { name: 'Far', exact: true }).click();
    await picture('above none');
    await page.getByRole('img', { name: /24 repeats across/ }).waitFor();
    await page.getByRole('button', { name: 'Near', exact: true }).click();
    await page.locator('[data-far]').waitFor({ state: 'detached' });
  });

  it('a spot is repaired at Join: the healing brush is in hand there, and the spot ringed', async () => {
    await page.getByRole('link', { name: 'Repair spot 2 at Join' }).click();
    await page.locator('[data-repair-layer="heal"]').waitFor();
    await page.locator('[data-repair-at]').first().waitFor();
    await page.keyboard.press('0');
    await onFloor(page, 'albedo');
  });

  it('the project’s texel density is set in the Yard, and Proof holds the tile against it', async () => {
    const proof = page.url();
    await page.goto(stage.url);
    const field = page.getByRole('textbox', { name: /^Texel density of the project/ });
    await field.fill('256');
    await field.press('Enter');
    await page.goto(proof);
    const density = page.locator('[data-check="density"][data-state="look"]');
    await density.getByText('759 px/m 256 px/m').waitFor();
    await density.getByText('Another size or edge would come nearer.').waitFor();
    await idle(page);
  });

  it('a proof sheet fits one page: the tile laid, lit, its maps, verdicts and conventions', async () => {
    await page.getByRole('link', { name: 'Proof sheet' }).click();
    await page.getByRole('heading', { name: 'Verdigris copper' }).waitFor();
    await page.getByRole('img', { name: /tiled 3 × 3/ }).waitFor();
    await page.waitForFunction(
      '[...document.images].length > 5 && [...document.images].every((one) => one.complete && one.naturalWidth > 0)',
    );
    await page.getByRole('rowheader', { name: 'Maps agree' }).waitFor();
    await page.getByRole('figure', { name: /^Histogram of luminance/ }).waitFor();
    await page.getByText('green up (+Y), 8 bit').waitFor();
    const pdf = (await page.pdf({ preferCSSPageSize: true, printBackground: true })).toString('latin1');
    expect(pdf.match(/\/Type\s*\/Page\b/g)).to.have.length(1);
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Save as PNG' }).click(),
    ]);
    expect(download.suggestedFilename()).to.equal('Verdigris copper-proof-sheet.png');
    const sheet = sharp(await download.path());
    const { width, height } = await sheet.metadata();
    expect(width).to.be.above(2000);
    expect(height! / width!).to.be.below(Math.SQRT2);
    // A picture of what is seen: not white all over, its pictures in it.
    const { data } = await sheet.resize(40, 56, { fit: 'fill' }).raw().toBuffer({ resolveWithObject: true });
    const colourful = [...data.keys()].filter((i) => i % 3 === 0 && Math.abs(data[i] - data[i + 2]) > 24);
    expect(colourful.length).to.be.above(60);
    await page.getByRole('link', { name: 'Back to Proof' }).click();
    await onFloor(page, 'albedo');
  });

  it('nothing failed on the way', () => {
    expect(stage.faults).to.deep.equal([]);
    expect(stage.serverErrors).to.deep.equal([]);
  });
});
