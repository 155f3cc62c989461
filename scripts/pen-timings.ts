import type { Page } from 'playwright-core';

/** Places of the recorded track, and how long the pen takes from one to the next. */
const PLACES = 90;
const PEN_MS = 12;

/** A track such as a hand draws: loops about the middle, in shares of the Floor. */
const TRACK = Array.from({ length: PLACES }, (_, k): [number, number] => {
  const t = (2 * Math.PI * k) / PLACES;
  return [0.5 + 0.2 * Math.sin(2 * t), 0.5 + 0.18 * Math.sin(3 * t + 0.5)];
});

/** What strokes are drawn on until the tile follows: over the Floor, or over the lit shape. */
export type PenLayer = 'painted coat' | 'painted shape';

/** Notes for each place of the pointer how long it takes until a frame is done that has paint there. */
const watchPen = (layer: PenLayer) => `(() => {
  window.penTimes = [];
  const canvas = document.querySelector('canvas[data-tint-layer="${layer}"]');
  const context = canvas.getContext('2d');
  addEventListener('pointermove', (event) => {
    if (event.buttons === 0) return;
    const start = performance.now();
    const box = canvas.getBoundingClientRect();
    const at = [event.clientX - box.left, event.clientY - box.top].map(Math.round);
    const look = () => requestAnimationFrame(() => setTimeout(() => {
      if (context.getImageData(...at, 1, 1).data[3] === 0) look();
      else window.penTimes.push(performance.now() - start);
    }));
    look();
  }, { capture: true });
})()`;

const share = (values: number[], of: number) =>
  [...values].sort((a, b) => a - b)[Math.floor(of * values.length)];

/** From the pointer to the painted pixel while a stroke is drawn by hand at Coats, ms: median and 95th percentile. */
export async function penTimes(
  page: Page,
  layer: PenLayer = 'painted coat',
): Promise<{ median: number; most: number }> {
  await page.evaluate(watchPen(layer));
  const box = (await page.locator(`canvas[data-tint-layer="${layer}"]`).boundingBox())!;
  const [first, ...rest] = TRACK.map(([x, y]): [number, number] => [
    box.x + x * box.width,
    box.y + y * box.height,
  ]);
  await page.mouse.move(...first);
  await page.mouse.down();
  for (const place of rest) {
    const next = performance.now() + PEN_MS;
    await page.mouse.move(...place);
    await new Promise((done) => setTimeout(done, Math.max(0, next - performance.now())));
  }
  const times = (await page.evaluate('window.penTimes')) as number[];
  await page.mouse.up();
  return { median: share(times, 0.5), most: share(times, 0.95) };
}
