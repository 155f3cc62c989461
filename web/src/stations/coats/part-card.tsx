import type { ChoiceSetting, SettingValue } from '@zesty-tile/core';
import { COAT_PARTS, type CoatPart } from '@zesty-tile/core';
import { Choices } from '../../bench/choices.tsx';
import { ItemDials } from '../../bench/dials/item-dials.tsx';
import { useBench } from '../../bench/state.ts';
import { ItemCard } from './item-card.tsx';
import { changeCoat, changePart } from './use-coats.ts';

const FORMS = COAT_PARTS.variants!.of;
const LEVELS = ['low', 'high', 'softness', 'invert', 'blurMm'];
/** Settings with means of their own. */
const BY_OTHER_MEANS = ['how', 'zone'];

/** Settings of a part that have no effect with what else is set. */
function idle(part: CoatPart): string[] {
  if (part.by === 'range') {
    return [...(part.map === 'wear' ? [] : ['widthMm']), ...(part.map === 'facing' ? [] : ['degrees'])];
  }
  if (part.by === 'noise' && part.stretch === 1 && part.kind !== 'directional') return ['degrees'];
  return [];
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

/** One part of a coat's mask. */
export function PartCard({ id, at, part }: { id: string; at: number; part: CoatPart }) {
  const { title, settings } = FORMS[part.by];
  const how = settings.how as ChoiceSetting<CoatPart['how']>;
  const label = `mask part ${at + 1}: ${title}`;
  const set = (key: string, value: SettingValue) =>
    changePart(id, at, { ...part, [key]: value } as CoatPart, settings[key].type === 'number' ? key : '');
  const values = part as unknown as Record<string, SettingValue>;
  const hidden = [...BY_OTHER_MEANS, ...LEVELS, ...idle(part)];
  const others = Object.keys(settings).filter((key) => !LEVELS.includes(key));
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
      onRemove={() =>
        changeCoat(id, (coat) => ({ ...coat, parts: coat.parts.filter((_one, k) => k !== at) }))
      }
      moreWords="Levels and blur"
      more={<ItemDials settings={settings} values={values} without={others} onChange={set} />}
    >
      {part.by === 'zone' && <ZoneChoice value={part.zone} onChange={(zone) => set('zone', zone)} />}
      <ItemDials settings={settings} values={values} without={hidden} onChange={set} />
    </ItemCard>
  );
}
