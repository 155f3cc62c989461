import { newRecipe } from '@zesty-tile/core';
import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { apart, choose, mean, openSill, setFigure, sharp, still, within } from './sill-view.ts';
import { onFloor, type Stage, station, undo } from './stage.ts';

describe('the Sill', () => {
  let stage: Stage;
  let page: Page;
  let tile = '';

  const shape = (name: string) => page.getByRole('button', { name, exact: true }).click();
  const flag = (name: string) => page.getByRole('dialog').getByRole('switch', { name }).click();
  const depth = (name: RegExp) => within(page, /^Depth:/, () => page.getByRole('radio', { name }).click());
  /** A still once it is another than one before; the Sill follows when the dial rests. */
  const anotherThan = async (before: number[], least = 0.5) => {
    let now = before;
    for (let tries = 0; tries < 20 && apart(now, before) < least; tries++) now = await still(page);
    expect(apart(now, before)).to.be.at.least(least);
    return now;
  };

  type Given = { sha256: string; width: number; height: number };
  const send = async (name: string, bytes: Buffer): Promise<Given> => {
    const form = new FormData();
    form.append('file', new Blob([new Uint8Array(bytes)]), name);
    const { source } = await (await fetch(`${stage.url}/api/sources`, { method: 'POST', body: form })).json();
    const { sha256, width, height } = source;
    return { sha256, width, height };
  };
  /** Makes a tile of pictures, and opens it at Relief once it is whole. */
  const openTile = async (name: string, colour: Given, given: object, form: '1:1' | '2:1') => {
    const { tile: other } = await (await fetch(`${stage.url}/api/tiles/${tile}`)).json();
    const recipe = newRecipe();
    Object.assign(recipe.stations.square, { shape: form, size: 512 });
    recipe.stations.source.given = given;
    const { projectId } = other;
    const { sha256: sourceSha256 } = colour;
    const answer = await fetch(`${stage.url}/api/tiles`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ projectId, name, sourceSha256, sourceName: `${name}.png`, recipe }),
    });
    expect(answer.status, await answer.clone().text()).to.equal(201);
    await page.goto(`${stage.url}/tiles/${(await answer.json()).tile.id}/relief`);
    await page.locator('[data-sill="lit"]').waitFor();
    await page.waitForFunction(
      `document.querySelector('[data-station="crate"]').textContent.includes('file')`,
    );
  };

  before(async function () {
    this.timeout(300_000);
    ({ stage, page, tile } = await openSill(['pamments', 'copper']));
  });
  after(async () => {
    await page.context().close();
    await stage.end();
  });

  it('the Sill shows every shape in every surroundings; each still is another picture', async () => {
    const seen: number[][] = [];
    for (const shape of ['Ball', 'Block', 'Post', 'Nook', 'Slab']) {
      await page.getByRole('button', { name: shape, exact: true }).click();
      seen.push(await still(page));
    }
    for (const around of ['Overcast', 'Lemon house', 'Dusk', 'White studio']) {
      await within(page, 'Light', () => choose(page, 'What lies around', around));
      seen.push(await still(page));
    }
    for (let a = 0; a < seen.length; a++) {
      expect(mean(seen[a]), `still ${a}`).to.be.above(3);
      for (let b = a + 1; b < seen.length; b++)
        expect(apart(seen[a], seen[b]), `${a} and ${b}`).to.be.above(1);
    }
    await within(page, 'Light', () => choose(page, 'What lies around', 'Overcast'));
  });

  it('sheen alone is darker than all of it, light alone brighter; a stop of exposure brightens', async () => {
    const finished = await still(page);
    await choose(page, 'What the Sill shows', 'Sheen only');
    expect(mean(await still(page))).to.be.below(0.8 * mean(finished));
    await choose(page, 'What the Sill shows', 'Light only');
    expect(mean(await still(page))).to.be.above(mean(finished));
    await choose(page, 'What the Sill shows', 'Side light');
    expect(apart(await still(page), finished)).to.be.above(2);
    await choose(page, 'What the Sill shows', 'Finished');
    await within(page, 'Light', () => setFigure(page, 'Exposure', 1));
    expect(mean(await still(page))).to.be.above(1.15 * mean(finished));
    await within(page, 'Light', () => setFigure(page, 'Exposure', 0));
  });

  it('a shape of one’s own is taken from an OBJ file; one without texture coordinates is refused in words', async () => {
    const roof = ['v -1 0 1', 'v 1 0 1', 'v 1 1 0', 'v -1 1 0', 'vt 0 0', 'vt 1 0', 'vt 1 1', 'vt 0 1'];
    const give = (text: string, name = 'roof.obj') =>
      page
        .getByLabel('Shape file')
        .setInputFiles({ name, mimeType: 'text/plain', buffer: Buffer.from(text) });
    const before = await still(page);
    await within(page, 'Shape', async () => {
      await give([...roof, 'f 1 2 3', 'f 1 3 4'].join('\n'));
      await page.getByText(/has texture coordinates/).waitFor();
      await give('nothing', 'roof.xyz');
      await page.getByText(/is not a supported shape file/).waitFor();
      await give([...roof, 'f 1/1 2/2 3/3', 'f 1/1 3/3 4/4'].join('\n'));
      await page.getByText('roof.obj').waitFor();
    });
    await page.getByRole('button', { name: 'Own', exact: true, pressed: true }).waitFor();
    const own = await still(page);
    expect(mean(own)).to.be.above(2);
    expect(apart(own, before)).to.be.above(2);
    await page.getByRole('button', { name: 'Slab', exact: true }).click();
  });

  it('one key lets the sun go round', async () => {
    const sun = page.getByRole('slider', { name: /^Sun:/ });
    const before = await sun.getAttribute('aria-valuenow');
    await station(page, 'relief').focus();
    await page.keyboard.press('o');
    await page.waitForFunction(
      `document.querySelector('[aria-label^="Sun:"]').getAttribute('aria-valuenow') !== '${before}'`,
    );
    await page.keyboard.press('o');
  });

  it('keys move the viewer, who stays there in a window of another size and goes back when the shape is pressed again', async () => {
    await shape('Block');
    const first = await still(page, 64, 512);
    const view = page.getByRole('img', { name: /^Lit view/ });
    for (let k = 0; k < 6; k++) await view.press('ArrowRight');
    const aside = await still(page, 64, 512);
    expect(apart(aside, first), 'from another side').to.be.above(2);
    for (let k = 0; k < 4; k++) await view.press('-');
    const moved = await still(page, 64, 512);
    expect(apart(moved, aside), 'from farther away').to.be.above(2);
    const { width, height } = page.viewportSize()!;
    const was = (await view.boundingBox())!.width;
    await page.setViewportSize({ width: width + 300, height });
    await page.waitForFunction(`document.querySelector('[data-sill] canvas').clientWidth > ${was + 20}`);
    await page.setViewportSize({ width, height });
    await page.waitForFunction(`document.querySelector('[data-sill] canvas').clientWidth < ${was + 1}`);
    expect(apart(await still(page, 64, 512), moved), 'in the window of before').to.be.below(0.5);
    await shape('Block');
    expect(apart(await still(page, 64, 512), first), 'pressed again').to.be.below(0.5);
    await shape('Slab');
  });

  it('shows depth four ways: ray steps come near to true relief, and each says what it costs', async () => {
    const edge = 512;
    const ofPixels = (value: (x: number, y: number) => number) =>
      sharp(
        Buffer.from(Array.from({ length: edge * edge }, (_, i) => value(i % edge, Math.floor(i / edge)))),
        {
          raw: { width: edge, height: edge, channels: 1 },
        },
      )
        .png()
        .toBuffer();
    const wave = (t: number) => Math.sin((6 * Math.PI * t) / edge);
    const colour = await send('waves.png', await ofPixels((x, y) => (((x >> 6) + (y >> 6)) % 2 ? 60 : 190)));
    const height = await send('waves_height.png', await ofPixels((x, y) => 127.5 + 127 * wave(x) * wave(y)));
    await openTile('waves', colour, { height }, '1:1');
    await shape('Slab');
    const field = page.getByRole('textbox', { name: 'Depth, figure' });
    const before = await still(page);
    await field.fill('100');
    await field.press('Enter');
    await anotherThan(before);
    // Without light only what the relief moves is seen.
    await choose(page, 'What the Sill shows', 'Unlit');
    const truth = await still(page);
    const seen: number[][] = [];
    for (const name of [/^Flat/, /^One step/, /^Ray steps/]) {
      await depth(name);
      seen.push(await still(page));
    }
    const [flat, oneStep, rays] = seen.map((one) => apart(one, truth));
    expect(flat).to.be.above(1);
    expect(oneStep).to.be.below(flat);
    expect(rays).to.be.below(oneStep);
    await choose(page, 'What the Sill shows', 'Finished');
    await within(page, /^Depth:/, async () => {
      await page.getByRole('button', { name: 'Time all' }).click();
      for (const one of ['flat', 'one-step', 'ray-steps', 'true']) {
        await page
          .getByTestId(`cost-${one}`)
          .getByText(/^\d+\.\d ms a frame$/)
          .waitFor();
      }
      await page.getByRole('button', { name: 'Time all' }).waitFor();
      expect(await page.getByRole('radio', { name: /^Ray steps/ }).isChecked()).to.equal(true);
    });
    await depth(/^True/);
  });

  it('a height of zero depth looks flat, and goes on', async () => {
    const deep = await still(page);
    const field = page.getByRole('textbox', { name: 'Depth, figure' });
    await field.fill('0');
    await field.press('Enter');
    await anotherThan(deep);
    for (const name of [/^Ray steps/, /^Flat/, /^True/]) {
      await depth(name);
      expect(mean(await still(page))).to.be.above(3);
    }
    await page.goto(`${stage.url}/tiles/${tile}/relief`);
    await page.locator('[data-sill="lit"]').waitFor();
    await onFloor(page, 'height');
  });

  it('triplanar lays the tile without coordinates, and bars what has no direction', async () => {
    await shape('Ball');
    const before = await still(page);
    await within(page, /^Depth:/, async () => {
      await flag('Triplanar');
      expect(await page.getByRole('radio', { name: /^Ray steps/ }).isDisabled()).to.equal(true);
      await page.getByText('Triplanar has no one direction to shift along.').first().waitFor();
    });
    const soft = await still(page);
    expect(apart(soft, before)).to.be.above(1);
    await within(page, /^Depth:/, () => setFigure(page, 'Sharpness', 32));
    expect(apart(await still(page), soft)).to.be.above(0.2);
    await within(page, /^Depth:/, () => flag('Triplanar'));
    expect(apart(await still(page), before)).to.be.below(0.2);
  });

  it('holds its albedo, a version and another tile beside the tile, in one light', async () => {
    await shape('Slab');
    const alone = await still(page);
    const labels = page.locator('[data-sill]');
    await within(page, 'Compare', () => choose(page, 'Compare with', 'Its albedo alone'));
    await labels.getByText('Albedo alone').waitFor();
    await labels.getByText('This tile').waitFor();
    const halves = await still(page);
    expect(apart(halves, alone)).to.be.above(2);
    await within(page, 'Compare', () => choose(page, 'Compare with', 'Without normal'));
    await labels.getByText('Without normal').waitFor();
    expect(apart(await still(page), halves)).to.be.above(0.1);
    await within(page, 'Compare', () => choose(page, 'Compare with', 'Its albedo alone'));
    // Both halves show the same tile from the same place, one of them without its relief.
    const column = (x: number) => [...Array(64).keys()].map((y) => halves[3 * (64 * y + x)]);
    expect(apart(column(16), column(48))).to.be.within(0.5, 40);
    for (const [name, words] of [
      [/^Version 1\b/, 'Version 1'],
      [/copper/i, /copper/i],
    ] as const) {
      await within(page, 'Compare', () => choose(page, 'Compare with', name));
      await page.locator('[data-beside="ready"]').waitFor();
      await labels.getByText(words, { exact: typeof words === 'string' }).waitFor();
    }
    const copper = await still(page);
    expect(apart(copper, halves)).to.be.above(1);
    await within(page, 'Compare', () => page.getByRole('button', { name: 'With a line between' }).click());
    const line = page.getByRole('slider', { name: 'Between both versions' });
    await line.focus();
    await page.keyboard.press('Home');
    const mineAlone = await still(page);
    expect(apart(mineAlone, alone)).to.be.below(0.5);
    await line.focus();
    await page.keyboard.press('End');
    expect(apart(await still(page), alone)).to.be.above(2);
    await within(page, 'Compare', () => choose(page, 'Compare with', 'Nothing'));
    expect(apart(await still(page), alone)).to.be.below(0.5);
  });

  it('lights of one’s own burn beside the sun; a rig keeps them over a reload', async () => {
    const before = await still(page);
    await within(page, 'Light', async () => {
      await setFigure(page, 'Sun', 0);
      await page.getByRole('button', { name: 'Add a light' }).click();
      await setFigure(page, 'Strength', 6);
      await page.getByRole('button', { name: 'Keep …' }).click();
      await page.getByRole('textbox', { name: 'Name of the rig' }).fill('Lantern');
      await page.getByRole('button', { name: 'Keep', exact: true }).click();
      await page.getByRole('combobox', { name: 'Rig' }).getByText('Lantern').waitFor();
    });
    const lit = await still(page);
    expect(apart(lit, before)).to.be.above(2);
    await page.getByRole('slider', { name: /^Light 1:/ }).focus();
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('ArrowRight');
    const moved = await still(page);
    expect(apart(moved, lit)).to.be.above(0.1);
    await page.reload();
    await page.locator('[data-sill="lit"]').waitFor();
    await within(page, 'Light', () => choose(page, 'Rig', 'Lantern'));
    await page.waitForFunction(
      `document.querySelector('[data-station="crate"]').textContent.includes('file')`,
    );
    const again = await still(page);
    expect(apart(again, lit)).to.be.below(0.5);
    await within(page, 'Light', async () => {
      await page.getByRole('button', { name: 'Delete rig Lantern' }).click();
      await page.getByText('“Lantern” was deleted.').waitFor();
      await page.getByRole('button', { name: 'Remove light 1' }).click();
      await setFigure(page, 'Sun', 1);
    });
    await undo(page, '“Lantern” was deleted.');
    await within(page, 'Light', () => choose(page, 'Rig', 'Lantern'));
    await within(page, 'Light', async () => {
      await page.getByRole('button', { name: 'Remove light 1' }).click();
      await setFigure(page, 'Sun', 1);
    });
  });

  it('a 360° picture of one’s own lights the shape; one of the wrong shape is refused in words', async () => {
    const picture = (width: number, background: string) =>
      sharp({ create: { width, height: 32, channels: 3, background } })
        .png()
        .toBuffer();
    const before = await still(page);
    const give = async (name: string, buffer: Buffer) =>
      page.getByLabel('Surroundings file').setInputFiles({ name, mimeType: 'image/png', buffer });
    const blue = await picture(64, '#2040ff');
    // Radiance HDR, not packed: every pixel 4 times as red as white paper.
    const hdr = Buffer.concat([
      Buffer.from('#?RADIANCE\nFORMAT=32-bit_rle_rgbe\n\n-Y 4 +X 8\n'),
      Buffer.from(Array(32).fill([128, 8, 8, 131]).flat()),
    ]);
    await within(page, 'Light', async () => {
      await give('wide.png', await picture(40, '#fff'));
      await page.getByText(/must be twice as wide as high/).waitFor();
      await give('broken.hdr', Buffer.from('#?RADIANCE\nnothing'));
      await page.getByText(/cannot be read/).waitFor();
      await give('blue hall.png', blue);
      await page.getByRole('alert').waitFor({ state: 'detached' });
      await page.getByRole('combobox', { name: 'What lies around' }).getByText('blue hall').waitFor();
    });
    const channel = (codes: number[], c: number) => mean(codes.filter((_, i) => i % 3 === c));
    /** A still once one colour is stronger beside another than before: light that is being read comes after the picture is chosen. */
    const stronger = async (one: number, other: number) => {
      const share = (codes: number[]) => channel(codes, one) / channel(codes, other);
      let now = await still(page);
      for (let tries = 0; tries < 20 && share(now) <= 1.3 * share(before); tries++) now = await still(page);
      expect(share(now)).to.be.above(1.3 * share(before));
    };
    await stronger(2, 0);
    await within(page, 'Light', async () => {
      await give('red hall.hdr', hdr);
      await page.getByRole('combobox', { name: 'What lies around' }).getByText('red hall').waitFor();
    });
    await stronger(0, 2);
    await within(page, 'Light', () => choose(page, 'What lies around', 'Overcast'));
  });

  it('exposure follows the light until it is locked', async () => {
    await shape('Slab');
    const metered = await still(page);
    await within(page, 'Light', async () => {
      await setFigure(page, 'Sun', 4);
      await setFigure(page, 'Strength', 4);
    });
    // Four times the light is met by a quarter of the exposure.
    expect(apart(await still(page), metered)).to.be.below(1);
    await within(page, 'Light', async () => {
      await setFigure(page, 'Sun', 1);
      await setFigure(page, 'Strength', 1);
      await flag('Lock exposure');
      await setFigure(page, 'Sun', 4);
      await setFigure(page, 'Strength', 4);
    });
    expect(mean(await still(page))).to.be.above(1.2 * mean(metered));
    await within(page, 'Light', async () => {
      await setFigure(page, 'Sun', 1);
      await setFigure(page, 'Strength', 1);
      await flag('Lock exposure');
      await page.getByRole('button', { name: 'Filmic' }).click();
    });
    expect(apart(await still(page), metered)).to.be.above(1);
    await within(page, 'Light', () => page.getByRole('button', { name: 'Neutral' }).click());
  });

  it('no control is cut off or outside the Sill at 1100, 1280 and 1920 px', async () => {
    const sill = page.getByRole('region', { name: 'Sill' });
    for (const [width, height] of [
      [1100, 720],
      [1280, 800],
      [1920, 1080],
    ]) {
      await page.setViewportSize({ width, height });
      for (const name of ['Slab', 'Field', 'Terrace']) {
        await shape(name);
        const faults = await sill.evaluate((region) => {
          const whole = region.getBoundingClientRect();
          return [...region.querySelectorAll<HTMLElement>('button, [role="combobox"], input')].flatMap(
            (one) => {
              const { left, right, top, bottom, width: wide } = one.getBoundingClientRect();
              if (wide === 0) return [];
              const words = one.getAttribute('aria-label') ?? one.textContent ?? '';
              const isOut =
                left < whole.left || right > whole.right + 1 || top < whole.top || bottom > whole.bottom + 1;
              const isCut = one.tagName === 'BUTTON' && one.scrollWidth > one.clientWidth + 1;
              return isOut || isCut ? [`${words}: ${isOut ? 'outside' : 'cut off'}`] : [];
            },
          );
        });
        expect(faults, `${name} at ${width} px`).to.deep.equal([]);
        // Two rows of controls above the picture.
        const tops = await sill
          .getByRole('button', { name: /^(Slab|Light|Shape|Still)$/ })
          .evaluateAll((all) => all.map((one) => Math.round(one.getBoundingClientRect().top)));
        expect(new Set(tops).size, `${name} at ${width} px`).to.equal(2);
      }
    }
    await page.setViewportSize({ width: 1280, height: 800 });
  });

  it('says the shape’s width in metres, which sets its repeats, and stands a figure beside it', async () => {
    await shape('Slab');
    const edge = (await (await fetch(`${stage.url}/api/tiles/${tile}`)).json()).revision.recipe.stations
      .square.edgeMetres;
    const before = await still(page);
    await within(page, 'Shape', async () => {
      const width = page.getByRole('textbox', { name: 'Width, figure' });
      expect(Number(await width.inputValue())).to.be.closeTo(edge, 0.011);
      await setFigure(page, 'Repeats', 3);
      expect(Number(await width.inputValue())).to.be.closeTo(3 * edge, 0.011);
      await flag('For scale');
    });
    const figure = await still(page);
    expect(apart(figure, before)).to.be.above(2);
    await within(page, 'Shape', () => flag('For scale'));
    expect(apart(await still(page), figure)).to.be.above(0.3);
    await within(page, 'Shape', () => setFigure(page, 'Repeats', 1));
    await shape('Field');
    expect(apart(await still(page), before)).to.be.above(3);
    await shape('Slab');
  });

  it('goes on through a hundred quick changes', async () => {
    await page.evaluate(`(async () => {
      const buttons = [...document.querySelectorAll('[aria-label="Shape"] button')].slice(0, 6);
      for (let k = 0; k < 100; k++) {
        buttons[k % 6].click();
        if (k % 5 === 0) await new Promise(requestAnimationFrame);
      }
    })()`);
    await shape('Slab');
    expect(mean(await still(page))).to.be.above(3);
    expect(stage.faults).to.deep.equal([]);
  });

  it('a tile of two by one with holes and a glow: cut out, seen through, from both faces, shining', async () => {
    const flat = (background: string | object, channels: 3 | 4 = 3) =>
      sharp({ create: { width: 512, height: 256, channels, background } });
    const half = await flat({ r: 0, g: 0, b: 0, alpha: 1 }, 4)
      .composite([
        { input: { create: { width: 256, height: 256, channels: 4, background: '#888' } }, left: 0, top: 0 },
      ])
      .png()
      .toBuffer();
    const colour = await send('leaf.png', await flat('#60a040').png().toBuffer());
    const opacity = await send('leaf_opacity.png', half);
    const emission = await send('leaf_emission.png', await flat('#ff3010').png().toBuffer());
    await openTile('leaf', colour, { opacity, emission }, '2:1');
    const cut = await still(page);
    await within(page, 'Shape', () => page.getByRole('button', { name: 'Seen through' }).click());
    const through = await still(page);
    expect(apart(through, cut)).to.be.above(1);
    await within(page, 'Shape', () => setFigure(page, 'Glow', 0));
    const dark = await still(page);
    const channel = (codes: number[], c: number) => mean(codes.filter((_, i) => i % 3 === c));
    expect(channel(through, 0)).to.be.above(channel(dark, 0) + 5);
    await choose(page, 'What the Sill shows', 'Emission');
    const alone = await still(page);
    expect(channel(alone, 0)).to.be.above(2 * channel(alone, 1));
    await choose(page, 'What the Sill shows', 'Finished');
    // Once light is gathered, what glows has a bloom: the stage beside the shape is redder with it than without.
    const besideIt = async () => {
      await page.locator('[data-gathered="whole"]').waitFor();
      const picture = await page.locator('[data-sill] canvas').screenshot();
      const { data, info } = await sharp(picture).removeAlpha().raw().toBuffer({ resolveWithObject: true });
      const row = Math.round(info.height / 2) * info.width;
      return [...Array(12).keys()].map((x) => data[3 * (row + 34 + x)]);
    };
    const plain = await besideIt();
    await within(page, 'Shape', () => setFigure(page, 'Glow', 8));
    await page.locator('[data-gathered]:not([data-gathered="whole"])').waitFor();
    expect(mean(await besideIt())).to.be.above(mean(plain) + 2);
    await within(page, 'Shape', () => setFigure(page, 'Glow', 0));
    await shape('Post');
    const oneFace = await still(page);
    await within(page, 'Shape', () => flag('Two-sided'));
    expect(apart(await still(page), oneFace)).to.be.above(0.5);
  });
});
