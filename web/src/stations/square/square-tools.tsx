import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import {
  type BendMesh,
  type Corners,
  cropMapper,
  FEWEST_HANDLES,
  MOST_HANDLES,
  meshWith,
} from '@zesty-tile/core';
import { Choices } from '../../bench/choices.tsx';
import { pressable } from '../../bench/pressed.ts';
import { useBench } from '../../bench/state.ts';
import { engineNow } from '../../bench/use-engine.ts';
import { Pieces } from './pieces.tsx';
import { seekPieces, toggleBending, useSquare } from './use-square.ts';

/** Below this no direction rules, and turning by it would be chance. */
const PLAIN = 2;

/** Turns the crop to the main direction of lines in the photo. */
async function levelByPicture(): Promise<void> {
  const found = await engineNow()?.mainDirection();
  if (!found) return;
  const degrees = Math.round(found.degrees * 20) / 20;
  if (found.plain < PLAIN) {
    useSquare.setState({ said: 'No dominant line direction; draw a line instead.' });
    return;
  }
  useBench.getState().setDials('square', { turnDegrees: degrees }, 'level by the picture');
  useSquare.setState({
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

const COUNTS = Array.from({ length: MOST_HANDLES - FEWEST_HANDLES + 1 }, (_, k) => FEWEST_HANDLES + k);

/** How many handles the bend has; it is kept as it is. */
function BendCounts({ bend }: { bend: BendMesh }) {
  const take = (across: number, down: number) =>
    useBench.getState().setDials('square', { bend: meshWith(bend, across, down) }, '');
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: 'auto 1fr', gap: 0.75, alignItems: 'center' }}>
      Across
      <Choices
        label="Handles across"
        value={bend.across}
        options={COUNTS.map((value) => ({ value, words: String(value) }))}
        onChange={(across) => take(across, bend.down)}
      />
      Down
      <Choices
        label="Handles down"
        value={bend.down}
        options={COUNTS.map((value) => ({ value, words: String(value) }))}
        onChange={(down) => take(bend.across, down)}
      />
    </Box>
  );
}

/** Levelling, and four corners in place of the square crop. */
export function SquareTools() {
  const corners = useBench((s) => s.recipe.stations.square.corners);
  const bend = useBench((s) => s.recipe.stations.square.bend);
  const { drawing, bending, said } = useSquare();
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
                useSquare.setState({ drawing: !drawing, said: '' });
              }}
            >
              Level with a line
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
        <Button aria-pressed={bending} sx={pressable(bending)} onClick={toggleBending}>
          Warp
        </Button>
        <Button variant="outlined" onClick={() => void seekPieces()}>
          Pieces that tile …
        </Button>
      </Box>
      {bending && bend && <BendCounts bend={bend} />}
      <Pieces />
      <Typography color="text.secondary" aria-live="polite">
        {drawing
          ? 'Draw a line on the photo along what is level or upright.'
          : bending
            ? 'Drag the handles so that the lines follow the rows; they will be straight in the tile.'
            : corners
              ? 'Drag the corners onto something square in the photo; it becomes the tile.'
              : said}
      </Typography>
    </Box>
  );
}
