import Button from '@mui/material/Button';
import {
  type ChoiceSetting,
  COAT_PARTS,
  type CoatPart,
  type SettingValue,
  snappedNoise,
} from '@zesty-tile/core';
import { Choices } from '../../bench/choices.tsx';
import { ItemDials } from '../../bench/dials/item-dials.tsx';
import { pressable } from '../../bench/pressed.ts';
import { useBench } from '../../bench/state.ts';
import { BrushInHand } from '../../masks/brush-tools.tsx';
import { GREY } from '../../theme.ts';
import { TipDials } from './brush/tip-dials.tsx';
import { ItemCard } from './item-card.tsx';
import { PictureField } from './picture-field.tsx';
import { ShapeField } from './shape-field.tsx';
import { changePart, changeParts, type Owner, useCoats } from './use-coats.ts';

const FORMS = COAT_PARTS.variants!.of;
const LEVELS = ['low', 'high', 'softness', 'invert', 'blurMm'];
/** Settings with means of their own. */
const BY_OTHER_MEANS = ['how', 'zone', 'picture', 'ends', 'points', 'from', 'loops', 'strokes'];

const unless = (used: boolean, ...keys: string[]): string[] => (used ? [] : keys);

/** Settings of a part that have no effect with what else is set. */
function idle(part: CoatPart): string[] {
  switch (part.by) {
    case 'range':
      return [
        ...unless(part.map === 'wear', 'widthMm'),
        ...unless(part.map === 'facing', 'degrees'),
        ...unless(part.map === 'supplied', 'supplied'),
      ];
    case 'noise':
      return unless(part.stretch !== 1 || part.kind === 'directional', 'degrees');
    case 'gradient':
      return unless(part.kind === 'height', 'lowMm', 'highMm');
    case 'picture':
      return part.placing === 'once' ? ['repeats'] : ['x', 'y', 'widthMm', 'degrees'];
    case 'shape': {
      const isLine = part.kind === 'line' || part.kind === 'polyline';
      const isBox = part.kind === 'rectangle' || part.kind === 'frame';
      return [
        ...unless(!isLine && part.kind !== 'curve', 'widthMm', 'heightMm', 'x', 'y'),
        ...unless(isBox, 'roundMm'),
        ...unless(part.kind === 'polygon' || part.kind === 'star', 'sides'),
        ...unless(part.kind === 'star', 'inner'),
        ...unless(isLine || part.kind === 'frame' || part.isOutlined, 'lineMm'),
        ...unless(!isLine && part.kind !== 'frame', 'isOutlined'),
      ];
    }
    default:
      return [];
  }
}

function ZoneChoice({ value, onChange }: { value: string; onChange(zone: string): void }) {
  const zones = useBench((s) => s.recipe.masks);
  if (zones.length === 0) return <span>No zone yet: make one at Gauge or Finish.</span>;
  return (
    <Choices
      label="Zone"
      value={value}
      options={zones.map(({ id, name }) => ({ value: id, words: name }))}
      onChange={onChange}
    />
  );
}

/** What noise comes to on this tile, where that is not what was asked for. */
function Snapped({ part }: { part: CoatPart & { by: 'noise' } }) {
  const { edgeMetres, size, shape } = useBench((s) => s.recipe.stations.square);
  const height = shape === '1:2' ? 2 * size : shape === '2:1' ? size / 2 : size;
  const found = snappedNoise(part, { width: size, height, edgeMetres });
  const turned = part.stretch !== 1 || part.kind === 'directional';
  return (
    <span style={{ color: GREY.soft }}>
      Repeats with the tile at {found.sizeMm.toFixed(found.sizeMm < 20 ? 1 : 0)} mm
      {turned && `, ${Math.round(found.degrees)}°`}.
    </span>
  );
}

