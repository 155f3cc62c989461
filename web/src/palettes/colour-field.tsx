import Box from '@mui/material/Box';
import Popover from '@mui/material/Popover';
import TextField from '@mui/material/TextField';
import { useEffect, useState } from 'react';
import { HexColorPicker } from 'react-colorful';
import { FIGURES, GREY } from '../theme.ts';
import type { PaletteColour } from './use-palettes.ts';

interface ColourFieldProps {
  label: string;
  hex: string;
  /** Colours offered beside the free choice. */
  offered: PaletteColour[];
  onHex(hex: string): void;
}

const isHex = (text: string) => /^#[0-9a-f]{6}$/i.test(text);

/** A colour: chosen freely, written as #rrggbb, or taken from the project's palettes. */
export function ColourField({ label, hex, offered, onHex }: ColourFieldProps) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [draft, setDraft] = useState(hex);
  useEffect(() => setDraft(hex), [hex]);
  const close = () => {
    setAnchor(null);
    if (isHex(draft) && draft.toLowerCase() !== hex) onHex(draft.toLowerCase());
  };
  return (
    <>
      <Box
        component="button"
        type="button"
        aria-label={`${label}, ${hex}`}
        aria-haspopup="dialog"
        onClick={(event: React.MouseEvent<HTMLElement>) => setAnchor(event.currentTarget)}
        sx={{
          width: 40,
          height: 28,
          border: `1px solid ${GREY.soft}`,
          borderRadius: 0.75,
          cursor: 'pointer',
          flex: 'none',
        }}
        style={{ background: hex }}
      />
      <Popover open={anchor !== null} anchorEl={anchor} onClose={close}>
        <Box role="dialog" aria-label={label} sx={{ p: 1.5, display: 'grid', gap: 1.25, width: 232 }}>
          <HexColorPicker color={isHex(draft) ? draft : hex} onChange={setDraft} style={{ width: '100%' }} />
          <TextField
            value={draft}
            error={!isHex(draft)}
            helperText={isHex(draft) ? '' : 'Written as #rrggbb'}
            onChange={(event) => setDraft(event.target.value)}
            onKeyDown={(event) => {
              if (event.key !== 'Enter') return;
              // The focus goes back to the button, which would be pressed by the same key.
              event.preventDefault();
              close();
            }}
            slotProps={{ htmlInput: { 'aria-label': `${label} as sRGB`, style: { fontFamily: FIGURES } } }}
          />
          {offered.length > 0 && (
            <Box
              role="group"
              aria-label="From the palettes"
              sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5 }}
            >
              {offered.map(({ name, hex: own }) => (
                <Box
                  key={`${name} ${own}`}
                  component="button"
                  type="button"
                  title={name || own}
                  aria-label={name || own}
                  onClick={() => setDraft(own)}
                  sx={{
                    width: 24,
                    height: 24,
                    border: `1px solid ${GREY.soft}`,
                    borderRadius: 0.5,
                    cursor: 'pointer',
                  }}
                  style={{ background: own }}
                />
              ))}
            </Box>
          )}
        </Box>
      </Popover>
    </>
  );
}
