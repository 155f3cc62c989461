import { readFile } from 'node:fs/promises';
import { sourceHost } from '@zesty-tile/codecs';
import {
  Engine,
  linearToSrgb,
  parseRecipe,
  type Raster,
  sampleBilinear,
  type TileOutputs,
  TORUS,
} from '@zesty-tile/core';
import { demoPicture } from '@zesty-tile/demo';
import { expect } from 'chai';
import type { Page } from 'playwright-core';
import { reflected, type Triple, unit } from '../../core/src/lit/shade.ts';
import { choose, setFigure, sharp, within } from './sill-view.ts';
import { openStage, type Stage } from './stage.ts';

const EDGE = 1024;
const HALF_ANGLE = (21 * Math.PI) / 180;
const SUN = { turn: (312 * Math.PI) / 180, rise: (42 * Math.PI) / 180 };
const FROM: Triple = [0, 0.2, 0.98];
const HALF = 1.2;
const REPEATS = [4, 2];

/** Codes that a ball under the maps should have: one sun, nothing else, seen as the Sill sees it. */
function reference({ gauge, relief, finish }: TileOutputs, green: 1 | -1, away: number): (number[] | null)[] {
  const { width, height } = gauge.albedo;
  const flat = Math.cos(SUN.rise);
  const sun: Triple = [Math.sin(SUN.turn) * flat, Math.cos(SUN.turn) * flat, Math.sin(SUN.rise)];
  const eye = (FROM as Triple).map((v) => v * away) as Triple;
  const forward = unit(eye.map((v) => -v) as Triple);
  const up: Triple = [0, -forward[2], forward[1]];
  const tan = Math.tan(HALF_ANGLE);
  // Exposure is metered so that a matte surface that leans half way to the viewer looks as bright as its albedo.
  const metered = (sun[1] + sun[2]) * Math.SQRT1_2;
  const at = (raster: Raster, c: number, x: number, y: number) =>
    sampleBilinear(raster.planes[c], width, height, x, y, TORUS);
  const out: (number[] | null)[] = [];
  for (let py = 0; py < EDGE; py++) {
    for (let px = 0; px < EDGE; px++) {
      const [x, y] = [((2 * (px + 0.5)) / EDGE - 1) * tan, (1 - (2 * (py + 0.5)) / EDGE) * tan];
      const ray = unit([x + forward[0], up[1] * y + forward[1], up[2] * y + forward[2]]);
      const b = ray.reduce((s, v, k) => s + v * eye[k], 0);
      const c = eye.reduce((s, v) => s + v * v, 0) - 1;
      // The rim, where the picture is filtered over many texels, is left out.
      if (b * b - c < 0.06) {
        out.push(null);
        continue;
      }
      const n = eye.map((v, k) => v + (-b - Math.sqrt(b * b - c)) * ray[k]) as Triple;
      const phi = Math.atan2(n[2], -n[0]);
      const theta = Math.acos(Math.max(-1, Math.min(1, n[1])));
      const [s, t] = [
        (phi / (2 * Math.PI)) * REPEATS[0] * width - 0.5,
        (theta / Math.PI) * REPEATS[1] * height - 0.5,
      ];
      const across: Triple = [Math.sin(phi), 0, Math.cos(phi)];
      const down: Triple = [
        -Math.cos(phi) * Math.cos(theta),
        -Math.sin(theta),
        Math.sin(phi) * Math.cos(theta),
      ];
      const [nx, ny, nz] = [0, 1, 2].map((k) => at(relief.normal, k, s, t));
      const bent = unit(
        n.map((v, k) => across[k] * nx + down[k] * Math.sin(theta) * -green * ny + v * nz) as Triple,
      );
      const colour = [0, 1, 2].map((k) => at(gauge.albedo, k, s, t)) as Triple;
      const roughness = sampleBilinear(finish.roughness, width, height, s, t, TORUS);
      const light = reflected(
        bent,
        unit(ray.map((v) => -v) as Triple),
        sun,
        colour,
        finish.f0 as Triple,
        roughness,
      );
      out.push(light.map((v) => 255 * linearToSrgb(Math.min(1, v / metered))));
    }
  }
  return out;
}

