import Close from '@mui/icons-material/Close';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import { type PointerEvent, useRef } from 'react';
import { GREY } from '../../theme.ts';

/** Colours are read from a patch this many pixels wide, so that grain does not decide. */
const PATCH = 5;

/** Mean sRGB of a patch of a picture about a point given in shares of its size. */
function readPatch(picture: HTMLImageElement, u: number, v: number): string {
  const canvas = document.createElement('canvas');
  canvas.width = PATCH;
  canvas.height = PATCH;
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  const { naturalWidth: width, naturalHeight: height } = picture;
  const left = Math.min(width - PATCH, Math.max(0, Math.round(u * width - PATCH / 2)));
  const top = Math.min(height - PATCH, Math.max(0, Math.round(v * height - PATCH / 2)));
  context.drawImage(picture, left, top, PATCH, PATCH, 0, 0, PATCH, PATCH);
  const { data } = context.getImageData(0, 0, PATCH, PATCH);
  const mean = [0, 1, 2].map((c) => {
    let sum = 0;
    for (let i = c; i < data.length; i += 4) sum += data[i];
    return Math.round(sum / (PATCH * PATCH));
  });
  return `#${mean.map((code) => code.toString(16).padStart(2, '0')).join('')}`;
}

interface GuidePictureProps {
  name: string;
  sha256: string;
  onPick(hex: string): void;
  onUnpin(): void;
}

/** One pinned picture; pressing on it picks the colour there. */
export function GuidePicture({ name, sha256, onPick, onUnpin }: GuidePictureProps) {
  const picture = useRef<HTMLImageElement>(null);
  const pick = (event: PointerEvent<HTMLButtonElement>) => {
    if (event.buttons === 0 || !picture.current?.complete) return;
    const box = picture.current.getBoundingClientRect();
    const u = (event.clientX - box.left) / box.width;
    const v = (event.clientY - box.top) / box.height;
    if (u >= 0 && v >= 0 && u <= 1 && v <= 1) onPick(readPatch(picture.current, u, v));
  };
  return (
    <Box sx={{ position: 'relative' }}>
      <Box
        component="button"
        type="button"
        aria-label={`Pick a colour from ${name}`}
        onPointerDown={pick}
        onPointerMove={pick}
        onClick={(event: React.MouseEvent) => {
          // From the keyboard there is no place pointed at: its middle is taken.
          if (event.detail === 0 && picture.current) onPick(readPatch(picture.current, 0.5, 0.5));
        }}
        sx={{ p: 0, border: 0, display: 'block', width: '100%', cursor: 'crosshair', touchAction: 'none' }}
      >
        <img
          ref={picture}
          src={`/api/sources/${sha256}/picture`}
          alt=""
          draggable={false}
          style={{ width: '100%', display: 'block' }}
        />
      </Box>
      <IconButton
        size="small"
        aria-label={`Unpin ${name}`}
        onClick={onUnpin}
        sx={{
          position: 'absolute',
          top: 3,
          right: 3,
          bgcolor: GREY.sheet,
          p: 0.25,
          '&:hover': { bgcolor: GREY.card },
        }}
      >
        <Close sx={{ fontSize: 14 }} />
      </IconButton>
    </Box>
  );
}
