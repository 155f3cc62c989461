import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useSnackbar } from 'notistack';
import { useEffect } from 'react';
import { useParams } from 'react-router';
import { ImportJson } from '../api/import-json.tsx';
import { wordsOf } from '../api/words-of.ts';
import { Sheet } from '../head.tsx';
import { useProjects } from '../yard/queries.ts';
import { PaletteCard } from './palette-card.tsx';
import { readPalette } from './palette-file.ts';
import { usePalettes, usePaletteWork } from './use-palettes.ts';

/** The palettes of a project: made, changed, brought in and removed. */
export function PalettesPage() {
  const { id = '' } = useParams();
  const { data: projects } = useProjects();
  const { data: palettes, error } = usePalettes(id);
  const work = usePaletteWork(id);
  const { enqueueSnackbar } = useSnackbar();
  const project = projects?.projects.find((one) => one.id === id);
  useEffect(() => {
    document.title = 'Palettes, Zesty Tile';
  }, []);
  if (error) throw error;
  const tried = (doing: Promise<unknown>) =>
    doing.catch((problem) => enqueueSnackbar(wordsOf(problem), { variant: 'error' }));
  const bringIn = async (given: File) => {
    const { name, colours } = readPalette(await given.text(), given.name.replace(/(\.palette)?\.json$/i, ''));
    await work.make(name, colours);
  };
  const offered = (palettes ?? []).flatMap((palette) => palette.colours);
  return (
    <Sheet title={`Palettes of ${project?.name ?? '…'}`} projectId={id}>
      <Typography color="text.secondary">
        Colours that the surfaces of this project share. The Floor names the nearest one under the pointer,
        and guide pictures add to them.
      </Typography>
      <Box sx={{ display: 'flex', gap: 1 }}>
        <Button
          variant="contained"
          onClick={() => tried(work.make(`Palette ${(palettes?.length ?? 0) + 1}`))}
        >
          New palette
        </Button>
        <ImportJson label="Palette file" onFile={(given) => void tried(bringIn(given))} />
      </Box>
      {palettes?.length === 0 && (
        <Typography>
          None yet. Make one here, bring one in, or pick colours from a guide picture on a Bench.
        </Typography>
      )}
      {palettes?.map((palette) => (
        <PaletteCard
          key={palette.id}
          palette={palette}
          offered={offered}
          onChange={(next) => tried(work.change(next))}
        />
      ))}
    </Sheet>
  );
}
