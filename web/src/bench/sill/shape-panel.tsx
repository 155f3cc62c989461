import { type NumberSetting, number } from '@zesty-tile/core';
import { FlagDial } from '../dials/flag-dial.tsx';
import { NumberDial } from '../dials/number-dial.tsx';
import { useBench } from '../state.ts';
import { FileButton } from './file-button.tsx';
import { readShape } from './own-shape.ts';
import { closing, TILE_EDGE, WIDTH } from './shapes.ts';
import { SillPopover, SillRow, StateChoice } from './sill-popover.tsx';
import { useSill } from './state.ts';

const TIMES = number({
  label: 'Repeats',
  help: 'How often the tile repeats over the shape, relative to the default count.',
  default: 1,
  min: 1,
  max: 10,
  step: 1,
  unit: '×',
});
const GLOW = number({
  label: 'Glow',
  help: 'Emission strength.',
  default: 1,
  min: 0,
  max: 10,
  step: 0.1,
  unit: '×',
});
const SCALE = {
  type: 'flag',
  label: 'For scale',
  help: 'Shows a figure of 1.7 m and a cube of 10 cm next to the shape.',
  default: false,
} as const;
const FACES = {
  type: 'flag',
  label: 'Two-sided',
  help: 'Shows the surface from behind too, as leaves need it.',
  default: false,
} as const;

const MOST_TIMES = 24;

const OPACITIES = [
  ['cut', 'Cuts out'],
  ['see-through', 'Seen through'],
] as const;
const FILTERINGS = [
  ['fine', '16 ×'],
  ['game', 'Game, 4 ×'],
] as const;

/** How large the shape is meant to be, and so how often the tile goes over it. */
function Metres() {
  const { shape, times, own } = useSill();
  const edgeMetres = useBench((s) => s.recipe.stations.square.edgeMetres);
  if (shape === 'scene' || shape === 'field' || (shape === 'own' && !own)) return null;
  const edge = shape === 'own' ? own!.edge : TILE_EDGE[shape];
  const one = (WIDTH[shape] / edge) * edgeMetres;
  const setting: NumberSetting = number({
    label: 'Width',
    help: 'How wide the shape is meant to be. Round shapes keep to whole counts, so that the tile closes.',
    default: Number(one.toFixed(2)),
    min: 0.01,
    max: Number((MOST_TIMES * one).toFixed(2)),
    step: 0.01,
    unit: 'm',
  });
  return (
    <NumberDial
      setting={setting}
      value={Number((times * one).toFixed(2))}
      onChange={(metres) => useSill.setState({ times: Math.max(0.05, closing(shape, metres / one)) })}
    />
  );
}

/** How large the shape is and how its faces are shown; a custom shape. */
export function ShapePanel() {
  const { times, scale, bothFaces, glow, own } = useSill();
  const hasAlpha = useBench((s) => s.maps?.opacity != null);
  const hasGlow = useBench((s) => s.maps?.emission != null);
  return (
    <SillPopover words="Shape" label="Shape of the Sill" isOn={scale || bothFaces}>
      <NumberDial setting={TIMES} value={times} onChange={(value) => useSill.setState({ times: value })} />
      <Metres />
      <FlagDial setting={SCALE} value={scale} onChange={(value) => useSill.setState({ scale: value })} />
      <FlagDial
        setting={FACES}
        value={bothFaces}
        onChange={(value) => useSill.setState({ bothFaces: value })}
      />
      {hasAlpha && (
        <StateChoice of="opacityAs" words="Opacity" label="How opacity is shown" options={OPACITIES} />
      )}
      {hasGlow && (
        <NumberDial setting={GLOW} value={glow} onChange={(value) => useSill.setState({ glow: value })} />
      )}
      <StateChoice
        of="filtering"
        words="Filtering along the look"
        label="Filtering along the look"
        options={FILTERINGS}
      />
      <SillRow words={own ? own.name : 'Own shape'}>
        <FileButton
          words="glTF or OBJ …"
          label="Shape file"
          accept=".glb,.gltf,.obj"
          take={async (file) => useSill.setState({ own: await readShape(file), shape: 'own' })}
        />
      </SillRow>
    </SillPopover>
  );
}
