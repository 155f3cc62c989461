import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Section } from '../../bench/dials/section.tsx';
import { pressable } from '../../bench/pressed.ts';
import { useBench } from '../../bench/state.ts';
import { BrushTools } from '../../masks/brush-tools.tsx';
import { addJointZone } from './joint-zone.ts';
import { takeJointBrush, undoJointStroke, useJointBrush } from './use-joint-brush.ts';

/** The net of joints: shown on the Floor, repaired by hand, and kept as a zone. */
export function JointTools() {
  const joints = useBench((s) => s.recipe.stations.relief.joints);
  const strokes = useBench((s) => s.recipe.stations.relief.jointStrokes.length);
  const isShown = useBench((s) => s.chosenView === 'joints');
  const zone = useBench((s) => s.recipe.masks.find(({ id }) => id === 'joints'));
  const { erase, tip } = useJointBrush();
  if (joints === 'none') return null;
  return (
    <Section station="relief" id="joint-net" title="Net of joints">
      <Box sx={{ display: 'grid', gap: 0.75 }}>
        <Typography color="text.secondary">
          Paint where a joint is missing, erase where there is none. Faces follow from what the net closes.
        </Typography>
        <Button
          aria-pressed={isShown}
          sx={{ ...pressable(isShown), justifySelf: 'start' }}
          onClick={() => useBench.getState().set({ chosenView: isShown ? null : 'joints' })}
        >
          Show joints on the Floor
        </Button>
        <BrushTools
          erase={erase}
          onTake={takeJointBrush}
          strokes={strokes}
          onUndoLast={undoJointStroke}
          tip={tip}
          onTip={(changes) => useJointBrush.setState({ tip: { ...tip, ...changes } })}
        />
        <Button sx={pressable(false)} disabled={zone !== undefined} onClick={addJointZone}>
          {zone ? `Joints are the zone “${zone.name}”` : 'Make the joints a zone'}
        </Button>
      </Box>
    </Section>
  );
}
