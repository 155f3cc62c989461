import Box from '@mui/material/Box';
import { COAT_PARTS, linearOfHex, patternRows, type SettingValue, srgbCode } from '@zesty-tile/core';
import { useEffect, useRef } from 'react';
import { ItemDials } from '../../bench/dials/item-dials.tsx';
import { GREY } from '../../theme.ts';
import type { StartPattern } from './start.ts';

/** Pixels of one tile of the preview: few, so that it follows a dial at once. */
const SIDE = 128;
const SHOWN = ['kind', 'across', 'down', 'jointMm', 'bevelMm', 'roundMm', 'shift', 'jitter', 'seed'];
const { settings: SETTINGS } = COAT_PARTS.variants!.of.pattern;
const HIDDEN = Object.keys(SETTINGS).filter((key) => !SHOWN.includes(key));

interface PatternFieldsProps {
  pattern: StartPattern;
  face: string;
  joint: string;
  edgeMetres: number;
  onPattern(pattern: StartPattern): void;
}

/** The pattern 2 × 2, in the colours of faces and joints. */
function Preview({ pattern, face, joint, edgeMetres }: Omit<PatternFieldsProps, 'onPattern'>) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    const field = { widthMm: 1000 * edgeMetres, heightMm: 1000 * edgeMetres };
    const cover = new Float32Array(SIDE * SIDE);
    patternRows(pattern, field, { width: SIDE, height: SIDE }, 'profile')(cover, 0, SIDE);
    const [low, high] = [joint, face].map(linearOfHex);
    const picture = new ImageData(SIDE, SIDE);
    for (let i = 0; i < cover.length; i++) {
      for (let c = 0; c < 3; c++) {
        picture.data[4 * i + c] = srgbCode(low[c] + cover[i] * (high[c] - low[c]));
      }
      picture.data[4 * i + 3] = 255;
    }
    for (const x of [0, SIDE]) for (const y of [0, SIDE]) context.putImageData(picture, x, y);
  }, [pattern, face, joint, edgeMetres]);
  return (
    <canvas
      ref={canvas}
      width={2 * SIDE}
      height={2 * SIDE}
      role="img"
      aria-label="The pattern, tiled 2 × 2"
      style={{ width: '100%', border: `1px solid ${GREY.line}` }}
    />
  );
}

/** What the pattern is, beside how it looks. */
export function PatternFields({ onPattern, ...shown }: PatternFieldsProps) {
  const { pattern } = shown;
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: '220px minmax(0, 1fr)', gap: 2, alignItems: 'start' }}>
      <Preview {...shown} />
      <Box sx={{ display: 'grid', gap: 0.25 }}>
        <ItemDials
          settings={SETTINGS}
          values={pattern as unknown as Record<string, SettingValue>}
          without={HIDDEN}
          onChange={(key, value) => onPattern({ ...pattern, [key]: value } as StartPattern)}
        />
      </Box>
    </Box>
  );
}
