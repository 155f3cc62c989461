/** Light from the upper left, half high: x right, y up, z out. */
const LIGHT = [-0.45, 0.55, 0.7];
const AMBIENT = 0.12;
export const LIT_EDGE = 150;

/** Codes of the middle of a picture, at most so large. */
async function codesOf(sha256: string): Promise<ImageData> {
  const image = new Image();
  image.src = `/api/sources/${sha256}/picture`;
  await image.decode();
  const edge = Math.min(image.width, image.height);
  const canvas = document.createElement('canvas');
  canvas.width = LIT_EDGE;
  canvas.height = LIT_EDGE;
  const context = canvas.getContext('2d', { willReadFrequently: true });
  if (!context) throw new Error('No canvas to draw on.');
  const [left, top] = [(image.width - edge) / 2, (image.height - edge) / 2];
  context.drawImage(image, left, top, edge, edge, 0, 0, LIT_EDGE, LIT_EDGE);
  return context.getImageData(0, 0, LIT_EDGE, LIT_EDGE);
}

/** A normal map lit from the upper left, once with its green up and once down. */
export async function litBothWays(sha256: string): Promise<Record<'up' | 'down', ImageData>> {
  const { data } = await codesOf(sha256);
  const lit = (green: 1 | -1): ImageData => {
    const out = new ImageData(LIT_EDGE, LIT_EDGE);
    const codes = out.data;
    for (let i = 0; i < data.length; i += 4) {
      const x = (2 * data[i]) / 255 - 1;
      const y = green * ((2 * data[i + 1]) / 255 - 1);
      const z = (2 * data[i + 2]) / 255 - 1;
      const facing = (x * LIGHT[0] + y * LIGHT[1] + z * LIGHT[2]) / (Math.hypot(x, y, z) || 1);
      const value = 255 * Math.sqrt(AMBIENT + (1 - AMBIENT) * 0.7 * Math.max(0, facing));
      codes[i] = value;
      codes[i + 1] = value;
      codes[i + 2] = value;
      codes[i + 3] = 255;
    }
    return out;
  };
  return { up: lit(1), down: lit(-1) };
}
