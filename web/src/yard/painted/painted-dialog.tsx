import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { type Coat, type CoatGroup, SIZES, sectionsOf } from '@zesty-tile/core';
import { type FormEvent, useRef, useState } from 'react';
import { answerOf, api } from '../../api/client.ts';
import { makeTileOf } from '../../api/upload.ts';
import { wordsOf } from '../../api/words-of.ts';
import { Choices } from '../../bench/choices.tsx';
import { EditDialog } from '../../edit-dialog.tsx';
import { ColourField } from '../../palettes/colour-field.tsx';
import { usePalettes } from '../../palettes/use-palettes.ts';
import { useRecipes } from '../../recipes/use-recipes.ts';
import { useSettings } from '../../settings/settings.ts';
import { PatternFields } from './pattern-fields.tsx';
import { type BakedMaps, bakedCoats, firstPattern, patternCoats, takeMaps } from './start.ts';

const FIRST_COLOUR = '#8f8678';
const FIRST_JOINT = '#6b6459';
const LARGEST = 4096;
/** How far the faces of a pattern stand above its joints, by the width of these. */
const PER_JOINT = 0.4;

type Way = 'nothing' | 'pattern' | 'maps' | 'saved';

interface PaintedDialogProps {
  openProject: string | undefined;
  projectId(): Promise<string>;
  onEnd(tileId: string | null): void;
}

/** Maps that were baked elsewhere, taken from files. */
function MapsField({ maps, onMaps }: { maps: BakedMaps | null; onMaps(maps: BakedMaps): void }) {
  const input = useRef<HTMLInputElement>(null);
  const [state, setState] = useState('');
  const take = async (files: File[]) => {
    setState('Being read …');
    try {
      onMaps(await takeMaps(files));
      setState('');
    } catch (error) {
      setState(wordsOf(error));
    }
  };
  return (
    <Box sx={{ display: 'grid', gap: 1, justifyItems: 'start' }}>
      <Typography>
        Occlusion, cavity, normal or height maps, known by their names. Coats colour the tile by them.
      </Typography>
      <Button onClick={() => input.current?.click()}>Choose maps …</Button>
      <input
        ref={input}
        type="file"
        hidden
        multiple
        accept="image/*,.tif,.tiff,.exr"
        aria-label="Baked maps"
        onChange={(event) => void take([...(event.target.files ?? [])])}
      />
      {maps && <span>{maps.files.join(', ')}</span>}
      {state && <span role="status">{state}</span>}
    </Box>
  );
}

/** What a painted tile starts with, beside its colour. */
function useStart(face: string) {
  const { data } = useRecipes();
  const [way, setWay] = useState<Way>('nothing');
  const [pattern, setPattern] = useState(firstPattern);
  const [joint, setJoint] = useState(FIRST_JOINT);
  const [maps, setMaps] = useState<BakedMaps | null>(null);
  const [savedId, setSavedId] = useState('');
  const saved = (data ?? []).filter(({ recipe }) => sectionsOf(recipe).includes('coats'));
  const coats = (): { stack: Coat[]; groups: CoatGroup[] } => {
    if (way === 'pattern') {
      return { stack: patternCoats(pattern, face, PER_JOINT * pattern.jointMm), groups: [] };
    }
    if (way === 'maps' && maps) return { stack: bakedCoats(maps.given, face), groups: [] };
    const found = way === 'saved' && saved.find(({ id }) => id === savedId)?.recipe.stations.coats;
    return (found || { stack: [], groups: [] }) as never;
  };
  return {
    way,
    setWay,
    pattern,
    setPattern,
    joint,
    setJoint,
    maps,
    setMaps,
    savedId,
    setSavedId,
    saved,
    coats,
  };
}

