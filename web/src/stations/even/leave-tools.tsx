import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { type NumberSetting, number } from '@zesty-tile/core';
import { NumberDial } from '../../bench/dials/number-dial.tsx';
import { pressable } from '../../bench/pressed.ts';
import { takeLeaveBrush, useLeave } from './use-leave.ts';

const BRUSH: Record<'radius' | 'softness', NumberSetting> = {
  radius: number({
    label: 'Radius',
    help: 'Radius of the brush, as a share of the crop’s edge.',
    default: 0.06,
    min: 0.005,
    max: 0.4,
    step: 0.005,
    unit: '',
  }),
  softness: number({
    label: 'Softness',
    help: 'How much of the radius fades out: 0 is a hard tip.',
    default: 0.5,
    min: 0,
    max: 1,
    step: 0.05,
    unit: '',
  }),
};

/** A brush over what Even is to leave alone. */
export function LeaveTools() {
  const { tool, ...values } = useLeave();
  return (
    <Box component="section" aria-label="Leave alone by brush" sx={{ display: 'grid', gap: 0.75 }}>
      <Box sx={{ display: 'flex', gap: 0.75 }}>
        {(
          [
            ['leave', 'Protect'],
            ['take', 'Erase'],
          ] as const
        ).map(([one, words]) => (
          <Button
            key={one}
            aria-pressed={tool === one}
            sx={pressable(tool === one)}
            onClick={() => takeLeaveBrush(tool === one ? null : one)}
          >
            {words}
          </Button>
        ))}
      </Box>
      {tool && (
        <>
          <Typography color="text.secondary">
            Draw over what has its own light or colour: it stays as it is, and is ignored when the lighting is
            estimated.
          </Typography>
          {(['radius', 'softness'] as const).map((key) => (
            <NumberDial
              key={key}
              setting={BRUSH[key]}
              value={values[key]}
              onChange={(value) => useLeave.setState({ [key]: value })}
            />
          ))}
        </>
      )}
    </Box>
  );
}
