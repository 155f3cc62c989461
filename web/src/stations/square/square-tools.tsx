import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { type Corners, cropMapper } from '@zesty-tile/core';
import { pressable } from '../../bench/pressed.ts';
import { useBench } from '../../bench/state.ts';
import { engineNow } from '../../bench/use-engine.ts';
import { useLevel } from './use-level.ts';

/** Below this no direction rules, and turning by it would be chance. */
const PLAIN = 2;

/** Turns the crop to the main direction of lines in the photo. */
async function levelByPicture(): Promise<void> {
  const found = await engineNow()?.mainDirection();
  if (!found) return;
  const degrees = Math.round(found.degrees * 20) / 20;
  if (found.plain < PLAIN) {
    useLevel.setState({ said: 'No direction of lines rules here; draw a line instead.' });
    return;
  }
  useBench.getState().setDials('square', { turnDegrees: degrees }, 'level by the picture');
  useLevel.setState({
    said: `Lines run ${degrees.toFixed(2).replace('-', '−')}° off; the crop is turned to them.`,
  });
}

/** The crop's corners as they lie now, to be moved one by one. */
function cornersNow(): Corners {
  const { source, recipe } = useBench.getState();
  const { at } = cropMapper(source.width, source.height, recipe.stations.square);
  const corner = (u: number, v: number): [number, number] => {
    const [x, y] = at(u, v);
    return [Math.round((1e4 * x) / source.width) / 1e4, Math.round((1e4 * y) / source.height) / 1e4];
  };
  return [corner(0, 0), corner(1, 0), corner(1, 1), corner(0, 1)];
}

/** Levelling, and four corners in place of the square crop. */
export function SquareTools() {
  const corners = useBench((s) => s.recipe.stations.square.corners);
  const { drawing, said } = useLevel();
  const set = (next: Corners | null) => {
    useBench.getState().setDials('square', { corners: next }, 'four corners');
    useBench.getState().set({ chosenView: null });
  };
  return (
    <Box sx={{ display: 'grid', gap: 0.75 }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75 }}>
        {!corners && (
          <>
            <Button variant="outlined" onClick={() => void levelByPicture()}>
              Level it
            </Button>
            <Button
              aria-pressed={drawing}
              sx={pressable(drawing)}
              onClick={() => {
                useBench.getState().set({ chosenView: null });
                useLevel.setState({ drawing: !drawing, said: '' });
              }}
            >
              Level by a line
            </Button>
          </>
        )}
        <Button
          aria-pressed={corners !== null}
          sx={pressable(corners !== null)}
          onClick={() => set(corners ? null : cornersNow())}
        >
          Four corners
        </Button>
      </Box>
      <Typography color="text.secondary" aria-live="polite">
        {drawing
          ? 'Draw a line on the photo along what is level or upright.'
          : corners
            ? 'Drag the corners onto something square in the photo; it becomes the tile.'
            : said}
      </Typography>
    </Box>
  );
}
