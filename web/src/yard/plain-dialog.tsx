import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { SIZES } from '@zesty-tile/core';
import { type FormEvent, useState } from 'react';
import { answerOf, api } from '../api/client.ts';
import { makeTileOf } from '../api/upload.ts';
import { wordsOf } from '../api/words-of.ts';
import { EditDialog } from '../edit-dialog.tsx';
import { ColourField } from '../palettes/colour-field.tsx';
import { usePalettes } from '../palettes/use-palettes.ts';

const FIRST_COLOUR = '#8f8678';
const LARGEST = 4096;

interface PlainDialogProps {
  openProject: string | undefined;
  projectId(): Promise<string>;
  onEnd(tileId: string | null): void;
}

/** A tile that starts from one colour, to be painted. */
export function PlainDialog({ openProject, projectId, onEnd }: PlainDialogProps) {
  const [hex, setHex] = useState(FIRST_COLOUR);
  const [name, setName] = useState('Plain');
  const [edge, setEdge] = useState(1024);
  const [problem, setProblem] = useState('');
  const { data: palettes } = usePalettes(openProject);
  const make = async (event: FormEvent) => {
    event.preventDefault();
    try {
      const { source } = await answerOf(api.sources.plain.$post({ json: { hex, edge } } as never));
      const { sha256, width, height } = source;
      const picture = { sha256, width, height, name: `${hex}.png` };
      const { id } = await makeTileOf(picture, await projectId(), name, {
        source: { origin: 'one colour' },
        square: { size: edge as (typeof SIZES)[number], share: 1 },
        even: { amount: 0 },
        join: { method: 'none' },
      });
      onEnd(id);
    } catch (error) {
      setProblem(wordsOf(error));
    }
  };
  return (
    <EditDialog onClose={() => onEnd(null)} aria-labelledby="plain-title" fullWidth maxWidth="xs">
      <form onSubmit={make}>
        <DialogTitle id="plain-title">Start from one colour</DialogTitle>
        <DialogContent sx={{ display: 'grid', gap: 2 }}>
          <TextField
            label="Name"
            value={name}
            onChange={(event) => setName(event.target.value)}
            sx={{ mt: 1 }}
          />
          <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center' }}>
            <ColourField
              label="Colour"
              hex={hex}
              offered={(palettes ?? []).flatMap((one) => one.colours)}
              onHex={setHex}
            />
            <Typography>{hex}</Typography>
          </Box>
          <TextField
            select
            label="Size"
            value={edge}
            onChange={(event) => setEdge(Number(event.target.value))}
          >
            {SIZES.filter((size) => size <= LARGEST).map((size) => (
              <MenuItem key={size} value={size}>
                {size} px
              </MenuItem>
            ))}
          </TextField>
          {problem && (
            <Typography role="alert" color="error">
              {problem}
            </Typography>
          )}
        </DialogContent>
        <DialogActions>
          <Button onClick={() => onEnd(null)}>Cancel</Button>
          <Button type="submit" variant="contained" disabled={name.trim() === ''}>
            Make the tile
          </Button>
        </DialogActions>
      </form>
    </EditDialog>
  );
}