/** The brush of a part that is painted by hand, and what its strokes carry into the coat. */
function PaintedPart({ owner, at, part }: { owner: Owner; at: number; part: CoatPart & { by: 'strokes' } }) {
  const brush = useCoats((s) => s.brush);
  const erase = brush?.part === at ? brush.erase : null;
  return (
    <>
      <BrushInHand
        erase={erase}
        onTake={(erase) =>
          useCoats.setState({ brush: erase === null ? null : { part: at, erase }, alone: null })
        }
        strokes={part.strokes.length}
        onUndoLast={() => changePart(owner, at, { ...part, strokes: part.strokes.slice(0, -1) })}
      />
      {erase !== null && <TipDials owner={owner} at={at} erases={erase} />}
    </>
  );
}

/** One more point, half-way between the last and the first. */
const withPoint = (points: [number, number][]): [number, number][] => {
  const [last, first] = [points[points.length - 1], points[0]];
  return [...points, [(last[0] + first[0]) / 2 + 0.02, (last[1] + first[1]) / 2 + 0.02]];
};

/** Where it is set on the Floor, in words. */
const onFloor = (part: CoatPart): string | null => {
  if (part.by === 'gradient' && part.kind !== 'height') return 'Drag its two ends on the Floor.';
  if (part.by !== 'shape') return null;
  return ['line', 'polyline', 'curve'].includes(part.kind)
    ? 'Drag its points on the Floor; Delete removes one.'
    : 'Drag its middle and its corner on the Floor.';
};

/** One part of a mask. */
export function PartCard({ owner, at, part }: { owner: Owner; at: number; part: CoatPart }) {
  const { title, settings } = FORMS[part.by];
  const how = settings.how as ChoiceSetting<CoatPart['how']>;
  const label = `mask part ${at + 1}: ${title}`;
  const set = (key: string, value: SettingValue) =>
    changePart(owner, at, { ...part, [key]: value } as CoatPart, settings[key].type === 'number' ? key : '');
  const values = part as unknown as Record<string, SettingValue>;
  const hidden = [...BY_OTHER_MEANS, ...LEVELS, ...idle(part)];
  const others = Object.keys(settings).filter((key) => !LEVELS.includes(key));
  const hint = onFloor(part);
  return (
    <ItemCard
      label={label}
      head={
        <>
          <strong>{title}</strong>
          {at > 0 && (
            <Choices
              label={`How ${label} is combined`}
              value={part.how}
              options={how.options.map((value, k) => ({ value, words: how.names[k] }))}
              onChange={(value) => set('how', value)}
            />
          )}
        </>
      }
      onRemove={() => {
        // The brush is for a part by its place.
        useCoats.setState({ brush: null });
        changeParts(owner, (parts) => parts.filter((_one, k) => k !== at));
      }}
      moreWords="Levels and blur"
      more={<ItemDials settings={settings} values={values} without={others} onChange={set} />}
    >
      {part.by === 'zone' && <ZoneChoice value={part.zone} onChange={(zone) => set('zone', zone)} />}
      {part.by === 'picture' && (
        <PictureField
          label={`Picture of ${label}`}
          picture={part.picture}
          onPicture={(picture) => set('picture', picture)}
        />
      )}
      {part.by === 'strokes' && <PaintedPart owner={owner} at={at} part={part} />}
      {part.by === 'own-shape' && (
        <ShapeField part={part} onPart={(changed) => changePart(owner, at, changed)} />
      )}
      <ItemDials settings={settings} values={values} without={hidden} onChange={set} />
      {part.by === 'noise' && <Snapped part={part} />}
      {part.by === 'shape' && (part.kind === 'polyline' || part.kind === 'curve') && (
        <Button
          sx={{ ...pressable(false), justifySelf: 'start' }}
          onClick={() => set('points', withPoint(part.points))}
        >
          Add a point
        </Button>
      )}
      {hint && <span style={{ color: GREY.soft }}>{hint}</span>}
    </ItemCard>
  );
}
