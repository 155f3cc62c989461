import { saveFile } from '../api/save-file.ts';

/** Printed at 190 mm, three of its pixels to each of the screen's come to about 300 for the inch. */
const SHARPNESS = 3;

/** Saves a part of the page as a PNG file, as it is seen. */
export async function savePicture(element: HTMLElement, fileName: string): Promise<void> {
  const { toBlob } = await import('html-to-image');
  const blob = await toBlob(element, { pixelRatio: SHARPNESS, style: { margin: '0', boxShadow: 'none' } });
  if (!blob) throw new Error('No picture came out.');
  saveFile(blob, fileName);
}