/** The part of the dialog that belongs to the way a painted tile starts. */
function WayFields({
  start,
  face,
  offered,
}: {
  start: ReturnType<typeof useStart>;
  face: string;
  offered: Parameters<typeof ColourField>[0]['offered'];
}) {
  const edgeMetres = useSettings((s) => s.edgeMetres);
  switch (start.way) {
    case 'pattern':
      return (
        <>
          <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center' }}>
            <ColourField
              label="Colour of the joints"
              hex={start.joint}
              offered={offered}
              onHex={start.setJoint}
            />
            <Typography>Joints, {start.joint}</Typography>
          </Box>
          <PatternFields
            pattern={start.pattern}
            face={face}
            joint={start.joint}
            edgeMetres={edgeMetres}
            onPattern={start.setPattern}
          />
        </>
      );
    case 'maps':
      return <MapsField maps={start.maps} onMaps={start.setMaps} />;
    case 'saved':
      return start.saved.length === 0 ? (
        <Typography>No coats have been saved yet: save those of a tile at its station Coats.</Typography>
      ) : (
        <TextField
          select
          label="Saved coats"
          value={start.savedId}
          onChange={(event) => start.setSavedId(event.target.value)}
        >
          {start.saved.map(({ id, name }) => (
            <MenuItem key={id} value={id}>
              {name}
            </MenuItem>
          ))}
        </TextField>
      );
    default:
      return null;
  }
}

/** A tile that starts without a photo: from one colour, and a pattern, baked maps or saved coats over it. */
export function PaintedDialog({ openProject, projectId, onEnd }: PaintedDialogProps) {
  const [hex, setHex] = useState(FIRST_COLOUR);
  const [name, setName] = useState('Plain');
  const [size, setSize] = useState(1024);
  const [problem, setProblem] = useState('');
  const { data: palettes } = usePalettes(openProject);
  const start = useStart(hex);
  const { way, maps } = start;
  const offered = (palettes ?? []).flatMap((one) => one.colours);
  const make = async (event: FormEvent) => {
    event.preventDefault();
    try {
      const given = way === 'maps' && maps ? maps : null;
      // Under a pattern there are its joints.
      const ground = way === 'pattern' ? start.joint : hex;
      const edge = given?.width ?? size;
      const { source } = await answerOf(api.sources.plain.$post({ json: { hex: ground, edge } } as never));
      const { sha256, width, height } = source;
      const picture = { sha256, width, height, name: `${ground}.png` };
      const { id } = await makeTileOf(picture, await projectId(), name, {
        source: { origin: 'one colour', ...(given && { given: given.given }) },
        square: { size: size as (typeof SIZES)[number], share: 1 },
        even: { amount: 0 },
        join: { method: 'none' },
        coats: start.coats(),
      });
      onEnd(id);
    } catch (error) {
      setProblem(wordsOf(error));
    }
  };
  const isIncomplete = (way === 'maps' && !maps) || (way === 'saved' && !start.savedId);
  return (
    <EditDialog
      onClose={() => onEnd(null)}
      aria-labelledby="plain-title"
      fullWidth
      maxWidth={way === 'pattern' ? 'sm' : 'xs'}
    >
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
            <ColourField label="Colour" hex={hex} offered={offered} onHex={setHex} />
            <Typography>{way === 'pattern' ? `Faces, ${hex}` : hex}</Typography>
          </Box>
          <div>
            <Choices<Way>
              label="Over it"
              value={way}
              options={[
                { value: 'nothing', words: 'Nothing yet' },
                { value: 'pattern', words: 'Pattern' },
                { value: 'maps', words: 'Baked maps' },
                { value: 'saved', words: 'Saved coats' },
              ]}
              onChange={(next: Way) => start.setWay(next)}
            />
          </div>
          <WayFields start={start} face={hex} offered={offered} />
          <TextField
            select
            label="Size"
            value={size}
            onChange={(event) => setSize(Number(event.target.value))}
          >
            {SIZES.filter((one) => one <= LARGEST).map((one) => (
              <MenuItem key={one} value={one}>
                {one} px
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
          <Button type="submit" variant="contained" disabled={name.trim() === '' || isIncomplete}>
            Make the tile
          </Button>
        </DialogActions>
      </form>
    </EditDialog>
  );
}
