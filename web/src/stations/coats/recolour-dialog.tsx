import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import FormControlLabel from '@mui/material/FormControlLabel';
import { type Coat, coloursOfCoat, linearOfHex, recoloured } from '@zesty-tile/core';
import { useState } from 'react';
import { useBench } from '../../bench/state.ts';
import { EditDialog } from '../../edit-dialog.tsx';
import { ColourField } from '../../palettes/colour-field.tsx';
import { nearestColour } from '../../palettes/nearest.ts';
import { type PaletteColour, usePalettes } from '../../palettes/use-palettes.ts';
import { FIGURES, GREY } from '../../theme.ts';
import { putCoats, useCoats } from './use-coats.ts';

const START = '#7a8c4a';

const Swatch = ({ hex }: { hex: string }) => (
  <span
    title={hex}
    style={{ width: 22, height: 22, borderRadius: 3, border: `1px solid ${GREY.soft}`, background: hex }}
  />
);

/** How far the colours of a coat are from the nearest of the palettes, at most, in OKLab. */
function farthestFrom(palette: readonly PaletteColour[], colours: readonly string[]): string {
  if (palette.length === 0) return '';
  const found = colours.map((hex) => nearestColour(linearOfHex(hex), palette)!);
  const far = found.reduce((a, b) => (b.distance > a.distance ? b : a));
  return `${far.distance.toFixed(3)} from ${far.colour.name || far.colour.hex}`;
}

/** One coat: whether it is recoloured, and its colours before and after. */
function CoatLine({
  coat,
  like,
  isChosen,
  palette,
  onChoose,
}: {
  coat: Coat;
  like: string;
  isChosen: boolean;
  palette: readonly PaletteColour[];
  onChoose(on: boolean): void;
}) {
  const before = coloursOfCoat(coat);
  const after = isChosen ? coloursOfCoat(recoloured(coat, like)) : before;
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, flexWrap: 'wrap' }}>
      <FormControlLabel
        sx={{ flex: 1, minWidth: 160 }}
        label={coat.name}
        control={<Checkbox checked={isChosen} onChange={(_event, on) => onChoose(on)} />}
      />
      <Box sx={{ display: 'flex', gap: 0.25 }} data-colours={after.join(' ')}>
        {after.map((hex, k) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: colours have no identity but their place
          <Swatch key={k} hex={hex} />
        ))}
      </Box>
      <span style={{ font: `12px ${FIGURES}`, color: GREY.soft, minWidth: 130 }}>
        {farthestFrom(palette, after)}
      </span>
    </Box>
  );
}

/** Gives the colours of several coats one hue and chroma; each keeps its lightness. */
export function RecolourDialog({ onClose }: { onClose(): void }) {
  const stack = useBench((s) => s.recipe.stations.coats.stack);
  const projectId = useBench((s) => s.projectId);
  const palette = usePalettes(projectId).data?.flatMap(({ colours }) => colours) ?? [];
  const coats = stack.filter((coat) => coloursOfCoat(coat).length > 0).reverse();
  const [like, setLike] = useState(START);
  const open = useCoats((s) => s.open);
  // The open coat to begin with: all at once is seldom meant.
  const [chosen, setChosen] = useState<readonly string[]>(() =>
    coats.flatMap(({ id }) => (id === open ? [id] : [])),
  );
  const apply = () => {
    const next = stack.map((coat) => (chosen.includes(coat.id) ? recoloured(coat, like) : coat));
    putCoats(next, chosen.length === 1 ? '1 coat recoloured' : `${chosen.length} coats recoloured`);
    onClose();
  };
  return (
    <EditDialog onClose={onClose} aria-labelledby="recolour-title" fullWidth maxWidth="sm">
      <DialogTitle id="recolour-title">Recolour coats</DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 1 }}>
        <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
          <ColourField label="Hue and chroma of" hex={like} offered={palette} onHex={setLike} />
          <span>Every colour takes the hue and chroma of this one and keeps its own lightness.</span>
        </Box>
        {coats.map((coat) => (
          <CoatLine
            key={coat.id}
            coat={coat}
            like={like}
            isChosen={chosen.includes(coat.id)}
            palette={palette}
            onChoose={(on) =>
              setChosen(on ? [...chosen, coat.id] : chosen.filter((other) => other !== coat.id))
            }
          />
        ))}
        {palette.length > 0 && (
          <span style={{ color: GREY.soft }}>
            Beside each: how far its farthest colour is from the nearest of the palettes, in OKLab.
          </span>
        )}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
        <Button variant="contained" disabled={chosen.length === 0} onClick={apply}>
          Recolour
        </Button>
      </DialogActions>
    </EditDialog>
  );
}
