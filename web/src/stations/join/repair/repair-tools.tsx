import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { type NumberSetting, number } from '@zesty-tile/core';
import { Choices } from '../../../bench/choices.tsx';
import { NumberDial } from '../../../bench/dials/number-dial.tsx';
import { pressable } from '../../../bench/pressed.ts';
import { engineNow } from '../../../bench/use-engine.ts';
import { GraftOffers } from './graft-offers.tsx';
import { RepairList } from './repair-list.tsx';
import { askGrafts, type RepairTool, takeTool, useRepair } from './use-repair.ts';

const TOOLS: { tool: RepairTool; words: string }[] = [
  { tool: 'graft', words: 'Graft' },
  { tool: 'heal', words: 'Heal' },
  { tool: 'clone', words: 'Clone' },
];

const BRUSH: Record<'radius' | 'softness' | 'opacity', NumberSetting> = {
  radius: number({
    label: 'Radius',
    help: 'Radius of the brush or the patch, as a share of the tile’s edge.',
    default: 0.03,
    min: 0.002,
    max: 0.25,
    step: 0.001,
    unit: '',
  }),
  softness: number({
    label: 'Softness',
    help: 'How much of the radius fades out: 0 is a hard tip.',
    default: 0,
    min: 0,
    max: 1,
    step: 0.05,
    unit: '',
  }),
  opacity: number({
    label: 'Opacity',
    help: 'How much of the copy covers what lies there.',
    default: 1,
    min: 0.05,
    max: 1,
    step: 0.05,
    unit: '',
  }),
};

async function graftWorst(): Promise<void> {
  const spots = await engineNow()?.seamHeat();
  if (!spots || spots.length === 0) return;
  const worst = spots.reduce((most, spot) => (spot.unlike > most.unlike ? spot : most));
  await askGrafts([worst.x, worst.y]);
}

function guide(tool: RepairTool | null, isChoosing: boolean): string {
  if (!tool) return 'Fix what joining cannot hide, or remove marks.';
  if (tool === 'graft') return 'Press on a spot: six patches from elsewhere are offered to lie over it.';
  if (isChoosing) return 'Press the place in the picture to take from.';
  return tool === 'heal'
    ? 'Draw over what should go: detail comes from the dashed ring, tone from the surroundings.'
    : 'Draw: the picture at the dashed ring is copied there.';
}

/** Repair by hand on the half-shifted tile. */
export function RepairTools() {
  const { tool, from, choosing, follows, ...values } = useRepair();
  return (
    <Box component="section" aria-label="Repair" sx={{ display: 'grid', gap: 0.75 }}>
      <Box sx={{ display: 'flex', gap: 0.75, alignItems: 'center' }}>
        <strong>Repair</strong>
        {TOOLS.map((one) => (
          <Button
            key={one.tool}
            aria-pressed={tool === one.tool}
            sx={pressable(tool === one.tool)}
            onClick={() => takeTool(tool === one.tool ? null : one.tool)}
          >
            {one.words}
          </Button>
        ))}
      </Box>
      <Typography color="text.secondary" aria-live="polite">
        {guide(tool, choosing)}
      </Typography>
      {tool && (
        <NumberDial
          setting={BRUSH.radius}
          value={values.radius}
          onChange={(radius) => useRepair.setState({ radius })}
        />
      )}
      {(tool === 'clone' || tool === 'heal') && (
        <>
          {(['softness', 'opacity'] as const).map((key) => (
            <NumberDial
              key={key}
              setting={BRUSH[key]}
              value={values[key]}
              onChange={(value) => useRepair.setState({ [key]: value })}
            />
          ))}
          <Box sx={{ display: 'flex', gap: 0.75, flexWrap: 'wrap' }}>
            <Choices
              label="Taken from"
              value={follows ? 'follows' : 'fixed'}
              options={[
                { value: 'follows', words: 'Follows the brush' },
                { value: 'fixed', words: 'Fixed' },
              ]}
              onChange={(next) => useRepair.setState({ follows: next === 'follows', offset: null })}
            />
            <Button
              aria-pressed={choosing}
              sx={pressable(choosing)}
              disabled={!from}
              title="Or press in the picture with Ctrl or ⌘ held"
              onClick={() => useRepair.setState({ choosing: !choosing })}
            >
              Choose source
            </Button>
          </Box>
        </>
      )}
      {tool === 'graft' && (
        <Button variant="outlined" size="small" onClick={() => void graftWorst()}>
          Go to worst seam spot
        </Button>
      )}
      <GraftOffers />
      <RepairList />
    </Box>
  );
}
