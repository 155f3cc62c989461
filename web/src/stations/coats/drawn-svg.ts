/** Pixels of the longer side that a drawing in SVG is drawn with. */
const LONGER = 2048;

/** Sides as an SVG states them, by its own size or its view box; null where it states neither. */
function sidesOf(svg: Element): { width: number; height: number } | null {
  const [width, height] = ['width', 'height'].map((name) => {
    const value = svg.getAttribute(name) ?? '';
    return value.endsWith('%') ? Number.NaN : Number.parseFloat(value);
  });
  if (width > 0 && height > 0) return { width, height };
  const [, , across, down] = (svg.getAttribute('viewBox') ?? '').split(/[\s,]+/).map(Number);
  return across > 0 && down > 0 ? { width: across, height: down } : null;
}

/** A picture as it is, or a drawing in SVG as a PNG of 2048 pixels along its longer side. @throws Error in plain words. */
export async function drawnSvg(file: File): Promise<File> {
  if (!/\.svg$/i.test(file.name) && file.type !== 'image/svg+xml') return file;
  const page = new DOMParser().parseFromString(await file.text(), 'image/svg+xml');
  const svg = page.documentElement;
  const unreadable = `${file.name} is not an SVG that can be read. Export it again, or save it as PNG.`;
  if (svg.nodeName !== 'svg' || page.querySelector('parsererror')) throw new Error(unreadable);
  const sides = sidesOf(svg);
  if (!sides) throw new Error(`${file.name} states no size: give it a width and a height, or a view box.`);
  const scale = LONGER / Math.max(sides.width, sides.height);
  const [width, height] = [sides.width, sides.height].map((side) => Math.max(1, Math.round(scale * side)));
  if (!svg.hasAttribute('viewBox')) svg.setAttribute('viewBox', `0 0 ${sides.width} ${sides.height}`);
  svg.setAttribute('width', String(width));
  svg.setAttribute('height', String(height));
  const url = URL.createObjectURL(
    new Blob([new XMLSerializer().serializeToString(page)], { type: 'image/svg+xml' }),
  );
  try {
    const image = new Image(width, height);
    image.src = url;
    await image.decode().catch(() => {
      throw new Error(unreadable);
    });
    const canvas = Object.assign(document.createElement('canvas'), { width, height });
    canvas.getContext('2d')?.drawImage(image, 0, 0, width, height);
    const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/png'));
    if (!blob) throw new Error(unreadable);
    return new File([blob], file.name.replace(/\.svg$/i, '.png'), { type: 'image/png' });
  } finally {
    URL.revokeObjectURL(url);
  }
}
