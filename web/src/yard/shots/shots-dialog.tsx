import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import LinearProgress from '@mui/material/LinearProgress';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { type LightDirection, type LightsFrom, newRecipe, withShots } from '@zesty-tile/core';
import { useEffect, useRef, useState } from 'react';
import { baseName, makeTileOf, storePicture } from '../../api/upload.ts';
import { wordsOf } from '../../api/words-of.ts';
import { EditDialog } from '../../edit-dialog.tsx';
import { ShotCard, ShotCards } from '../../stations/source/shot-card.tsx';
import { useWhereFrom } from '../../stations/source/where-from.tsx';
import { GREY } from '../../theme.ts';
import type { WaitingShots } from '../import-state.ts';

const WAYS: Record<LightsFrom, string> = {
  found: 'Find them from the shots',
  typed: 'Set them on the discs',
  ball: 'Read them from a ball in the photo',
};
const FEW = 4;

/** Addresses of files, for as long as they are shown. */
function useAddresses(files: readonly File[]): string[] {
  const [addresses, setAddresses] = useState<string[]>([]);
  useEffect(() => {
    const made = files.map((file) => URL.createObjectURL(file));
    setAddresses(made);
    return () => {
      for (const address of made) URL.revokeObjectURL(address);
    };
  }, [files]);
  return addresses;
}

/** Makes one tile of all shots; cancelled, nothing is made. */
function useMaking({ files, projectId }: WaitingShots, onTile: (tileId: string) => void) {
  const [done, setDone] = useState<number | null>(null);
  const [failure, setFailure] = useState('');
  const stop = useRef<AbortController | null>(null);
  const make = async (lightsFrom: LightsFrom, lights: readonly (LightDirection | null)[]) => {
    const { signal } = (stop.current = new AbortController());
    setDone(0);
    setFailure('');
    try {
      const pictures = [];
      for (const file of files) pictures.push(await storePicture(file, signal));
      const [first, ...others] = pictures;
      const typed = lightsFrom === 'typed' ? lights : [];
      const { source, even, relief } = withShots(newRecipe(), others, typed).stations;
      const settings = {
        source: { ...source, ...useWhereFrom.getState(), lightsFrom },
        even: { amount: even.amount },
        relief: { heightFrom: relief.heightFrom },
      };
      const setup = { signal, onProgress: setDone };
      const { id } = await makeTileOf(first, await projectId(), baseName(first.name), settings, setup);
      onTile(id);
    } catch (error) {
      if (signal.aborted) return;
      setFailure(wordsOf(error));
      setDone(null);
    }
  };
  return { done, failure, make, cancel: () => stop.current?.abort() };
}

interface ShotsDialogProps {
  waiting: WaitingShots;
  /** The tile that was made of all. */
  onTile(tileId: string): void;
  /** A tile is to be made of each. */
  onEach(): void;
  /** Nothing is to be made. */
  onLeave(): void;
}

/** Asks once whether pictures that were dropped together are shots of one surface in different light. */
export function ShotsDialog({ waiting, onTile, onEach, onLeave }: ShotsDialogProps) {
  const { files } = waiting;
  const addresses = useAddresses(files);
  const [way, setWay] = useState<LightsFrom>(files.length < FEW ? 'typed' : 'found');
  const [lights, setLights] = useState<(LightDirection | null)[]>(() => files.map(() => null));
  const { done, failure, make, cancel } = useMaking(waiting, onTile);
  const missing = way === 'typed' ? lights.filter((one) => one === null).length : 0;
  const leave = () => {
    cancel();
    onLeave();
  };
  return (
    <EditDialog
      onClose={leave}
      isChanged={lights.some(Boolean)}
      maxWidth="md"
      fullWidth
      aria-labelledby="shots-title"
    >
      <DialogTitle id="shots-title">The same surface in different light?</DialogTitle>
      <DialogContent sx={{ display: 'grid', gap: 2 }}>
        <Typography sx={{ color: GREY.soft }}>
          These {files.length} pictures look like one surface. Shot from one place in different light, they
          measure its normals and an albedo without light. The first is the photo that the others are aligned
          to.
        </Typography>
        <TextField
          select
          size="small"
          label="Lights"
          value={way}
          onChange={(event) => setWay(event.target.value as LightsFrom)}
          sx={{ width: 300 }}
        >
          {Object.entries(WAYS).map(([value, words]) => (
            <MenuItem key={value} value={value} disabled={value === 'found' && files.length < FEW}>
              {words}
            </MenuItem>
          ))}
        </TextField>
        <ShotCards>
          {files.map((file, k) => (
            <ShotCard
              key={file.name}
              name={`Shot ${k + 1}`}
              file={file.name}
              url={addresses[k] ?? ''}
              light={way === 'typed' ? lights[k] : null}
              onLight={
                way === 'typed'
                  ? (light) => setLights(lights.map((one, n) => (n === k ? light : one)))
                  : undefined
              }
            />
          ))}
        </ShotCards>
        {way === 'typed' && missing > 0 && (
          <Typography>
            Press each disc where the light stood: its top is the top of the picture, its middle straight
            above. {missing} to go.
          </Typography>
        )}
        {way === 'ball' && (
          <Typography>The ball is marked on the Floor, at Source, once the tile is there.</Typography>
        )}
        {failure && (
          <Alert severity="error" variant="outlined">
            {failure}
          </Alert>
        )}
      </DialogContent>
      <DialogActions>
        {done !== null && (
          <LinearProgress
            variant="determinate"
            value={100 * done}
            aria-label="Setting up"
            sx={{ flex: 1, mx: 2 }}
          />
        )}
        <Button onClick={leave}>Cancel</Button>
        <Button disabled={done !== null} onClick={onEach}>
          No, {files.length} tiles
        </Button>
        <Button
          variant="contained"
          disabled={done !== null || missing > 0}
          onClick={() => void make(way, lights)}
        >
          One tile from all
        </Button>
      </DialogActions>
    </EditDialog>
  );
}
