import Box from '@mui/material/Box';
import { COAT_OUTPUTS, type CoatOutput, type SettingValue } from '@zesty-tile/core';
import { ItemDials } from '../../bench/dials/item-dials.tsx';
import { useBench } from '../../bench/state.ts';
import { LineField } from '../../charts/line-field.tsx';
import { ItemCard } from './item-card.tsx';
import { RampStops } from './ramp-stops.tsx';
import { changeCoat, changeOutput } from './use-coats.ts';

const FORMS = COAT_OUTPUTS.variants!.of;
const BY_OTHER_MEANS = ['on', 'line', 'ownLine', 'stops'];
const LESS_OFTEN = ['blend', 'heightBlend', 'inLight'];

/** Settings of an output that have no effect with its channel and blend. */
function idle(output: CoatOutput): string[] {
  const { channel } = output;
  const isColour = channel === 'colour' || channel === 'emission' || channel === 'f0';
  const isHeight = channel === 'height';
  return [
    ...(isHeight ? ['blend', 'inLight', 'amount'] : ['heightBlend', 'heightMm', 'lowMm', 'highMm']),
    ...(isColour ? ['amount'] : ['colour', 'inLight']),
    ...(output.by === 'ramp' && output.driver !== 'wear' ? ['widthMm'] : []),
    ...(output.by === 'line' && channel !== 'roughness' ? ['place'] : []),
    ...(output.blend === 'normal' ? ['inLight'] : []),
  ];
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
          stops={output.stops}
          isColour={['colour', 'emission', 'f0'].includes(output.channel)}
          onChange={(stops, gesture) => changeOutput(id, at, { ...output, stops }, gesture)}
        />
      )}
      <ItemDials settings={settings} values={values} without={[...hidden, ...LESS_OFTEN]} onChange={set} />
    </ItemCard>
  );
}
