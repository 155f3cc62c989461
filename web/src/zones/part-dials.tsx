import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import {
  hexOfLinear,
  type NumberSetting,
  number,
  ZONE_MAPS,
  type ZoneMap,
  type ZonePart,
} from '@zesty-tile/core';
import { Choices } from '../bench/choices.tsx';
import { NumberDial } from '../bench/dials/number-dial.tsx';
import { endPick, startPick } from '../bench/floor/use-pick.ts';
import { pressable } from '../bench/pressed.ts';
import { useBench } from '../bench/state.ts';
import { ColourField } from '../palettes/colour-field.tsx';
import { usePalettes } from '../palettes/use-palettes.ts';
import { FIGURES, GREY } from '../theme.ts';
import { changePart, useZones } from './use-zones.ts';

const MAP_WORDS: Record<ZoneMap, string> = {
  luminance: 'Luminance',
  height: 'Height',
  slope: 'Slope (of 90°)',
  cavity: 'Cavity',
  occlusion: 'Occlusion',
  opacity: 'Opacity',
  roughness: 'Given roughness',
  metallic: 'Given metallic',
};

const DIALS: Record<'reach' | 'softness' | 'from' | 'to' | 'radius' | 'tip', NumberSetting> = {
  reach: number({
    label: 'Reach',
    help: 'How far a colour may be from it, in OKLab, and still be half picked.',
    default: 0.08,
    min: 0.005,
    max: 0.5,
    step: 0.005,
    unit: '',
  }),
  softness: number({
    label: 'Softness',
    help: 'How gently the zone fades out.',
    default: 0.4,
    min: 0,
    max: 1,
    step: 0.05,
    unit: '',
  }),
  from: number({
    label: 'From',
    help: 'The lowest value picked.',
    default: 0,
    min: 0,
    max: 1,
    step: 0.01,
    unit: '',
  }),
  to: number({
    label: 'To',
    help: 'The highest value picked.',
    default: 0.4,
    min: 0,
    max: 1,
    step: 0.01,
    unit: '',
  }),
  radius: number({
    label: 'Radius',
    help: 'Radius of the brush, as a share of the tile’s longer edge.',
    default: 0.04,
    min: 0.002,
    max: 0.4,
    step: 0.002,
    unit: '',
  }),
  tip: number({
    label: 'Tip',
    help: 'How much of the radius fades out: 0 is a hard tip.',
    default: 0.3,
    min: 0,
    max: 1,
    step: 0.05,
    unit: '',
  }),
};

const HOW = [
  { value: 'and', words: 'And' },
  { value: 'or', words: 'Or' },
  { value: 'without', words: 'Without' },
] as const;

const PART_WORDS: Record<ZonePart['by'], string> = {
  colour: 'By colour',
  range: 'By range',
  brush: 'By brush',
};

interface PartProps {
  zone: string;
  at: number;
  part: ZonePart;
  onRemove: (() => void) | null;
}

function ColourPart({ zone, at, part }: PartProps & { part: Extract<ZonePart, { by: 'colour' }> }) {
  const { data: palettes } = usePalettes(useBench((s) => s.projectId));
  const put = (values: object, gesture = '') => changePart(zone, at, { ...part, ...values }, gesture);
  return (
    <>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
        <ColourField
          label="Colour of the zone"
          hex={part.colour}
          offered={(palettes ?? []).flatMap((one) => one.colours)}
          onHex={(colour) => put({ colour })}
        />
        <Button
          sx={pressable(false)}
          onClick={() =>
            startPick({
              words: 'Press on the zone’s colour',
              view: 'joined',
              take: ({ values }) => {
                endPick();
                put({ colour: hexOfLinear(values) });
              },
            })
          }
        >
          Pick it from the tile
        </Button>
        <span style={{ font: `12px ${FIGURES}`, color: GREY.soft }}>{part.colour}</span>
      </Box>
      {(['reach', 'softness'] as const).map((key) => (
        <NumberDial
          key={key}
          setting={DIALS[key]}
          value={part[key]}
          onChange={(value) => put({ [key]: value }, key)}
        />
      ))}
    </>
  );
}

