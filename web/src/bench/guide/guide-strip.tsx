import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { linearOfHex, luminanceOf } from '@zesty-tile/core';
import { useSnackbar } from 'notistack';
import { useRef, useState } from 'react';
import { useDropzone } from 'react-dropzone';
import { wordsOf } from '../../api/words-of.ts';
import { usePalettes, usePaletteWork } from '../../palettes/use-palettes.ts';
import { reflectanceWords } from '../../settings/reflectance.ts';
import { useSettings } from '../../settings/settings.ts';
import { FIGURES, GREY } from '../../theme.ts';
import { useBench } from '../state.ts';
import { GuidePicture } from './guide-picture.tsx';
import { useGuides, useGuideWork } from './use-guides.ts';

const NEW = 'new';

/** The colour picked last, and the way into a palette. */
function Picked({ hex, projectId }: { hex: string; projectId: string }) {
  const { data: palettes } = usePalettes(projectId);
  const work = usePaletteWork(projectId);
  const language = useSettings((s) => s.language);
  const { enqueueSnackbar } = useSnackbar();
  const [chosen, setChosen] = useState('');
  const into = palettes?.find(({ id }) => id === chosen)?.id ?? palettes?.[0]?.id ?? NEW;
  const add = async () => {
    try {
      const palette = palettes?.find(({ id }) => id === into) ?? (await work.make('Picked colours'));
      await work.change({ ...palette, colours: [...palette.colours, { name: '', hex }] });
      enqueueSnackbar(`${hex} is in “${palette.name}” now.`);
    } catch (error) {
      enqueueSnackbar(wordsOf(error), { variant: 'error' });
    }
  };
  return (
    <Box sx={{ display: 'grid', gap: 0.5, bgcolor: GREY.sheet, borderRadius: 1, p: 0.75 }}>
      <Box sx={{ height: 30, borderRadius: 0.5 }} style={{ background: hex }} />
      <span data-testid="picked" style={{ font: `11.5px ${FIGURES}` }}>
        {hex}
        <br />
        {reflectanceWords(luminanceOf(...linearOfHex(hex)), language)}
      </span>
      <Select
        size="small"
        value={into}
        inputProps={{ 'aria-label': 'Palette for the picked colour' }}
        onChange={(event) => setChosen(event.target.value)}
        sx={{ fontSize: 12, bgcolor: GREY.card, minWidth: 0, '& .MuiSelect-select': { py: 0.3 } }}
      >
        {palettes?.map(({ id, name }) => (
          <MenuItem key={id} value={id}>
            {name}
          </MenuItem>
        ))}
        {palettes?.length === 0 && <MenuItem value={NEW}>New palette</MenuItem>}
      </Select>
      <Button onClick={add} sx={{ py: 0.1 }}>
        Add
      </Button>
    </Box>
  );
}

/** Guide pictures beside the Floor: looked at, picked from, never part of the result. */
export function GuideStrip() {
  const tileId = useBench((s) => s.tileId);
  const projectId = useBench((s) => s.projectId);
  const { data: guides } = useGuides(tileId);
  const work = useGuideWork(tileId);
  const { enqueueSnackbar } = useSnackbar();
  const [hex, setHex] = useState('');
  const file = useRef<HTMLInputElement>(null);
  const tried = (doing: Promise<unknown>) =>
    doing.catch((error) => enqueueSnackbar(wordsOf(error), { variant: 'error' }));
  const { getRootProps, isDragActive } = useDropzone({
    onDrop: (files) => void tried(work.pin(files)),
    noClick: true,
    noKeyboard: true,
  });
  return (
    <Box
      {...getRootProps()}
      component="aside"
      aria-label="Guide pictures"
      sx={{
        width: 148,
        flex: 'none',
        overflowY: 'auto',
        display: 'flex',
        flexDirection: 'column',
        gap: 0.75,
        outline: isDragActive ? `2px dashed ${GREY.ink}` : 'none',
      }}
    >
      {guides?.map(({ id, name, sourceSha256 }) => (
        <GuidePicture
          key={id}
          name={name}
          sha256={sourceSha256}
          onPick={setHex}
          onUnpin={() => tried(work.unpin(id))}
        />
      ))}
      {hex && <Picked hex={hex} projectId={projectId} />}
      <Box sx={{ bgcolor: GREY.sheet, borderRadius: 1, p: 0.75, fontSize: 12, display: 'grid', gap: 0.5 }}>
        {guides?.length === 0 && <span>A photo or a concept to aim at. Press on it to pick colours.</span>}
        <Button onClick={() => file.current?.click()} sx={{ py: 0.1 }}>
          Pin a picture
        </Button>
        <input
          ref={file}
          type="file"
          multiple
          hidden
          aria-label="Guide picture"
          accept="image/png,image/jpeg,image/webp,image/tiff"
          onChange={(event) => {
            void tried(work.pin([...(event.target.files ?? [])]));
            event.target.value = '';
          }}
        />
      </Box>
    </Box>
  );
}
