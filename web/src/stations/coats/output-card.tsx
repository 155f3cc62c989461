import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import {
  type ChoiceSetting,
  COAT_OUTPUTS,
  type CoatChannel,
  type CoatOutput,
  type SettingValue,
  VALUE_KINDS,
} from '@zesty-tile/core';
import { ItemDials } from '../../bench/dials/item-dials.tsx';
import { useDials } from '../../bench/dials/use-dials.ts';
import { pressable } from '../../bench/pressed.ts';
import { useBench } from '../../bench/state.ts';
import { LineField } from '../../charts/line-field.tsx';
import { ItemCard } from './item-card.tsx';
import { PictureField } from './picture-field.tsx';
import { RampStops } from './ramp-stops.tsx';
import { TileField } from './tile-field.tsx';
import { changeCoat, changeOutput } from './use-coats.ts';

const FORMS = COAT_OUTPUTS.variants!.of;
const BY_OTHER_MEANS = ['on', 'channel', 'line', 'ownLine', 'stops', 'picture', 'other'];
const LESS_OFTEN = ['blend', 'heightBlend', 'inLight'];

const unless = (used: boolean, ...keys: string[]): string[] => (used ? [] : keys);

/** Settings of an output that have no effect with its channel and blend. */
function idle(output: CoatOutput): string[] {
  const { channel } = output;
  const isColour = channel === 'colour' || channel === 'emission' || channel === 'f0';
  const isHeight = channel === 'height';
  const common = [
    ...(isHeight
      ? ['blend', 'inLight', 'amount']
      : ['heightBlend', 'heightMm', 'lowMm', 'highMm', 'whiteMm']),
    ...(isColour ? ['amount'] : ['colour', 'inLight']),
    ...unless(output.blend !== 'normal', 'inLight'),
  ];
  if (output.by === 'ramp') {
    const { driver } = output;
    return [
      ...common,
      ...unless(driver === 'wear', 'widthMm'),
      ...unless(driver === 'facing', 'degrees'),
      ...unless(driver === 'supplied', 'supplied'),
      ...unless(driver === 'part', 'part', 'plane'),
    ];
  }
  if (output.by === 'picture') {
    return [...common, ...(output.placing === 'once' ? ['repeats'] : ['x', 'y', 'widthMm', 'degrees'])];
  }
  return output.by === 'line' ? [...common, ...unless(channel === 'roughness', 'place')] : common;
}

/** The channel an output goes into, of those that its value has something for. */
function ChannelChoice({ output, onChange }: { output: CoatOutput; onChange(channel: CoatChannel): void }) {
  const { channel } = FORMS[output.by].settings as unknown as { channel: ChoiceSetting<CoatChannel> };
  const { channels } = VALUE_KINDS[output.by];
  if (channels.length === 1) return null;
  return (
    <Box role="group" aria-label="Into" sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5 }}>
      {channels.map((one) => (
        <Button
          key={one}
          aria-pressed={one === output.channel}
          sx={pressable(one === output.channel)}
          onClick={() => onChange(one)}
        >
          {channel.names[channel.options.indexOf(one)]}
        </Button>
      ))}
    </Box>
  );
}

/** Where Style paints nothing, or paints the whole tile already: what a coat would need of it. */
function StyleHint() {
  const { amount, place } = useDials('style', 'amount', 'place');
  if (amount > 0 && place === 'coats') return null;
  return (
    <Box sx={{ display: 'grid', gap: 0.5, justifyItems: 'start', lineHeight: 1.35 }}>
      <span>
        {amount === 0
          ? 'Style paints nothing yet.'
          : 'Style paints the whole tile: over it this coat changes nothing.'}
      </span>
      <Button
        sx={pressable(false)}
        onClick={() =>
          useBench.getState().setDials('style', { place: 'coats', amount: amount === 0 ? 1 : amount }, '')
        }
      >
        Paint only in coats
      </Button>
    </Box>
  );
}

/** What a coat puts into one channel. */
export function OutputCard({ id, at, output }: { id: string; at: number; output: CoatOutput }) {
  const projectId = useBench((s) => s.projectId);
  const { title, settings } = FORMS[output.by];
  const channel = settings.channel as { options: readonly string[]; names: readonly string[] };
  const words = channel.names[channel.options.indexOf(output.channel)];
  const set = (key: string, value: SettingValue) =>
    changeOutput(
      id,
      at,
      { ...output, [key]: value } as CoatOutput,
      settings[key].type === 'number' ? key : '',
    );
  const values = output as unknown as Record<string, SettingValue>;
  const hidden = [...BY_OTHER_MEANS, ...idle(output)];
  return (
    <ItemCard
      label={`output ${at + 1}: ${words}`}
      head={
        <strong>
          {words}, {title.toLowerCase()}
        </strong>
      }
      onRemove={() =>
        changeCoat(id, (coat) => ({ ...coat, outputs: coat.outputs.filter((_one, k) => k !== at) }))
      }
      moreWords="Blend"
      more={
        <ItemDials
          settings={settings}
          values={values}
          without={[...hidden, ...Object.keys(settings).filter((key) => !LESS_OFTEN.includes(key))]}
          onChange={set}
        />
      }
    >
      <ChannelChoice output={output} onChange={(channel) => set('channel', channel)} />
      {output.by === 'picture' && (
        <PictureField
          label={`Picture of ${words.toLowerCase()}`}
          picture={output.picture}
          onPicture={(picture) => set('picture', picture)}
        />
      )}
      {output.by === 'styled' && <StyleHint />}
      {output.by === 'tile' && <TileField other={output.other} onOther={(other) => set('other', other)} />}
      {output.by === 'line' && (
        <Box
          sx={{ display: 'grid', gridTemplateColumns: '92px minmax(0, 1fr)', alignItems: 'center', gap: 1 }}
        >
          <span>Reference</span>
          <LineField
            label={`Reference of ${words.toLowerCase()}`}
            value={output}
            none="None"
            projectId={projectId}
            onChange={({ line, ownLine }) => changeOutput(id, at, { ...output, line, ownLine })}
          />
        </Box>
      )}
      {output.by === 'ramp' && (
        <RampStops
          label={`Ramp of ${words.toLowerCase()}`}
          stops={output.stops}
          kind={output.kind}
          isColour={['colour', 'emission', 'f0'].includes(output.channel)}
          onChange={(stops, gesture) => changeOutput(id, at, { ...output, stops }, gesture)}
        />
      )}
      <ItemDials settings={settings} values={values} without={[...hidden, ...LESS_OFTEN]} onChange={set} />
    </ItemCard>
  );
}
