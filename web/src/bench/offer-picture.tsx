import { useEffect, useRef } from 'react';
import type { Thumbnail } from '../engine/protocol.ts';
import { GREY } from '../theme.ts';

/** The small picture of something on offer; grey until it is made. */
export function OfferPicture({ thumbnail }: { thumbnail: Thumbnail | undefined }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    if (!canvas.current || !thumbnail) return;
    const { width, height, rgba } = thumbnail;
    canvas.current.width = width;
    canvas.current.height = height;
    canvas.current.getContext('2d')?.putImageData(new ImageData(rgba, width, height), 0, 0);
  }, [thumbnail]);
  return (
    <canvas
      ref={canvas}
      data-made={thumbnail ? 'yes' : undefined}
      style={{
        width: '100%',
        aspectRatio: '1.6',
        objectFit: 'cover',
        background: GREY.line,
        display: 'block',
      }}
    />
  );
}
