import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import {
  type ChoiceSetting,
  MASK_PARTS,
  type MaskMap,
  type MaskPart,
  type SettingsOf,
  type SettingValue,
} from '@zesty-tile/core';
import { Choices } from '../bench/choices.tsx';
import { ItemDials } from '../bench/dials/item-dials.tsx';
import { useBench } from '../bench/state.ts';
import { GREY } from '../theme.ts';
import { BrushTools } from './brush-tools.tsx';
import { changePart, useMasks } from './use-masks.ts';

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
  return (
    <BrushTools
      erase={brush?.part === at ? brush.erase : null}
      onTake={(erase) =>
        useMasks.setState({ brush: erase === null ? null : { part: at, erase }, shown: true })
      }
      strokes={part.strokes.length}
      onUndoLast={() => changePart(zone, at, { ...part, strokes: part.strokes.slice(0, -1) })}
      tip={{ radius, softness }}
      onTip={(tip) => useMasks.setState(tip)}
    />
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