function RangePart({ zone, at, part }: PartProps & { part: Extract<ZonePart, { by: 'range' }> }) {
  const given = useBench((s) => s.recipe.stations.source.given);
  const hasAlpha = useBench((s) => s.maps?.opacity != null);
  const put = (values: object, gesture = '') => changePart(zone, at, { ...part, ...values }, gesture);
  const has = (map: ZoneMap) =>
    map === part.map ||
    (map === 'opacity'
      ? hasAlpha
      : map === 'roughness'
        ? Boolean(given.roughness ?? given.gloss)
        : map !== 'metallic' || Boolean(given.metallic));
  return (
    <>
      <Select
        size="small"
        value={part.map}
        inputProps={{ 'aria-label': 'Map whose values are picked' }}
        onChange={(event) => put({ map: event.target.value })}
        sx={{ bgcolor: GREY.card, fontSize: 13, '& .MuiSelect-select': { py: 0.5 } }}
      >
        {ZONE_MAPS.filter(has).map((map) => (
          <MenuItem key={map} value={map}>
            {MAP_WORDS[map]}
          </MenuItem>
        ))}
      </Select>
      {(['from', 'to', 'softness'] as const).map((key) => (
        <NumberDial
          key={key}
          setting={DIALS[key]}
          value={part[key]}
          onChange={(value) => put({ [key]: value }, key)}
        />
      ))}
    </>
  );
}

function BrushPart({ zone, at, part }: PartProps & { part: Extract<ZonePart, { by: 'brush' }> }) {
  const brush = useZones((s) => s.brush);
  const radius = useZones((s) => s.radius);
  const softness = useZones((s) => s.softness);
  const mine = brush?.part === at ? brush : null;
  const take = (erase: boolean) =>
    useZones.setState({ brush: mine?.erase === erase ? null : { part: at, erase }, shown: true });
  const last = part.strokes.length;
  return (
    <>
      <Box sx={{ display: 'flex', gap: 0.75, alignItems: 'center' }}>
        <Button
          aria-pressed={mine?.erase === false}
          sx={pressable(mine?.erase === false)}
          onClick={() => take(false)}
        >
          Paint
        </Button>
        <Button
          aria-pressed={mine?.erase === true}
          sx={pressable(mine?.erase === true)}
          onClick={() => take(true)}
        >
          Take away
        </Button>
        <span style={{ color: GREY.soft, marginLeft: 'auto' }}>
          {last === 1 ? '1 stroke' : `${last} strokes`}
        </span>
        <Button
          sx={pressable(false)}
          disabled={last === 0}
          onClick={() => changePart(zone, at, { ...part, strokes: part.strokes.slice(0, -1) })}
        >
          Last one out
        </Button>
      </Box>
      {mine && (
        <>
          <NumberDial
            setting={DIALS.radius}
            value={radius}
            onChange={(value) => useZones.setState({ radius: value })}
          />
          <NumberDial
            setting={DIALS.tip}
            value={softness}
            onChange={(value) => useZones.setState({ softness: value })}
          />
        </>
      )}
    </>
  );
}

/** One way by which a zone is picked, and how it joins to those before it. */
export function PartDials(props: PartProps) {
  const { zone, at, part, onRemove } = props;
  return (
    <Box
      role="group"
      aria-label={`${PART_WORDS[part.by]}, part ${at + 1}`}
      sx={{ display: 'grid', gap: 0.5, borderTop: `1px solid ${GREY.line}`, pt: 0.75 }}
    >
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
        {at > 0 && (
          <Choices
            label={`How part ${at + 1} is joined`}
            value={part.how}
            options={HOW}
            onChange={(how) => changePart(zone, at, { ...part, how })}
          />
        )}
        <strong>{PART_WORDS[part.by]}</strong>
        {onRemove && (
          <Button
            variant="text"
            sx={{ ml: 'auto', minWidth: 0 }}
            aria-label={`Take part ${at + 1} out`}
            onClick={onRemove}
          >
            Out
          </Button>
        )}
      </Box>
      {part.by === 'colour' && <ColourPart {...props} part={part} />}
      {part.by === 'range' && <RangePart {...props} part={part} />}
      {part.by === 'brush' && <BrushPart {...props} part={part} />}
    </Box>
  );
}
