import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Popover from '@mui/material/Popover';
import { type NumberSetting, number } from '@zesty-tile/core';
import { useRef, useState } from 'react';
import { Choices } from '../choices.tsx';
import { FlagDial } from '../dials/flag-dial.tsx';
import { NumberDial } from '../dials/number-dial.tsx';
import { pressable } from '../pressed.ts';
import { useBench } from '../state.ts';
import { readShape } from './own-shape.ts';
import { type Around, useSill } from './state.ts';
import { STILL_SIZES, takeStill } from './still.tsx';

const DIALS: Record<'turn' | 'strength' | 'exposure' | 'times', NumberSetting> = {
  turn: number({
    label: 'Turn',
    help: 'Turns what lies around the shape.',
    default: 0,
    min: 0,
    max: 360,
    step: 1,
    unit: '°',
  }),
  strength: number({
    label: 'Strength',
    help: 'How strong the light from all round is, beside the sun.',
    default: 1,
    min: 0,
    max: 4,
    step: 0.05,
    unit: '×',
  }),
  exposure: number({
    label: 'Exposure',
    help: 'Brighter or darker, for the eye alone.',
    default: 0,
    min: -4,
    max: 4,
    step: 0.1,
    unit: 'stops',
  }),
  times: number({
    label: 'Repeats',
    help: 'How often the tile goes over the shape, beside its own number.',
    default: 1,
    min: 1,
    max: 10,
    step: 1,
    unit: '×',
  }),
};

const SUN_TURNS = {
  type: 'flag',
  label: 'Sun goes round',
  help: 'Turns the sun slowly round the shape (key O).',
  default: false,
} as const;
const SEEN = {
  type: 'flag',
  label: 'Seen behind',
  help: 'Shows what lies around the shape behind it.',
  default: false,
} as const;

async function save(edge: number, name: string): Promise<void> {
  const blob = await takeStill(edge);
  if (!blob) return;
  const link = document.createElement('a');
  link.href = URL.createObjectURL(blob);
  link.download = `${name}.png`;
  link.click();
  URL.revokeObjectURL(link.href);
}

/** Takes a shape of one's own from a file. */
function OwnShapeRow() {
  const file = useRef<HTMLInputElement>(null);
  const [problem, setProblem] = useState('');
  const own = useSill((s) => s.own);
  const take = async (given: File | undefined) => {
    if (!given) return;
    try {
      const shape = await readShape(given);
      setProblem('');
      useSill.setState({ own: shape, shape: 'own' });
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, minHeight: 34 }}>
        <span style={{ flex: 1, overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>
          {own ? own.name : 'Own shape'}
        </span>
        <Button sx={pressable(false)} onClick={() => file.current?.click()}>
          glTF or OBJ …
        </Button>
        <input
          ref={file}
          type="file"
          hidden
          accept=".glb,.gltf,.obj"
          aria-label="Shape file"
          onChange={(event) => {
            void take(event.target.files?.[0]);
            event.target.value = '';
          }}
        />
      </Box>
      {problem && <div role="alert">{problem}</div>}
    </>
  );
}

/** How the light of the Sill is set, how often the tile is laid, and a still of it. */
export function LightPanel() {
  const { around, exposure, tone, times, turning, shape } = useSill();
  const tileId = useBench((s) => s.tileId);
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const put = (values: Partial<Around>) => useSill.setState({ around: { ...around, ...values } });
  return (
    <>
      <Button
        aria-haspopup="dialog"
        sx={pressable(false)}
        onClick={(event) => setAnchor(event.currentTarget)}
      >
        Light …
      </Button>
      <Popover
        open={anchor !== null}
        anchorEl={anchor}
        onClose={() => setAnchor(null)}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}
        slotProps={{
          paper: { role: 'dialog', 'aria-label': 'Light of the Sill', sx: { p: 2, width: 330 } } as object,
        }}
      >
        <NumberDial setting={DIALS.turn} value={around.turn} onChange={(turn) => put({ turn })} />
        <NumberDial
          setting={DIALS.strength}
          value={around.strength}
          onChange={(strength) => put({ strength })}
        />
        <NumberDial
          setting={DIALS.exposure}
          value={exposure}
          onChange={(value) => useSill.setState({ exposure: value })}
        />
        <NumberDial
          setting={DIALS.times}
          value={times}
          onChange={(value) => useSill.setState({ times: value })}
        />
        <FlagDial setting={SEEN} value={around.background} onChange={(background) => put({ background })} />
        <FlagDial
          setting={SUN_TURNS}
          value={turning}
          onChange={(value) => useSill.setState({ turning: value })}
        />
        <Box sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between', minHeight: 34 }}>
          <span>Bright light</span>
          <Choices
            label="Tone mapping"
            value={tone}
            options={[
              { value: 'neutral', words: 'Rolled off' },
              { value: 'plain', words: 'Cut off' },
            ]}
            onChange={(value) => useSill.setState({ tone: value })}
          />
        </Box>
        <OwnShapeRow />
        <Box sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between', minHeight: 34 }}>
          <span>Still, PNG</span>
          <Box sx={{ display: 'flex', gap: 0.5 }}>
            {STILL_SIZES.map((edge) => (
              <Button
                key={edge}
                sx={pressable(false)}
                aria-label={`Still of ${edge} px`}
                onClick={() => void save(edge, `${shape}-${tileId.slice(0, 8)}-${edge}`)}
              >
                {edge}
              </Button>
            ))}
          </Box>
        </Box>
      </Popover>
    </>
  );
}
