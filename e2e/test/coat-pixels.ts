import type { Page } from 'playwright-core';

/** sRGB codes at a place of the Floor, in shares of its canvas. */
export const pixelAt = (page: Page, x: number, y: number, view = 'albedo') =>
  page.evaluate(
    `(() => {
      const canvas = document.querySelector('canvas[data-view="${view}"]');
      const at = [${x} * canvas.width, ${y} * canvas.height].map(Math.round);
      return [...canvas.getContext('2d').getImageData(...at, 1, 1).data].slice(0, 3);
    })()`,
  ) as Promise<[number, number, number]>;

/** Waits until a place of the Floor has a colour, each channel within so many codes. */
export const untilPixel = (page: Page, x: number, y: number, rgb: readonly number[], slack = 2) =>
  page.waitForFunction(
    `(() => {
      const canvas = document.querySelector('canvas[data-view="albedo"]');
      const at = [${x} * canvas.width, ${y} * canvas.height].map(Math.round);
      const now = canvas.getContext('2d').getImageData(...at, 1, 1).data;
      return [${rgb.join()}].every((value, c) => Math.abs(now[c] - value) <= ${slack});
    })()`,
  );
