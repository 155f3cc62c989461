import { takeStill } from '../frame/painter.tsx';
import { useSill } from '../state.ts';
import type { StillLight } from './choices.ts';

/** What goes once round: the sun and the sky with it, or the shape. */
export type Turning = 'light' | 'shape';

export interface TurntableOptions {
  turning: Turning;
  file: 'webm' | 'zip';
  edge: number;
  /** How each picture is lit. */
  light: StillLight;
  /** Called with the share that is done, 0…1. */
  onShare(share: number): void;
  signal: AbortSignal;
}

/** Pictures of one turn, and how many are shown in a second. */
export const PICTURES = 48;
const PER_SECOND = 24;
/** A short sequence is looked at closely. */
const BITS_PER_PIXEL = 8;

const nextFrame = () => new Promise((resolve) => requestAnimationFrame(resolve));

/** Collects pictures into one file. */
interface Reel {
  add(picture: Blob, k: number): Promise<void>;
  file(): Promise<Blob>;
}

/** PNG pictures in a zip file, which is not compressed again. */
async function zipReel(): Promise<Reel> {
  const { zipSync } = await import('fflate');
  const files: Record<string, [Uint8Array, { level: 0; mtime: number }]> = {};
  return {
    async add(picture, k) {
      const name = `turn_${String(k).padStart(3, '0')}.png`;
      // The same pictures give the same file.
      files[name] = [new Uint8Array(await picture.arrayBuffer()), { level: 0, mtime: Date.UTC(2000, 0, 2) }];
    },
    file: async () => new Blob([zipSync(files) as Uint8Array<ArrayBuffer>], { type: 'application/zip' }),
  };
}

/** A WebM film in VP9 or VP8. @throws Error in plain words where the browser encodes neither. */
async function filmReel(edge: number): Promise<Reel> {
  const { BufferTarget, CanvasSource, canEncodeVideo, Output, WebMOutputFormat } = await import('mediabunny');
  const bitrate = edge * edge * BITS_PER_PIXEL;
  const size = { width: edge, height: edge, bitrate };
  const codec = (await canEncodeVideo('vp9', size))
    ? 'vp9'
    : (await canEncodeVideo('vp8', size))
      ? 'vp8'
      : null;
  if (!codec)
    throw new Error(
      'This browser cannot encode WebM. Choose the PNG pictures: every film program reads them.',
    );
  const canvas = new OffscreenCanvas(edge, edge);
  const context = canvas.getContext('2d')!;
  const target = new BufferTarget();
  const output = new Output({ format: new WebMOutputFormat(), target });
  const source = new CanvasSource(canvas, { codec, bitrate });
  output.addVideoTrack(source, { frameRate: PER_SECOND });
  await output.start();
  return {
    async add(picture, k) {
      const bitmap = await createImageBitmap(picture);
      // A film has no alpha: behind it is the stage's grey.
      context.fillStyle = '#7a7a7a';
      context.fillRect(0, 0, edge, edge);
      context.drawImage(bitmap, 0, 0);
      bitmap.close();
      await source.add(k / PER_SECOND, 1 / PER_SECOND);
    },
    async file() {
      await output.finalize();
      return new Blob([target.buffer!], { type: 'video/webm' });
    },
  };
}

/** Takes one turn of the light or the shape as a film or as pictures. Null once stopped. @throws Error in plain words. */
export async function takeTurntable(options: TurntableOptions): Promise<Blob | null> {
  const { turning, file, edge, light, onShare, signal } = options;
  const reel = await (file === 'webm' ? filmReel(edge) : zipReel());
  const { sun } = useSill.getState();
  try {
    for (let k = 0; k < PICTURES; k++) {
      if (turning === 'light') {
        useSill.setState({ sun: { ...sun, turn: (sun.turn + (360 * k) / PICTURES) % 360 } });
        // The page first takes the sun over, then the sky follows it.
        await nextFrame();
        await nextFrame();
      }
      const still = await takeStill({
        edge,
        ...light,
        format: 'png',
        turned: turning === 'shape' ? (2 * Math.PI * k) / PICTURES : 0,
        onShare: (share) => onShare((k + share) / PICTURES),
        signal,
      });
      if (!still || signal.aborted) return null;
      await reel.add(still, k);
    }
    return await reel.file();
  } finally {
    useSill.setState({ sun });
  }
}