describe('the Sill against a reference shading', () => {
  let stage: Stage;
  let page: Page;
  let tile = '';
  before(async function () {
    this.timeout(300_000);
    stage = await openStage(['pamments'], 512);
    const { tiles } = await (await fetch(`${stage.url}/api/tiles`)).json();
    tile = tiles[0].id;
    page = await stage.page({ sill: true });
    await page.goto(`${stage.url}/tiles/${tile}/relief`);
    await page.locator('[data-sill="lit"]').waitFor();
    await page.getByRole('button', { name: 'Ball', exact: true }).click();
    await page.getByRole('button', { name: 'All maps on' }).click();
    for (const map of ['Height', 'Occlusion']) await page.getByRole('checkbox', { name: map }).click();
    await page.keyboard.press('Escape');
    await within(page, 'Light', async () => {
      // Its sun is white.
      await choose(page, 'What lies around', 'White studio');
      await page.getByRole('button', { name: 'Cut off' }).click();
      await setFigure(page, 'Strength', 0);
    });
    await page
      .getByRole('region', { name: 'Sill' })
      .getByRole('button', { name: 'Still', exact: true })
      .click();
    await page.getByRole('button', { name: 'As it moves' }).click();
  });
  after(async () => {
    await page.context().close();
    await stage.end();
  });

  for (const [words, green, down] of [
    ['up', 1, ''],
    ['down', -1, 'Down (−Y)'],
  ] as const) {
    it(`differs on the ball by at most 2 of 255 in the mean, green ${words}`, async function () {
      this.timeout(200_000);
      if (down) {
        await page.keyboard.press('Escape');
        await page.getByRole('combobox', { name: 'Green points' }).click();
        await page.getByRole('option', { name: down }).click();
        await page
          .getByTestId('saved')
          .getByText(/Saved \d/)
          .waitFor();
        await page
          .getByRole('region', { name: 'Sill' })
          .getByRole('button', { name: 'Still', exact: true })
          .click();
      }
      const { revision } = await (await fetch(`${stage.url}/api/tiles/${tile}`)).json();
      const bytes = await readFile(demoPicture('pamments'));
      const source = { sha256: 'pamments', width: 1600, height: 1200 };
      const { outputs } = await new Engine(
        sourceHost(async () => bytes),
        2 ** 28,
      ).evaluate({
        recipe: parseRecipe(revision.recipe),
        source,
        size: 512,
      });
      const { width, height } = (await page.locator('[data-sill] canvas').boundingBox())!;
      const away = HALF / Math.tan(HALF_ANGLE) / Math.min(1, width / height);
      const truth = reference(outputs as TileOutputs, green, away);
      const apart = (codes: (number[] | null)[], data: Uint8Array, channels: number) => {
        let sum = 0;
        let count = 0;
        codes.forEach((one, i) => {
          if (!one) return;
          for (let c = 0; c < 3; c++) sum += Math.abs(one[c] - data[i * channels + c]);
          count += 3;
        });
        return sum / count;
      };
      const wrong = reference(outputs as TileOutputs, green === 1 ? -1 : 1, away);
      let mean = Number.POSITIVE_INFINITY;
      let turned = 0;
      // The Sill follows when the dial rests.
      for (let tries = 0; tries < 10 && mean > 2; tries++) {
        const [download] = await Promise.all([
          page.waitForEvent('download'),
          page.getByRole('button', { name: `Still of ${EDGE} px` }).click(),
        ]);
        const { data, info } = await sharp(await download.path())
          .raw()
          .toBuffer({ resolveWithObject: true });
        mean = apart(truth, data, info.channels);
        turned = apart(wrong, data, info.channels);
      }
      // With its green inverted the same relief would be lit from below.
      expect(turned).to.be.above(2 * mean);
      expect(mean).to.be.at.most(2);
    });
  }
});
