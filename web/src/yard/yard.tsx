import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useDropzone } from 'react-dropzone';
import { useNavigate, useSearchParams } from 'react-router';
import { answerOf, api } from '../api/client.ts';
import { Head, Ways } from '../head.tsx';
import { later } from '../later.tsx';
import { GREY } from '../theme.ts';
import { chooseTiles, EVERYTHING, tagsOf } from './choose-tiles.ts';
import { DropPlace } from './drop-place.tsx';
import { FirstNote } from './first-note.tsx';
import { useImport } from './import-state.ts';
import { endSet, importFiles } from './importing.ts';
import { useRemembered } from './last-project.ts';
import { ProjectSheet } from './project-sheet.tsx';
import { ProjectTabs } from './project-tabs.tsx';
import { useProjects, useTiles, type YardTile } from './queries.ts';
import { useSelectionBox } from './selection/selection-box.tsx';
import { useSelection } from './selection/use-selection.ts';
import { SHEET_WIDTH } from './side-sheet.tsx';
import { TileGrid } from './tile-grid.tsx';
import { usePasted } from './use-pasted.ts';
import { Wishes } from './wishes.tsx';

const FIRST_PROJECT = 'First surfaces';

// Nothing of these is seen at first, and they know all of a recipe.
const SelectionSheet = later(
  async () => (await import('./selection/selection-sheet.tsx')).SelectionSheet,
  <Box sx={{ width: SHEET_WIDTH, flex: 'none' }} />,
);
const TileSheet = later(
  async () => (await import('./tile-sheet.tsx')).TileSheet,
  <Box sx={{ width: SHEET_WIDTH, flex: 'none' }} />,
);
const ShotsDialog = later(async () => (await import('./shots/shots-dialog.tsx')).ShotsDialog);
const SetDialog = later(async () => (await import('./sets/set-dialog.tsx')).SetDialog);
const PaintedDialog = later(async () => (await import('./painted/painted-dialog.tsx')).PaintedDialog);

const unseen = { position: 'absolute', width: 1, height: 1, overflow: 'hidden', clipPath: 'inset(50%)' };

/** Gives the project that is open, or makes a first one. */
function useProjectId(open: string | undefined) {
  const queries = useQueryClient();
  return async () => {
    if (open) return open;
    const { project } = await answerOf(api.projects.$post({ json: { name: FIRST_PROJECT } } as never));
    await queries.invalidateQueries({ queryKey: ['projects'] });
    return project.id;
  };
}

/** Takes files into the Yard; a picture alone opens at once, unless another page was opened meanwhile. */
function useTaken(projectId: () => Promise<string>, onAlone: (tileId: string) => void) {
  const queries = useQueryClient();
  const refresh = () => {
    void queries.invalidateQueries({ queryKey: ['tiles'] });
    void queries.invalidateQueries({ queryKey: ['projects'] });
  };
  const isShown = useRef(true);
  useEffect(() => {
    isShown.current = true;
    return () => {
      isShown.current = false;
    };
  }, []);
  const take = async (files: File[]) => {
    let asked: Promise<string> | null = null;
    const once = () => {
      asked ??= projectId();
      return asked;
    };
    const alone = await importFiles(files, once, refresh);
    if (alone && isShown.current) onAlone(alone);
  };
  return { take, refresh };
}

/** Asks about the first set of maps that waits for an answer. */
function FirstSet({ onDone, onTile }: { onDone(): void; onTile(tileId: string): void }) {
  const { sets, answered } = useImport();
  const [set] = sets;
  if (!set) return null;
  return (
    <SetDialog
      key={set.set.files.map(({ file }) => file.name).join()}
      waiting={set}
      place={{ at: answered + 1, of: answered + sets.length }}
      onEnd={(tileId) => {
        const isLast = useImport.getState().sets.length === 1;
        endSet();
        if (!tileId) return;
        onDone();
        if (isLast && !useImport.getState().at) onTile(tileId);
      }}
    />
  );
}

/** Asks whether pictures that look alike are shots of one surface. */
function Shots({ onDone, onTile }: { onDone(): void; onTile(tileId: string): void }) {
  const shots = useImport((state) => state.shots);
  if (!shots) return null;
  const leave = () => useImport.setState({ shots: null });
  return (
    <ShotsDialog
      waiting={shots}
      onLeave={leave}
      onEach={() => void import('./importing.ts').then(({ importEach }) => importEach(onDone))}
      onTile={(tileId) => {
        leave();
        onDone();
        onTile(tileId);
      }}
    />
  );
}

interface NotesProps {
  error: Error | null;
  isEmpty: boolean;
  /** Tiles of the project, when the search hides all of them; else 0. */
  hidden: number;
  project: string | undefined;
  /** A tile that one can be walked over. */
  firstTile: string | undefined;
  onShowAll(): void;
}

/** What is said above the tiles: the first note, a fault, an empty Yard, a search that finds nothing. */
function Notes({ error, isEmpty, hidden, project, firstTile, onShowAll }: NotesProps) {
  return (
    <>
      <FirstNote tileId={firstTile} />
      {error && (
        <Alert severity="error" variant="outlined" sx={{ mb: 2, bgcolor: GREY.card }}>
          {error.message} See that the server runs, then load this page again.
        </Alert>
      )}
      {isEmpty && (
        <Typography sx={{ mb: 2, color: GREY.soft }}>
          The Yard is empty. Drop a photo of a surface, or start the program with “npm run demo” to see the
          Limonaia tiles.
        </Typography>
      )}
      {hidden > 0 && (
        <Box sx={{ mb: 2, display: 'flex', gap: 1.5, alignItems: 'center' }}>
          No tile in {project} matches.
          <Button onClick={onShowAll}>Show all</Button>
        </Box>
      )}
    </>
  );
}

