import { Problem } from '@zesty-tile/core';
import { checkPixels, decodePicture, formatOf } from './decode.ts';
import { isExr } from './exr-header.ts';
import { isHdr, readHdr } from './hdr.ts';

/** Formats that every browser shows. */
const SHOWN = ['png', 'jpeg', 'webp'];

/**
 * Format of a picture that is to stand around the lit view, once it has been read whole.
 * @throws Problem `bad_picture` for another format; otherwise as `decodePicture` does.
 */
export async function checkSurroundings(bytes: Uint8Array): Promise<'hdr' | 'exr' | 'picture'> {
  if (isHdr(bytes)) {
    const { width, height } = readHdr(bytes);
    checkPixels(width, height);
    return 'hdr';
  }
  if (!isExr(bytes) && !SHOWN.includes(formatOf(bytes) ?? '')) {
    throw new Problem(
      'bad_picture',
      'The file is not a picture that can surround the view.',
      'Use an HDR (.hdr), OpenEXR, PNG, JPEG or WebP picture that is twice as wide as high.',
    );
  }
  await decodePicture(bytes);
  return isExr(bytes) ? 'exr' : 'picture';
}
