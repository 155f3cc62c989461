import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { memo } from 'react';
import { FIGURES, GREY } from '../../theme.ts';
import { pressable } from '../pressed.ts';
import { useBench } from '../state.ts';
import { useSight } from './sight.ts';

/** What is said on the stage. */
export const PILL = {
  bgcolor: GREY.sheet,
  borderRadius: 1,
  px: 1.25,
  py: 0.25,
  fontFamily: FIGURES,
  fontSize: 12,
  whiteSpace: 'pre',
};

/** Two lines, so that nothing moves as the pointer does. */
const READOUT_HEIGHT = 40;

interface FloorFootProps {
  readout: string;
  /** How large pixels are shown, once there is a picture. */
  zoom: string | null;
  isPhoto: boolean;
  onFit(): void;
  onPixels(): void;
}

/** What stands under the picture; drawn again only when it says something else, not with every picture. */
export const FloorFoot = memo(function FloorFoot({
  readout,
  zoom,
  isPhoto,
  onFit,
  onPixels,
}: FloorFootProps) {
  const guides = useSight((s) => s.guides);
  const edgeLines = useBench((s) => s.edgeLines);
  return (
    <Box sx={{ display: 'flex', gap: 0.75, alignItems: 'flex-end' }}>
      <Box data-testid="readout" sx={{ ...PILL, overflow: 'hidden', minWidth: 0, height: READOUT_HEIGHT }}>
        {readout}
      </Box>
      <Box sx={{ ml: 'auto', display: 'flex', gap: 0.75, alignItems: 'center' }}>
        <Button
          aria-pressed={guides}
          sx={pressable(guides)}
          onClick={() => useSight.setState({ guides: !guides })}
        >
          Guides
        </Button>
        {!isPhoto && (
          <Button
            aria-pressed={edgeLines}
            sx={pressable(edgeLines)}
            onClick={() => useBench.getState().set({ edgeLines: !edgeLines })}
          >
            Edges
          </Button>
        )}
        <Button sx={pressable(false)} onClick={onFit}>
          Fit
        </Button>
        <Button sx={pressable(false)} onClick={onPixels}>
          Pixels
        </Button>
        {zoom && (
          <Box sx={PILL} data-testid="zoom">
            {zoom}
          </Box>
        )}
      </Box>
    </Box>
  );
});