interface BesideProps {
  selection: ReturnType<typeof useSelection>;
  chosen: YardTile | null;
  open: { id: string; name: string };
  projects: { id: string; name: string }[];
  tiles: YardTile[];
  shown: YardTile[];
  knownTags: string[];
  onOpen(id: string): void;
  onClose(): void;
}

/** What is next to the tiles: about those selected together, about the chosen one, or about the project. */
function Beside({
  selection,
  chosen,
  open,
  projects,
  tiles,
  shown,
  knownTags,
  onOpen,
  onClose,
}: BesideProps) {
  if (selection.tiles.length > 0) {
    return <SelectionSheet tiles={selection.tiles} projects={projects} onClose={selection.clear} />;
  }
  if (chosen) {
    return (
      <TileSheet
        key={chosen.id}
        tile={chosen}
        projects={projects}
        knownTags={knownTags}
        onOpen={() => onOpen(chosen.id)}
        onClose={onClose}
      />
    );
  }
  return tiles.length > 0 ? (
    <ProjectSheet projectId={open.id} name={open.name} tiles={tiles} shown={shown} />
  ) : null;
}

function useTitle(): void {
  useEffect(() => {
    document.title = 'Yard, Zesty Tile';
  }, []);
}

/** All projects, and the one that is asked for, or else the first; it is opened again the next time. */
function useOpenProject(wanted: string | null) {
  const { data, error } = useProjects();
  const { projects = [] } = data ?? {};
  const open = projects.find(({ id }) => id === wanted) ?? projects[0];
  useRemembered(open?.id);
  return { data, error, projects, open };
}

/** The library: every tile, grouped by project. */
export function Yard() {
  const navigate = useNavigate();
  const [search, setSearch] = useSearchParams();
  const [wish, setWish] = useState(EVERYTHING);
  const [scroller, setScroller] = useState<HTMLDivElement | null>(null);
  const { data, error, projects, open } = useOpenProject(search.get('project'));
  const { data: tiles } = useTiles(open?.id);
  const shown = useMemo(() => chooseTiles(tiles ?? [], wish), [tiles, wish]);
  const chosen = tiles?.find(({ id }) => id === search.get('tile')) ?? null;
  useTitle();
  const projectId = useProjectId(open?.id);
  const go = (tileId: string) => navigate(`/tiles/${tileId}/source`);
  const selection = useSelection(shown, chosen?.id ?? null);
  const choose = (tile: string | null) => {
    selection.clear();
    setSearch({ ...(open && { project: open.id }), ...(tile && { tile }) }, { replace: true });
  };
  const drawn = useSelectionBox(selection.box);
  const { take, refresh } = useTaken(projectId, go);
  const [plain, setPlain] = useState(false);
  const { getRootProps, isDragActive } = useDropzone({ onDrop: take, noClick: true, noKeyboard: true });
  usePasted(take);
  const place = (
    <DropPlace over={isDragActive} onFiles={take} onKept={refresh} onPlain={() => setPlain(true)} />
  );
  return (
    <Box sx={{ height: '100%', display: 'flex', flexDirection: 'column' }}>
      <Head>
        <Ways projectId={open?.id} />
      </Head>
      <Box component="main" sx={{ flex: 1, minHeight: 0, display: 'flex', flexDirection: 'column' }}>
        <Typography variant="h1" sx={unseen}>
          Yard
        </Typography>
        {open && (
          <Box
            sx={{ display: 'flex', justifyContent: 'space-between', gap: 2, px: 2, py: 0.5, flex: 'none' }}
          >
            <ProjectTabs
              projects={projects}
              open={open}
              onOpen={(id) => {
                setWish(EVERYTHING);
                setSearch({ project: id });
              }}
            />
            <Wishes wish={wish} tags={tagsOf(tiles ?? [])} onWish={setWish} />
          </Box>
        )}
        <Box sx={{ flex: 1, minHeight: 0, display: 'flex' }}>
          <Box {...getRootProps()} sx={{ flex: 1, minWidth: 0 }}>
            <Box
              ref={setScroller}
              data-testid="tiles"
              {...drawn.handlers}
              sx={{ height: '100%', overflowY: 'auto', px: 2, pt: open ? 0.5 : 2, pb: 3 }}
            >
              <Notes
                error={error}
                isEmpty={data !== undefined && projects.length === 0}
                hidden={shown.length === 0 ? (tiles?.length ?? 0) : 0}
                project={open?.name}
                firstTile={tiles?.[0]?.id}
                onShowAll={() => setWish(EVERYTHING)}
              />
              {(data || error) && (
                <TileGrid
                  scroller={scroller}
                  first={place}
                  tiles={shown}
                  chosen={chosen?.id ?? null}
                  selected={selection.ids}
                  onSelect={selection.select}
                  onChoose={choose}
                  onOpen={go}
                />
              )}
            </Box>
          </Box>
          {open && (
            <Beside
              selection={selection}
              chosen={chosen}
              open={open}
              projects={projects}
              tiles={tiles ?? []}
              shown={shown}
              knownTags={tagsOf(tiles ?? []).map(([tag]) => tag)}
              onOpen={go}
              onClose={() => choose(null)}
            />
          )}
        </Box>
      </Box>
      {drawn.box}
      <FirstSet onDone={refresh} onTile={go} />
      <Shots onDone={refresh} onTile={go} />
      {plain && (
        <PaintedDialog
          openProject={open?.id}
          projectId={projectId}
          onEnd={(tileId) => {
            setPlain(false);
            if (tileId) go(tileId);
          }}
        />
      )}
    </Box>
  );
}
