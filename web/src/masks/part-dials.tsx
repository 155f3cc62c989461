import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import {
  type ChoiceSetting,
  MASK_PARTS,
  type MaskMap,
  type MaskPart,
  number,
  type SettingsOf,
  type SettingValue,
} from '@zesty-tile/core';
import { Choices } from '../bench/choices.tsx';
import { ItemDials } from '../bench/dials/item-dials.tsx';
import { NumberDial } from '../bench/dials/number-dial.tsx';
import { pressable } from '../bench/pressed.ts';
import { useBench } from '../bench/state.ts';
import { GREY } from '../theme.ts';
import { changePart, useMasks } from './use-masks.ts';

/** What the brush is like: not of the recipe, but of each stroke that is drawn. */
const BRUSH = {
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

const FORMS = MASK_PARTS.variants!.of;
const HOW = FORMS.colour.settings.how as ChoiceSetting<MaskPart['how']>;

interface PartProps {
  zone: string;
  at: number;
  part: MaskPart;
  onRemove: (() => void) | null;
}

/** Settings with means of their own: how the part is combined is in its head, strokes are painted. */
const BY_OTHER_MEANS = ['how', 'strokes'];

/** Maps that the tile has: supplied ones and opacity only some tiles. */
function useHasMap(): (map: MaskMap) => boolean {
  const given = useBench((s) => s.recipe.stations.source.given);
  const hasAlpha = useBench((s) => s.maps?.opacity != null);
  return (map) =>
    map === 'opacity'
      ? hasAlpha
      : map === 'roughness'
        ? Boolean(given.roughness ?? given.gloss)
        : map !== 'metallic' || Boolean(given.metallic);
}

/** The part's settings, with its maps as far as the tile has them. */
function useSettings(part: MaskPart): SettingsOf {
  const has = useHasMap();
  const { settings } = FORMS[part.by];
  if (part.by !== 'range') return settings;
  const map = settings.map as ChoiceSetting<MaskMap>;
  const options = map.options.filter((option) => option === part.map || has(option));
  const names = options.map((option) => map.names[map.options.indexOf(option)]);
  return { ...settings, map: { ...map, options, names } };
}

function GenericDials({ zone, at, part }: PartProps) {
  const settings = useSettings(part);
  return (
    <ItemDials
      settings={settings}
      values={part as unknown as Record<string, SettingValue>}
      without={BY_OTHER_MEANS}
      onChange={(key, value) =>
        changePart(
          zone,
          at,
          { ...part, [key]: value } as MaskPart,
          settings[key].type === 'number' ? key : '',
        )
      }
    />
  );
}

function BrushPart({ zone, at, part }: PartProps & { part: Extract<MaskPart, { by: 'brush' }> }) {
  const brush = useMasks((s) => s.brush);
  const radius = useMasks((s) => s.radius);
  const softness = useMasks((s) => s.softness);
  const mine = brush?.part === at ? brush : null;
  const take = (erase: boolean) =>
    useMasks.setState({ brush: mine?.erase === erase ? null : { part: at, erase }, shown: true });
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
          Erase
        </Button>
        <span style={{ color: GREY.soft, marginLeft: 'auto' }}>
          {last === 1 ? '1 stroke' : `${last} strokes`}
        </span>
        <Button
          sx={pressable(false)}
          disabled={last === 0}
          onClick={() => changePart(zone, at, { ...part, strokes: part.strokes.slice(0, -1) })}
        >
          Undo last stroke
        </Button>
      </Box>
      {mine && (
        <>
          <NumberDial
            setting={BRUSH.radius}
            value={radius}
            onChange={(value) => useMasks.setState({ radius: value })}
          />
          <NumberDial
            setting={BRUSH.tip}
            value={softness}
            onChange={(value) => useMasks.setState({ softness: value })}
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
      aria-label={`${FORMS[part.by].title}, part ${at + 1}`}
      sx={{ display: 'grid', gap: 0.5, borderTop: `1px solid ${GREY.line}`, pt: 0.75 }}
    >
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
        {at > 0 && (
          <Choices
            label={`How part ${at + 1} is joined`}
            value={part.how}
            options={HOW.options.map((value, k) => ({ value, words: HOW.names[k] }))}
            onChange={(how) => changePart(zone, at, { ...part, how })}
          />
        )}
        <strong>{FORMS[part.by].title}</strong>
        {onRemove && (
          <Button
            variant="text"
            sx={{ ml: 'auto', minWidth: 0 }}
            aria-label={`Remove part ${at + 1}`}
            onClick={onRemove}
          >
            Out
          </Button>
        )}
      </Box>
      <GenericDials {...props} />
      {part.by === 'brush' && <BrushPart {...props} part={part} />}
    </Box>
  );
}
