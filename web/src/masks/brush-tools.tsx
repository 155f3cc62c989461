import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { number } from '@zesty-tile/core';
import { NumberDial } from '../bench/dials/number-dial.tsx';
import { pressable } from '../bench/pressed.ts';
import { GREY } from '../theme.ts';

/** What the brush is like: not of the recipe, but of each stroke that is drawn. */
const BRUSH = {
  radius: number({
    label: 'Radius',
    help: 'Radius of the brush, as a share of the tile’s longer edge.',
    default: 0.04,
    min: 0.002,
    max: 0.4,
    step: 0.002,
    unit: '',
  }),
  tip: number({
    label: 'Tip',
    help: 'How much of the radius fades out: 0 is a hard tip.',
    default: 0.3,
    min: 0,
    max: 1,
    step: 0.05,
    unit: '',
  }),
};

export interface BrushTip {
  radius: number;
  softness: number;
}

interface BrushInHandProps {
  /** What the brush in hand does to this part: erase or paint; null where none is in hand. */
  erase: boolean | null;
  onTake(erase: boolean | null): void;
  /** How many strokes there are. */
  strokes: number;
  onUndoLast(): void;
}

/** Takes the brush for a part that is painted by hand, and says how many strokes it has. */
export const BrushInHand = ({ erase, onTake, strokes, onUndoLast }: BrushInHandProps) => (
  <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75, alignItems: 'center' }}>
    {([false, true] as const).map((isEraser) => (
      <Button
        key={String(isEraser)}
        aria-pressed={erase === isEraser}
        sx={pressable(erase === isEraser)}
        onClick={() => onTake(erase === isEraser ? null : isEraser)}
      >
        {isEraser ? 'Erase' : 'Paint'}
      </Button>
    ))}
    <span style={{ color: GREY.soft, marginLeft: 'auto', whiteSpace: 'nowrap' }}>
      {strokes === 1 ? '1 stroke' : `${strokes} strokes`}
    </span>
    <Button sx={pressable(false)} disabled={strokes === 0} onClick={onUndoLast}>
      Undo last stroke
    </Button>
  </Box>
);

interface BrushToolsProps extends BrushInHandProps {
  tip: BrushTip;
  onTip(tip: Partial<BrushTip>): void;
}

/** The brush of a zone's part. */
export const BrushTools = ({ tip, onTip, ...hand }: BrushToolsProps) => (
  <>
    <BrushInHand {...hand} />
    {hand.erase !== null && (
      <>
        <NumberDial setting={BRUSH.radius} value={tip.radius} onChange={(radius) => onTip({ radius })} />
        <NumberDial setting={BRUSH.tip} value={tip.softness} onChange={(softness) => onTip({ softness })} />
      </>
    )}
  </>
);
