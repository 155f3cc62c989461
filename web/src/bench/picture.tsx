import { useEffect, useRef } from 'react';
import type { Thumbnail } from '../engine/protocol.ts';

/** A small picture as it is. */
export function Picture({ picture, label, edge }: { picture: Thumbnail; label: string; edge: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { rgba, width, height } = picture;
  useEffect(() => {
    canvas.current?.getContext('2d')?.putImageData(new ImageData(rgba, width, height), 0, 0);
  }, [rgba, width, height]);
  const scale = edge / Math.max(width, height);
  return (
    <canvas
      ref={canvas}
      width={width}
      height={height}
      role="img"
      aria-label={label}
      style={{
        width: width * scale,
        height: height * scale,
        display: 'block',
        flex: 'none',
        boxSizing: 'border-box',
      }}
    />
  );
}
