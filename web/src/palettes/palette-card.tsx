import Close from '@mui/icons-material/Close';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import TextField from '@mui/material/TextField';
import { useEffect, useState } from 'react';
import { api } from '../api/client.ts';
import { useRemoval } from '../api/use-undoable.tsx';
import { CARD, GREY } from '../theme.ts';
import { ColourField } from './colour-field.tsx';
import { paletteText } from './palette-file.ts';
import type { Palette, PaletteColour } from './use-palettes.ts';

const FIRST_COLOUR: PaletteColour = { name: '', hex: '#8a8a8a' };

/** A text that is taken when one leaves it, not at every letter. */
function Text({ label, value, onTake }: { label: string; value: string; onTake(value: string): void }) {
  const [text, setText] = useState(value);
  useEffect(() => setText(value), [value]);
  return (
    <TextField
      value={text}
      onChange={(event) => setText(event.target.value)}
      onBlur={() => text !== value && onTake(text)}
      onKeyDown={(event) => event.key === 'Enter' && (event.target as HTMLElement).blur()}
      slotProps={{ htmlInput: { 'aria-label': label } }}
      sx={{ flex: 1, minWidth: 0, '& input': { py: 0.6 } }}
    />
  );
}

interface PaletteCardProps {
  palette: Palette;
  offered: PaletteColour[];
  onChange(palette: Palette): void;
}

/** One palette: its colours with their names; saved as a JSON file. */
export function PaletteCard({ palette, offered, onChange }: PaletteCardProps) {
  const remove = useRemoval();
  const { colours } = palette;
  const put = (k: number, values: Partial<PaletteColour>) =>
    onChange({ ...palette, colours: colours.map((one, at) => (at === k ? { ...one, ...values } : one)) });
  return (
    <Box component="section" aria-label={palette.name} sx={CARD}>
      <Box sx={{ display: 'flex', gap: 1, alignItems: 'center' }}>
        <Text
          label="Name of the palette"
          value={palette.name}
          onTake={(name) => name.trim() && onChange({ ...palette, name })}
        />
        <Button onClick={() => onChange({ ...palette, colours: [...colours, FIRST_COLOUR] })}>
          Add a colour
        </Button>
        <Button
          component="a"
          download={`${palette.name}.palette.json`}
          href={`data:application/json;charset=utf-8,${encodeURIComponent(paletteText(palette))}`}
        >
          Export
        </Button>
        <Button color="error" onClick={() => remove(api.palettes, palette.id, palette.name)}>
          Delete
        </Button>
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr 1fr', gap: 1 }}>
        {colours.map((colour, k) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: colours have no identity but their place
          <Box key={k} sx={{ display: 'flex', gap: 0.75, alignItems: 'center', minWidth: 0 }}>
            <ColourField
              label={colour.name || `Colour ${k + 1}`}
              hex={colour.hex}
              offered={offered}
              onHex={(hex) => put(k, { hex })}
            />
            <Text label={`Name of colour ${k + 1}`} value={colour.name} onTake={(name) => put(k, { name })} />
            <IconButton
              size="small"
              aria-label={`Take ${colour.name || `colour ${k + 1}`} out`}
              onClick={() => onChange({ ...palette, colours: colours.filter((_one, at) => at !== k) })}
            >
              <Close fontSize="small" />
            </IconButton>
          </Box>
        ))}
      </Box>
      {colours.length === 0 && <span style={{ color: GREY.soft }}>No colours yet.</span>}
    </Box>
  );
}
