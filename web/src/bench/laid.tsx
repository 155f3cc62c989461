import { useEffect, useRef } from 'react';
import type { Thumbnail } from '../engine/protocol.ts';

const LAID = 2;

/** A picture laid 2 × 2: where its edges meet is in the middle. */
export function Laid({ picture }: { picture: Thumbnail }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { rgba, width, height } = picture;
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    const image = new ImageData(rgba, width, height);
    for (let j = 0; j < LAID; j++) {
      for (let i = 0; i < LAID; i++) context.putImageData(image, i * width, j * height);
    }
  }, [rgba, width, height]);
  return (
    <canvas
      ref={canvas}
      width={LAID * width}
      height={LAID * height}
      style={{ width: '100%', aspectRatio: `${width} / ${height}`, display: 'block' }}
    />
  );
}
