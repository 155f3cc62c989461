import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import Typography from '@mui/material/Typography';
import { AROUND_NAMES, type NumberSetting, number } from '@zesty-tile/core';
import { GREY } from '../../../theme.ts';
import { FlagDial } from '../../dials/flag-dial.tsx';
import { NumberDial } from '../../dials/number-dial.tsx';
import { FileButton } from '../file-button.tsx';
import { gathered } from '../frame/gathered.ts';
import { SillPopover, SillRow, StateChoice } from '../sill-popover.tsx';
import { type Around, useSill } from '../state.ts';
import { LampRows } from './lamp-rows.tsx';
import { meteredNow } from './metered.ts';
import { useOwnSurroundings, useTakeSurroundings } from './own-surroundings.ts';
import { RigRows } from './rig-rows.tsx';
import { AROUND_WORDS } from './surroundings.ts';
import { useAroundNow } from './use-around.ts';

const percent = (label: string, help: string, usual: number): NumberSetting =>
  number({ label, help, default: usual, min: 0, max: 1, step: 0.01, unit: '' });

const DIALS = {
  turn: number({
    label: 'Rotation',
    help: 'Rotates the surroundings.',
    default: 0,
    min: 0,
    max: 360,
    step: 1,
    unit: '°',
  }),
  strength: number({
    label: 'Strength',
    help: 'Strength of the surrounding light relative to the sun.',
    default: 1,
    min: 0,
    max: 4,
    step: 0.05,
    unit: '×',
  }),
  sunStrength: number({
    label: 'Sun',
    help: 'Strength of the sun relative to this environment’s default. At 0 it is off.',
    default: 1,
    min: 0,
    max: 4,
    step: 0.05,
    unit: '×',
  }),
  exposure: number({
    label: 'Exposure',
    help: 'Brighter or darker, display only.',
    default: 0,
    min: -4,
    max: 4,
    step: 0.1,
    unit: 'stops',
  }),
  backStrength: percent('Behind', 'How bright what lies around is seen behind the shape.', 1),
  backBlur: percent('Blur', 'Background blur.', 0.35),
};

const SUN_TURNS = {
  type: 'flag',
  label: 'Rotate sun',
  help: 'Rotates the sun slowly around the shape (key O).',
  default: false,
} as const;
const LOCK = {
  type: 'flag',
  label: 'Lock exposure',
  help: 'Exposure follows the light, so that the surface looks as bright as its albedo. Locked, it stays as it is while the light changes.',
  default: false,
} as const;
const SEEN = {
  type: 'flag',
  label: 'Seen behind',
  help: 'Shows what lies around the shape behind it.',
  default: false,
} as const;

const TONES = [
  ['neutral', 'Neutral'],
  ['filmic', 'Filmic'],
  ['plain', 'Cut off'],
] as const;
const CORNERS = [
  ['fast', 'Where fast'],
  ['always', 'Always'],
] as const;

/** How large frames are while something moves. */
const SIZES = ['whole', 'half as wide and high', 'a third as wide and high'];

/** What the view's light is made of now, and what a frame takes. */
function GatheredLine() {
  const { frames, of, frameMs, movingMs, dividedBy, isOccluded } = gathered();
  const size = `${SIZES[dividedBy - 1]}, ${isOccluded ? 'corners darkened' : 'corners as bright as the rest'}`;
  const each = frameMs > 0 ? `, ${Math.round(frameMs)} ms each` : '';
  return (
    <Typography variant="body2" sx={{ color: GREY.soft, fontSize: 12 }} data-testid="gathered">
      {movingMs > 0 && `While something moves: ${size}, ${Math.round(movingMs)} ms a frame. `}
      {of > 0 && `At rest: light gathered over ${frames} of ${of} frames${each}.`}
    </Typography>
  );
}

/** How the Sill is lit: surroundings, sun, lamps, rigs that are kept, exposure. */
export function LightPanel() {
  const { around, exposure, exposureLock, turning, sunStrength, lamps } = useSill();
  const takeSurroundings = useTakeSurroundings();
  const ownSurroundings = useOwnSurroundings();
  const put = (values: Partial<Around>) => useSill.setState({ around: { ...around, ...values } });
  return (
    <SillPopover words="Light" label="Light of the Sill" isOn={lamps.length > 0}>
      <SillRow words="Surroundings">
        <Select
          size="small"
          value={around.name}
          inputProps={{ 'aria-label': 'What lies around' }}
          onChange={(event) => put({ name: event.target.value as Around['name'] })}
          sx={{ bgcolor: GREY.card, width: 170 }}
        >
          {AROUND_NAMES.map((name) => (
            <MenuItem key={name} value={name}>
              {AROUND_WORDS[name]}
            </MenuItem>
          ))}
          {ownSurroundings.map(({ id, name }) => (
            <MenuItem key={id} value={`own:${id}`}>
              {name}
            </MenuItem>
          ))}
        </Select>
      </SillRow>
      <NumberDial setting={DIALS.turn} value={around.turn} onChange={(turn) => put({ turn })} />
      <NumberDial
        setting={DIALS.strength}
        value={around.strength}
        onChange={(strength) => put({ strength })}
      />
      <SillRow words="Own 360° picture">
        <FileButton
          words="HDR (.hdr), EXR or plain …"
          label="Surroundings file"
          accept=".hdr,.exr,image/png,image/jpeg,image/webp"
          take={async (file) => {
            const { id } = await takeSurroundings(file);
            put({ name: `own:${id}` });
          }}
        />
      </SillRow>
      <FlagDial setting={SEEN} value={around.background} onChange={(background) => put({ background })} />
      {around.background && (
        <>
          <NumberDial
            setting={DIALS.backStrength}
            value={around.backStrength}
            onChange={(backStrength) => put({ backStrength })}
          />
          <NumberDial
            setting={DIALS.backBlur}
            value={around.backBlur}
            onChange={(backBlur) => put({ backBlur })}
          />
        </>
      )}
      <Typography variant="h2" sx={{ mt: 1 }}>
        Lights
      </Typography>
      <NumberDial
        setting={DIALS.sunStrength}
        value={sunStrength}
        onChange={(value) => useSill.setState({ sunStrength: value })}
      />
      <FlagDial
        setting={SUN_TURNS}
        value={turning}
        onChange={(value) => useSill.setState({ turning: value })}
      />
      <LampRows />
      <RigRows />
      <Typography variant="h2" sx={{ mt: 1 }}>
        As seen
      </Typography>
      <GatheredLine />
      <NumberDial
        setting={DIALS.exposure}
        value={exposure}
        onChange={(value) => useSill.setState({ exposure: value })}
      />
      <FlagDial
        setting={LOCK}
        value={exposureLock !== null}
        onChange={(value) =>
          useSill.setState((sill) => ({
            exposureLock: value ? meteredNow(useAroundNow.getState().light, sill).exposure : null,
          }))
        }
      />
      <StateChoice of="tone" words="Bright light" label="Tone mapping" options={TONES} />
      <StateChoice
        of="corners"
        words="Darken corners"
        label="Corners while something moves"
        options={CORNERS}
      />
    </SillPopover>
  );
}
