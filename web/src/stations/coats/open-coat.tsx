import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import {
  COAT_OUTPUTS,
  COAT_SETTINGS,
  type Coat,
  type CoatChannel,
  newOutput,
  VALUE_KINDS,
  type ValueName,
} from '@zesty-tile/core';
import { NumberDial } from '../../bench/dials/number-dial.tsx';
import { pressable } from '../../bench/pressed.ts';
import { useBench } from '../../bench/state.ts';
import { CARD, GREY } from '../../theme.ts';
import { CopyTo } from './copy-to.tsx';
import { AddRow, Heading, MaskParts, titlesOf } from './mask-parts.tsx';
import { NameField } from './name-field.tsx';
import { OutputCard } from './output-card.tsx';
import { changeCoat, duplicateCoat, groupCoat, joinGroup, removeCoat, useCoats } from './use-coats.ts';

const { channel: CHANNEL } = COAT_OUTPUTS.variants!.of.constant.settings as unknown as {
  channel: { options: readonly CoatChannel[]; names: readonly string[] };
};

/** Shows the mask, or what is put into one channel, by itself over the Floor. */
function Alone({ coat }: { coat: Coat }) {
  const alone = useCoats((s) => s.alone);
  const channels = [...new Set(coat.outputs.map(({ channel }) => channel))];
  const all: [what: 'mask' | CoatChannel, words: string][] = [
    ['mask', 'Mask'],
    ...channels.map((channel): [CoatChannel, string] => [
      channel,
      CHANNEL.names[CHANNEL.options.indexOf(channel)],
    ]),
  ];
  return (
    <Box
      role="group"
      aria-label="Show alone"
      sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5, alignItems: 'center' }}
    >
      <span style={{ color: GREY.soft }}>Show alone</span>
      {all.map(([what, words]) => {
        const isShown = alone?.id === coat.id && alone.what === what;
        return (
          <Button
            key={what}
            aria-pressed={isShown}
            sx={pressable(isShown)}
            onClick={() => useCoats.setState({ alone: isShown ? null : { id: coat.id, what } })}
          >
            {words}
          </Button>
        );
      })}
    </Box>
  );
}

/** The group that the coat is in, and the others it can be put into. */
function GroupRow({ coat }: { coat: Coat }) {
  const groups = useBench((s) => s.recipe.stations.coats.groups);
  return (
    <Box
      role="group"
      aria-label="Group"
      sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5, alignItems: 'center' }}
    >
      <span style={{ color: GREY.soft }}>Group</span>
      {groups.map(({ id, name }) => (
        <Button
          key={id}
          aria-pressed={coat.group === id}
          sx={pressable(coat.group === id)}
          onClick={() => joinGroup(coat.id, coat.group === id ? '' : id)}
        >
          {name}
        </Button>
      ))}
      <Button sx={pressable(false)} onClick={() => groupCoat(coat.id)}>
        New group
      </Button>
    </Box>
  );
}

/** The open coat: its name and strength, where it is, and what it puts into each channel. */
export function OpenCoat({ coat }: { coat: Coat }) {
  const { id } = coat;
  return (
    <Box sx={{ ...CARD, gap: 0.5 }}>
      <Box sx={{ display: 'flex', gap: 0.75, alignItems: 'center' }}>
        <NameField
          label="Name of the coat"
          name={coat.name}
          onName={(name) => changeCoat(id, (now) => ({ ...now, name }))}
        />
        <Button color="error" sx={{ minWidth: 0 }} onClick={() => removeCoat(id)}>
          Delete
        </Button>
      </Box>
      <Box sx={{ display: 'flex', gap: 0.5 }}>
        <Button sx={pressable(false)} onClick={() => duplicateCoat(id)}>
          Duplicate
        </Button>
        <CopyTo coat={coat} />
      </Box>
      <Alone coat={coat} />
      <GroupRow coat={coat} />
      <NumberDial
        setting={COAT_SETTINGS.strength}
        value={coat.strength}
        onChange={(strength) => changeCoat(id, (now) => ({ ...now, strength }), 'strength')}
      />
      <MaskParts owner={{ kind: 'coat', id }} parts={coat.parts} />
      <Heading>What</Heading>
      {coat.outputs.map((output, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: outputs have no identity but their place
        <OutputCard key={at} id={id} at={at} output={output} />
      ))}
      {coat.outputs.length < COAT_OUTPUTS.most && (
        <AddRow
          words="Put in"
          kinds={titlesOf(VALUE_KINDS)}
          onAdd={(by) =>
            changeCoat(id, (now) => ({
              ...now,
              outputs: [
                ...now.outputs,
                newOutput(by as ValueName, { channel: VALUE_KINDS[by as ValueName].channels[0] }),
              ],
            }))
          }
        />
      )}
    </Box>
  );
}
