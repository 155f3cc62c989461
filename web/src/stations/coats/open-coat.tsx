import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import {
  COAT_OUTPUTS,
  COAT_PARTS,
  COAT_SETTINGS,
  type Coat,
  PART_KINDS,
  type PartName,
  VALUE_KINDS,
  type ValueName,
} from '@zesty-tile/core';
import { useEffect, useState } from 'react';
import { NumberDial } from '../../bench/dials/number-dial.tsx';
import { pressable } from '../../bench/pressed.ts';
import { CARD, GREY } from '../../theme.ts';
import { OutputCard } from './output-card.tsx';
import { PartCard } from './part-card.tsx';
import { changeCoat, duplicateCoat, outputOf, partOf, removeCoat } from './use-coats.ts';

function CoatName({ coat }: { coat: Coat }) {
  const [name, setName] = useState(coat.name);
  useEffect(() => setName(coat.name), [coat.name]);
  return (
    <TextField
      value={name}
      onChange={(event) => setName(event.target.value)}
      onBlur={() => {
        const next = name.trim().slice(0, 60);
        if (next && next !== coat.name) changeCoat(coat.id, (now) => ({ ...now, name: next }));
        else setName(coat.name);
      }}
      onKeyDown={(event) => event.key === 'Enter' && (event.target as HTMLElement).blur()}
      slotProps={{ htmlInput: { 'aria-label': 'Name of the coat' } }}
      sx={{ flex: 1, minWidth: 0, '& input': { py: 0.5 } }}
    />
  );
}

interface AddRowProps {
  words: string;
  kinds: readonly [name: string, title: string][];
  onAdd(name: string): void;
}

/** One more part or output, by its kind. */
const AddRow = ({ words, kinds, onAdd }: AddRowProps) => (
  <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5, alignItems: 'center' }}>
    <span style={{ color: GREY.soft }}>{words}</span>
    {kinds.map(([name, title]) => (
      <Button key={name} sx={pressable(false)} onClick={() => onAdd(name)}>
        {title}
      </Button>
    ))}
  </Box>
);

const titles = (kinds: Record<string, { title: string }>): [string, string][] =>
  Object.entries(kinds).map(([name, { title }]) => [name, title]);

const Heading = ({ children }: { children: string }) => (
  <h3 style={{ font: 'inherit', fontWeight: 700, margin: '6px 0 0' }}>{children}</h3>
);

/** The open coat: its name and strength, where it is, and what it puts into each channel. */
export function OpenCoat({ coat }: { coat: Coat }) {
  const { id } = coat;
  return (
    <Box sx={{ ...CARD, gap: 0.5 }}>
      <Box sx={{ display: 'flex', gap: 0.75, alignItems: 'center' }}>
        <CoatName coat={coat} />
        <Button sx={pressable(false)} onClick={() => duplicateCoat(id)}>
          Duplicate
        </Button>
        <Button color="error" sx={{ minWidth: 0 }} onClick={() => removeCoat(id)}>
          Delete
        </Button>
      </Box>
      <NumberDial
        setting={COAT_SETTINGS.strength}
        value={coat.strength}
        onChange={(strength) => changeCoat(id, (now) => ({ ...now, strength }), 'strength')}
      />
      <Heading>Where</Heading>
      {coat.parts.length === 0 && <span style={{ color: GREY.soft }}>Everywhere on the tile.</span>}
      {coat.parts.map((part, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: parts have no identity but their place
        <PartCard key={at} id={id} at={at} part={part} />
      ))}
      {coat.parts.length < COAT_PARTS.most && (
        <AddRow
          words={coat.parts.length === 0 ? 'Only' : 'Also'}
          kinds={titles(PART_KINDS).filter(([name]) => name !== 'whole')}
          onAdd={(by) => changeCoat(id, (now) => ({ ...now, parts: [...now.parts, partOf(by as PartName)] }))}
        />
      )}
      <Heading>What</Heading>
      {coat.outputs.map((output, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: outputs have no identity but their place
        <OutputCard key={at} id={id} at={at} output={output} />
      ))}
      {coat.outputs.length < COAT_OUTPUTS.most && (
        <AddRow
          words="Put in"
          kinds={titles(VALUE_KINDS)}
          onAdd={(by) =>
            changeCoat(id, (now) => ({ ...now, outputs: [...now.outputs, outputOf(by as ValueName)] }))
          }
        />
      )}
    </Box>
  );
}
