import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import Radio from '@mui/material/Radio';
import RadioGroup from '@mui/material/RadioGroup';
import Typography from '@mui/material/Typography';
import { type NumberSetting, number } from '@zesty-tile/core';
import { useState } from 'react';
import { FIGURES, GREY } from '../../../theme.ts';
import { FlagDial } from '../../dials/flag-dial.tsx';
import { NumberDial } from '../../dials/number-dial.tsx';
import { pressable } from '../../pressed.ts';
import { useReliefDepth } from '../../use-depth.ts';
import { measureFrame } from '../frame/painter.tsx';
import { IS_WHOLE } from '../shapes.ts';
import { SillPopover } from '../sill-popover.tsx';
import { DEPTHS, type Depth, useSill } from '../state.ts';

export const DEPTH_WORDS: Record<Depth, { name: string; cost: string }> = {
  flat: { name: 'Flat', cost: 'One sample per map; depth is shading only.' },
  'one-step': { name: 'One step', cost: 'One extra sample per pixel; distorts at grazing angles.' },
  'ray-steps': {
    name: 'Ray steps',
    cost: 'Many samples per pixel and per light; self-occluding and self-shadowing.',
  },
  true: { name: 'True relief', cost: 'True displacement, 100 000 triangles; the silhouette changes too.' },
};

const STEPS: Record<'few' | 'many', NumberSetting> = {
  few: number({
    label: 'Steps, above',
    help: 'Samples along the ray where the surface is seen from straight above.',
    default: 10,
    min: 2,
    max: 64,
    step: 1,
    unit: '',
  }),
  many: number({
    label: 'Steps, along',
    help: 'Samples along the ray at grazing angles.',
    default: 48,
    min: 4,
    max: 128,
    step: 1,
    unit: '',
  }),
};

const SHARPNESS = number({
  label: 'Sharpness',
  help: 'Blend sharpness between the three projections.',
  default: 6,
  min: 1,
  max: 32,
  step: 0.5,
  unit: '',
});

const TRIPLANAR = {
  type: 'flag',
  label: 'Triplanar',
  help: 'Projects the tile from three sides, without the shape’s own coordinates.',
  default: false,
} as const;

const drawn = () =>
  new Promise<void>((resolve) => requestAnimationFrame(() => requestAnimationFrame(() => resolve())));

/** How depth is shown, and what each way costs; measured on this machine, in this view. */
export function DepthPanel() {
  const { depth, few, many, triplanar, sharpness, shape } = useSill();
  const depthMm = useReliefDepth();
  const [costs, setCosts] = useState<Partial<Record<Depth, number>>>({});
  const [measuring, setMeasuring] = useState(false);
  const isBarred = (one: Depth) =>
    one === 'true' ? !IS_WHOLE[shape] : triplanar && (one === 'one-step' || one === 'ray-steps');
  const measure = async () => {
    setMeasuring(true);
    const found: Partial<Record<Depth, number>> = {};
    for (const one of DEPTHS) {
      if (isBarred(one)) continue;
      useSill.setState({ depth: one });
      await drawn();
      const cost = measureFrame();
      if (cost !== null) found[one] = cost;
      setCosts({ ...found });
    }
    useSill.setState({ depth });
    setMeasuring(false);
  };
  return (
    <SillPopover
      words="Depth"
      says={`Depth: ${triplanar ? 'triplanar' : DEPTH_WORDS[isBarred(depth) ? 'flat' : depth].name.toLowerCase()}`}
      label="Depth of the Sill"
      isOn={depth !== 'true' || triplanar}
    >
      <RadioGroup
        aria-label="How depth is shown"
        value={depth}
        onChange={(event) => useSill.setState({ depth: event.target.value as Depth })}
      >
        {DEPTHS.map((one) => (
          <FormControlLabel
            key={one}
            value={one}
            disabled={isBarred(one)}
            control={<Radio size="small" sx={{ alignSelf: 'flex-start', pt: 0.5 }} />}
            sx={{ mr: 0, py: 0.25 }}
            disableTypography
            label={
              <div style={{ lineHeight: 1.3 }}>
                <strong>{DEPTH_WORDS[one].name}</strong>{' '}
                <span style={{ font: `12px ${FIGURES}` }} data-testid={`cost-${one}`}>
                  {costs[one] !== undefined && `${costs[one].toFixed(1)} ms a frame`}
                </span>
                <div style={{ color: GREY.soft }}>
                  {isBarred(one)
                    ? one === 'true'
                      ? 'This shape has edges that would tear, or is too coarse for it.'
                      : 'Triplanar has no one direction to shift along.'
                    : DEPTH_WORDS[one].cost}
                </div>
              </div>
            }
          />
        ))}
      </RadioGroup>
      <Button
        sx={pressable(false)}
        // Not disabled: a button that loses the focus takes Escape with it.
        aria-busy={measuring}
        onClick={() => void (measuring || measure())}
      >
        {measuring ? 'Measuring …' : 'Time all'}
      </Button>
      {depth === 'ray-steps' && (
        <>
          <NumberDial
            setting={STEPS.few}
            value={few}
            onChange={(value) => useSill.setState({ few: value })}
          />
          <NumberDial
            setting={STEPS.many}
            value={many}
            onChange={(value) => useSill.setState({ many: value })}
          />
        </>
      )}
      <FlagDial
        setting={TRIPLANAR}
        value={triplanar}
        onChange={(value) => useSill.setState({ triplanar: value })}
      />
      {triplanar && (
        <NumberDial
          setting={SHARPNESS}
          value={sharpness}
          onChange={(value) => useSill.setState({ sharpness: value })}
        />
      )}
      <Typography sx={{ color: GREY.soft, fontSize: 12.5, mt: 0.5 }}>
        Depth is {Number(depthMm.toFixed(2))} mm, as Relief has it.
      </Typography>
    </SillPopover>
  );
}
