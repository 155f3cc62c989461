import Box from '@mui/material/Box';
import { useEffect, useRef } from 'react';
import { GREY } from '../theme.ts';

interface LitChoiceProps {
  words: string;
  edge: number;
  chosen: boolean;
  onChoose(): void;
  /** What is to be seen, once it is there. */
  picture: ImageData | null | undefined;
  /** Marks the canvas that is drawn, by this name. */
  drawn?: string;
}

/** One of two readings of a surface, as it looks lit; pressed it is taken. */
export function LitChoice({ words, edge, chosen, onChoose, picture, drawn }: LitChoiceProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    if (picture) canvas.current?.getContext('2d')?.putImageData(picture, 0, 0);
  }, [picture]);
  return (
    <Box
      component="button"
      type="button"
      aria-pressed={chosen}
      onClick={onChoose}
      sx={{
        p: 0,
        border: `2px solid ${chosen ? GREY.ink : GREY.line}`,
        borderRadius: 1,
        overflow: 'hidden',
        bgcolor: chosen ? GREY.ink : GREY.card,
        color: chosen ? GREY.onInk : GREY.ink,
        cursor: 'pointer',
        font: 'inherit',
      }}
    >
      <canvas
        ref={canvas}
        width={edge}
        height={edge}
        data-drawn={picture ? drawn : undefined}
        style={{ display: 'block', width: '100%' }}
      />
      <div style={{ padding: '2px 4px' }}>{words}</div>
    </Box>
  );
}
