import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Tooltip from '@mui/material/Tooltip';
import Typography from '@mui/material/Typography';
import { enqueueSnackbar } from 'notistack';
import { lazy, memo, Suspense, useDeferredValue, useEffect, useState } from 'react';
import { Group, Panel, Separator, useDefaultLayout } from 'react-resizable-panels';
import { Link, useNavigate } from 'react-router';
import { CrateQuestion, useCrating } from '../crates/use-crating.tsx';
import { Head, HelpButton } from '../head.tsx';
import { RecipeDialog, type RecipeTarget } from '../recipes/recipe-dialog.tsx';
import { SetupBar } from '../setup/setup-bar.tsx';
import { STATION_VIEWS } from '../stations/index.ts';
import { FIGURES, GREY } from '../theme.ts';
import { Walk } from '../walk/walk.tsx';
import { Conflict } from './conflict.tsx';
import { Course } from './course/course.tsx';
import { Dials } from './dials/dials.tsx';
import { useBefore } from './floor/before.ts';
import { Floor } from './floor/floor.tsx';
import { endPick } from './floor/use-pick.ts';
import { isUnsaved, saveNow } from './save.ts';
import { SavedWords } from './saved-words.tsx';
import { useShortcuts } from './shortcuts.ts';
import { useBench } from './state.ts';
import { watchPointer } from './steps.ts';
import { useEngine } from './use-engine.ts';
import { goBack, useNextSteps } from './use-steps.ts';
import { Versions } from './versions/versions.tsx';

// Asked for at once, but neither the tile nor its dials wait for it.
const sill = import('./sill/sill.tsx');
const Sill = lazy(async () => ({ default: (await sill).Sill }));

const split = { width: 6, background: GREY.walls, cursor: 'col-resize' };

/** Drawn again only when another step is next, not at every move of a dial. */
const StepButton = memo(function StepButton({
  word,
  step,
  steps,
}: {
  word: string;
  step: string | null;
  steps: number;
}) {
  const words = step ? `${word}: ${step}` : word;
  return (
    <Tooltip title={step ? words : ''}>
      <span>
        <Button disabled={step === null} aria-label={words} onClick={() => goBack(steps)}>
          {word}
        </Button>
      </span>
    </Tooltip>
  );
});

function UndoRedo() {
  // Their words can wait: a dial's picture comes first.
  const next = useNextSteps();
  const undo = useDeferredValue(next.undo);
  const redo = useDeferredValue(next.redo);
  return (
    <>
      <StepButton word="Undo" step={undo} steps={1} />
      <StepButton word="Redo" step={redo} steps={-1} />
    </>
  );
}

/** The workplace of one tile: head, Floor, Sill, Dials, Course. */
export function Bench({
  tile,
  project,
}: {
  tile: { id: string; name: string };
  project: { id: string; name: string };
}) {
  useEngine();
  const crate = useCrating();
  const navigate = useNavigate();
  const station = useBench((s) => s.station);
  const { size, edgeMetres } = useBench((s) => s.recipe.stations.square);
  const layout = useDefaultLayout({ id: 'bench', storage: localStorage });
  const [versions, setVersions] = useState(false);
  const [target, setTarget] = useState<RecipeTarget | null>(null);
  const crateIt = () => {
    // Pressed there it is no step of the way back.
    if (station !== 'crate') navigate(`/tiles/${tile.id}/crate`);
    crate();
  };
  useShortcuts(crateIt);
  useEffect(() => watchPointer(window), []);
  useEffect(() => {
    useBench.getState().set({ chosenView: null });
    useBefore.setState({ held: false });
    endPick(true);
    const { onEnter, onLeave } = STATION_VIEWS[station];
    onEnter?.();
    return onLeave;
  }, [station]);
  useEffect(() => {
    document.title = `${tile.name}, Zesty Tile`;
    const leave = (event: BeforeUnloadEvent) => {
      if (isUnsaved()) event.preventDefault();
    };
    window.addEventListener('beforeunload', leave);
    return () => {
      window.removeEventListener('beforeunload', leave);
      useBefore.setState({ divider: null, held: false, compared: null, picture: null });
      for (const { onClose } of Object.values(STATION_VIEWS)) onClose?.();
      void saveNow();
    };
  }, [tile.name]);
  const openRecipe = () =>
    setTarget({
      tileName: tile.name,
      recipe: useBench.getState().recipe,
      take: async (recipe, name) => {
        useBench.getState().replaceRecipe(recipe, 'A recipe applied');
        enqueueSnackbar(`“${name}” was applied to ${tile.name}.`);
      },
    });
  return (
    <Box sx={{ height: '100%', display: 'flex', flexDirection: 'column' }}>
      <Head>
        <Typography
          component="nav"
          aria-label="Where you are"
          color="text.secondary"
          noWrap
          sx={{ minWidth: 0 }}
        >
          <Link to="/" style={{ color: 'inherit' }}>
            Yard
          </Link>
          {' / '}
          <Link to={`/?project=${project.id}`} style={{ color: 'inherit' }}>
            {project.name}
          </Link>
          {' / '}
          <strong style={{ color: GREY.ink }}>{tile.name}</strong>
        </Typography>
        <Box sx={{ ml: 'auto', display: 'flex', alignItems: 'center', gap: 1, whiteSpace: 'nowrap' }}>
          <span style={{ font: `12.5px ${FIGURES}`, color: GREY.soft, marginRight: 6 }}>
            {size} px · {edgeMetres} m
          </span>
          <SavedWords />
          <UndoRedo />
          <Button aria-pressed={versions} onClick={() => setVersions(!versions)}>
            Versions
          </Button>
          <Button onClick={openRecipe}>Recipe</Button>
          <Button data-crates-it variant="contained" color="secondary" onClick={crateIt}>
            Crate it
          </Button>
          <HelpButton />
        </Box>
      </Head>
      <Box component="main" sx={{ flex: 1, minHeight: 0, position: 'relative' }}>
        <Group orientation="horizontal" id="bench" {...layout}>
          <Panel id="floor" defaultSize="47%" minSize="28%">
            <Floor />
          </Panel>
          <Separator style={split} aria-label="Between Floor and Sill" />
          <Panel id="sill" defaultSize="28%" minSize="16%">
            <Suspense fallback={<Box sx={{ height: '100%', bgcolor: GREY.stage }} />}>
              <Sill />
            </Suspense>
          </Panel>
          <Separator style={split} aria-label="Between Sill and Dials" />
          <Panel id="dials" defaultSize="25%" minSize="300px">
            {versions ? <Versions onClose={() => setVersions(false)} /> : <Dials />}
          </Panel>
        </Group>
      </Box>
      <SetupBar />
      <Course />
      <Conflict />
      <CrateQuestion />
      <Walk tileId={tile.id} onCrate={crateIt} />
      {target && <RecipeDialog target={target} onClose={() => setTarget(null)} />}
    </Box>
  );
}
