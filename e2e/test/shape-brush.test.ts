import { createRequire } from 'node:module';
import type { PaintStroke } from '@zesty-tile/core';
import { LANTERN } from '@zesty-tile/demo';
import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { untilPixel } from './coat-pixels.ts';
import { apart, choose, still, within } from './sill-view.ts';
import { idle, onFloor, openStage, type Stage, saved } from './stage.ts';

const sharp = createRequire(new URL('../../codecs/package.json', import.meta.url))('sharp');

const BRUSH = [179, 69, 44];
const OLIVE = [138, 143, 90];
const NAMES = ['Frame', 'Glass', 'Roof'] as const;

const middleOf = (loop: number[]) => [(loop[0] + loop[4]) / 2, (loop[1] + loop[5]) / 2] as const;

describe('painting on the lit shape', () => {
  let stage: Stage;
  let page: Page;
  let id: string;
  const dials = () => page.getByRole('region', { name: 'Dials' });
  const shown = (name: string) =>
    page.getByRole('region', { name: 'Sill' }).getByRole('button', { name, exact: true }).click();
  /** Shares of the Floor's canvas where a place of the tile lies, in the tile that is laid first. */
  const onFloorAt = (u: number, v: number) =>
    page.evaluate(
      `(() => {
        const canvas = document.querySelector('canvas[data-look]');
        const { x, y, edge } = JSON.parse(canvas.dataset.look);
        return [(x + ${u} * edge) / canvas.clientWidth, (y + ${v} * edge) / canvas.clientHeight];
      })()`,
    ) as Promise<[number, number]>;
  const untilTile = async (u: number, v: number, rgb: readonly number[], slack = 3) =>
    untilPixel(page, ...(await onFloorAt(u, v)), rgb, slack);
  /** Leads the pointer over the Sill through places in shares of its view, and leaves it pressed. */
  const press = async (places: readonly (readonly [number, number])[]) => {
    const box = (await page.locator('[data-sill] canvas').first().boundingBox())!;
    const at = ([x, y]: readonly [number, number]) =>
      [box.x + x * box.width, box.y + y * box.height] as const;
    await page.mouse.move(...at(places[0]));
    await page.mouse.down();
    for (const place of places.slice(1)) await page.mouse.move(...at(place), { steps: 4 });
  };
  const lead = async (places: readonly (readonly [number, number])[]) => {
    await press(places);
    await page.mouse.up();
  };
  const strokesSaved = async (): Promise<PaintStroke[]> => {
    await saved(page);
    const { revision } = await (await fetch(`${stage.url}/api/tiles/${id}`)).json();
    const stack: { parts: { by: string; strokes?: PaintStroke[] }[] }[] =
      revision.recipe.stations.coats.stack;
    return stack.flatMap(({ parts }) =>
      parts.flatMap((part) => (part.by === 'strokes' ? part.strokes! : [])),
    );
  };
  /** Shares of the preview over the Sill that are painted. */
  const previewed = () =>
    page.evaluate(
      `(() => {
        const canvas = document.querySelector('canvas[data-tint-layer="painted shape"]');
        const { data } = canvas.getContext('2d').getImageData(0, 0, canvas.width, canvas.height);
        let painted = 0;
        for (let i = 3; i < data.length; i += 4) if (data[i] > 0) painted++;
        return painted / (data.length / 4);
      })()`,
    ) as Promise<number>;

  before(async () => {
    stage = await openStage(['stucco'], 512);
    const { tiles } = await (await fetch(`${stage.url}/api/tiles`)).json();
    id = tiles[0].id;
    page = await stage.page({ sill: true });
    await page.goto(`${stage.url}/tiles/${id}/coats`);
    await onFloor(page, 'albedo', 512);
    await idle(page);
    await page.getByRole('button', { name: '1', exact: true }).click();
    await page
      .getByRole('group', { name: 'New coat' })
      .getByRole('button', { name: 'Painted by hand' })
      .click();
    await page.getByText('Drag on the shape to paint, beside it to turn it.').waitFor();
  });
  after(async () => {
    await page.context().close();
    await stage.end();
  });

  it('a stroke lies under the pointer at once, and then in the tile where the shape shows it', async () => {
    await shown('Ball');
    await press([
      [0.4, 0.45],
      [0.5, 0.5],
      [0.6, 0.48],
    ]);
    const under = await previewed();
    expect(under).to.be.within(0.003, 0.05);
    await page.mouse.up();
    await dials().getByText('1 stroke', { exact: true }).waitFor();
    const [{ patches }] = await strokesSaved();
    for (const { points } of patches!) {
      for (const [u, v] of [points[0], points[points.length >> 1]]) await untilTile(u % 1, v % 1, BRUSH);
    }
    await page.waitForFunction(
      `(() => {
        const canvas = document.querySelector('canvas[data-tint-layer="painted shape"]');
        return canvas.getContext('2d').getImageData(0, 0, canvas.width, canvas.height).data.every((value) => value === 0);
      })()`,
    );
  });

  it('what is dragged beside the shape turns it, and paints nothing', async () => {
    const before = await still(page);
    await lead([
      [0.04, 0.06],
      [0.3, 0.08],
    ]);
    expect(apart(await still(page), before)).to.be.above(0.5);
    await dials().getByText('1 stroke', { exact: true }).waitFor();
    await page.keyboard.press('Control+z');
    await dials().getByText('0 strokes').waitFor();
  });

  it('a stroke goes on over the edge of a block', async () => {
    await shown('Block');
    await lead([
      [0.4, 0.55],
      [0.5, 0.52],
      [0.65, 0.5],
      [0.75, 0.5],
    ]);
    await dials().getByText('1 stroke', { exact: true }).waitFor();
    const [{ patches }] = await strokesSaved();
    const all = patches!.flatMap(({ points }) => points);
    // The tile goes on from one side to the next: what is over the edge is one tile further.
    const sides = new Set(all.map(([u, v]) => `${Math.floor(u)} ${Math.floor(v)}`));
    expect(sides.size).to.be.above(1);
    for (const [u, v] of [all[0], all.at(-1)!]) await untilTile(u - Math.floor(u), v - Math.floor(v), BRUSH);
  });

  it('a stroke on the terrace goes over its parts, and is taken back', async () => {
    await shown('Terrace');
    await page.locator('[aria-label="Tiles on the terrace"][data-computing="0"]').waitFor();
    // The steps are of stone until the open tile is on them too.
    await choose(page, 'Part of the terrace', 'Steps');
    await choose(page, 'Tile on the part', 'This tile');
    await lead([
      [0.55, 0.85],
      [0.72, 0.72],
      [0.88, 0.62],
    ]);
    await dials().getByText('2 strokes').waitFor();
    const [, { patches }] = await strokesSaved();
    // On the floor first, then on several faces of the steps.
    expect(patches!.length).to.be.above(2);
    for (const { points } of [patches![0], patches!.findLast((patch) => patch.points.length > 4)!]) {
      const [u, v] = points[points.length >> 1];
      await untilTile(u - Math.floor(u), v - Math.floor(v), BRUSH);
    }
    await page.keyboard.press('Control+z');
    await dials().getByText('1 stroke', { exact: true }).waitFor();
  });

  it('prints of a stamp are seen as they will be while the pointer is held', async () => {
    await shown('Slab');
    const setPrints = async (name: string) => {
      await dials().getByRole('combobox', { name: 'Prints' }).click();
      await page.getByRole('option', { name, exact: true }).click();
      await page.locator('.MuiMenu-root').waitFor({ state: 'detached' });
    };
    const way = [
      [0.35, 0.55],
      [0.5, 0.45],
      [0.65, 0.5],
    ] as const;
    const seen: Record<string, number> = {};
    for (const name of ['Round', 'Leaf']) {
      await setPrints(name);
      await press(way);
      seen[name] = await previewed();
      await page.mouse.up();
      await dials().getByText('2 strokes').waitFor();
      const prints = (await strokesSaved()).at(-1)!;
      const [u, v] = prints.patches![0].points[0];
      await untilTile(u - Math.floor(u), v - Math.floor(v), BRUSH);
      await dials().getByRole('button', { name: 'Undo last stroke' }).click();
      await dials().getByText('1 stroke', { exact: true }).waitFor();
    }
    // A leaf fills a part of the disc that it lies in.
    expect(seen.Leaf).to.be.within(0.2 * seen.Round, 0.85 * seen.Round);
    await setPrints('None: one band');
  });

  it('says why nothing is painted while two are compared', async () => {
    await within(page, 'Compare', () => choose(page, 'Compare with', 'Its albedo alone'));
    await page.getByText('No painting on the shape while two are compared.').waitFor();
    await within(page, 'Compare', () => choose(page, 'Compare with', 'Nothing'));
    await page.getByText('Drag on the shape to paint, beside it to turn it.').waitFor();
  });

  it('a stroke on one’s own shape lies on its pieces alone', async () => {
    const file = { name: 'lantern.obj', mimeType: '', buffer: Buffer.from(LANTERN.obj) };
    await within(page, 'Shape', async () => {
      await page.getByLabel('Shape file').setInputFiles(file);
      await page.getByText('lantern.obj').waitFor();
    });
    await page.getByRole('button', { name: 'Own', exact: true, pressed: true }).waitFor();
    await lead([
      [0.45, 0.56],
      [0.5, 0.6],
      [0.47, 0.66],
    ]);
    await dials().getByText('2 strokes').waitFor();
    const { patches } = (await strokesSaved())[1];
    const [pane, ...others] = patches!.filter(({ points: [[u, v]] }) =>
      LANTERN.linesOf('Glass').some(([l, t, r, , , b]) => u > l && u < r && v > t && v < b),
    );
    expect(pane, JSON.stringify(patches)).to.not.equal(undefined);
    expect(others).to.have.length(0);
    const [u, v] = pane.points[pane.points.length >> 1];
    await untilTile(u, v, BRUSH);
  });

  it('the parts of the lantern are painted apart, seen lit, and crated', async () => {
    const file = { name: 'lantern.obj', mimeType: '', buffer: Buffer.from(LANTERN.obj) };
    const bare = await still(page);
    await page.getByRole('button', { name: 'New coat …' }).click();
    await page.getByRole('group', { name: 'New coat' }).getByRole('button', { name: 'Flat colour' }).click();
    const glass = middleOf(LANTERN.linesOf('Glass')[0]);
    await untilTile(...glass, OLIVE);
    await dials().getByRole('button', { name: 'Part of my shape' }).click();
    await page.getByLabel('Shape of the mask').setInputFiles(file);
    for (const name of NAMES) await dials().getByRole('checkbox', { name, exact: true }).waitFor();
    await dials().getByRole('checkbox', { name: 'Glass' }).check();
    await untilTile(...glass, OLIVE);
    const frame = middleOf(LANTERN.linesOf('Frame')[0]);
    await page.waitForFunction(
      'document.querySelectorAll(\'[data-station] [role="progressbar"]\').length === 0',
    );
    // Without a graphics card the lit view follows the Floor after a rest.
    let change = 0;
    for (let k = 0; k < 12 && change < 0.3; k++) change = apart(await still(page), bare);
    expect(change).to.be.above(0.3);
    await saved(page);
    await page.getByRole('button', { name: 'Crate it' }).click();
    await page.getByRole('link', { name: 'Download zip' }).first().waitFor();
    const { crates } = await (await fetch(`${stage.url}/api/crates`)).json();
    const name = encodeURIComponent('Limewashed stucco_albedo.png');
    const bytes = await (await fetch(`${stage.url}/api/crates/${crates[0].id}/files/${name}`)).arrayBuffer();
    const { data, info } = await sharp(new Uint8Array(bytes)).raw().toBuffer({ resolveWithObject: true });
    const codeAt = ([u, v]: readonly [number, number]) => {
      const i = (Math.floor(v * info.height) * info.width + Math.floor(u * info.width)) * info.channels;
      return [...data.subarray(i, i + 3)];
    };
    expect(codeAt(glass)).to.deep.equal(OLIVE);
    expect(codeAt(frame)).to.not.deep.equal(OLIVE);
  });

  it('nothing failed on the way', () => {
    expect(stage.faults).to.deep.equal([]);
    expect(stage.serverErrors).to.deep.equal([]);
  });
});
