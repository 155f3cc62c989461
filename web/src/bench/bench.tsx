import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useEffect } from 'react';
import { Group, Panel, Separator, useDefaultLayout } from 'react-resizable-panels';
import { Link, useNavigate } from 'react-router';
import { Head } from '../head.tsx';
import { FIGURES, GREY } from '../theme.ts';
import { Conflict } from './conflict.tsx';
import { Course } from './course/course.tsx';
import { Dials } from './dials/dials.tsx';
import { Floor } from './floor/floor.tsx';
import { isUnsaved, saveNow } from './save.ts';
import { SavedWords } from './saved-words.tsx';
import { useShortcuts } from './shortcuts.ts';
import { Sill } from './sill/sill.tsx';
import { useBench } from './state.ts';
import { useEngine } from './use-engine.ts';

const split = { width: 6, background: GREY.walls, cursor: 'col-resize' };

/** The workplace of one tile: head, Floor, Sill, Dials, Course. */
export function Bench({ tile, project }: { tile: { id: string; name: string }; project: { name: string } }) {
  useEngine();
  useShortcuts();
  const navigate = useNavigate();
  const station = useBench((s) => s.station);
  const { size, edgeMetres } = useBench((s) => s.recipe.stations.square);
  const layout = useDefaultLayout({ id: 'bench', storage: localStorage });
  // biome-ignore lint/correctness/useExhaustiveDependencies: each station starts with its own view
  useEffect(() => useBench.getState().set({ chosenView: null }), [station]);
  useEffect(() => {
    document.title = `${tile.name}, Zesty Tile`;
    const leave = (event: BeforeUnloadEvent) => {
      if (isUnsaved()) event.preventDefault();
    };
    window.addEventListener('beforeunload', leave);
    return () => {
      window.removeEventListener('beforeunload', leave);
      void saveNow();
    };
  }, [tile.name]);
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
          {project.name}
          {' / '}
          <strong style={{ color: GREY.ink }}>{tile.name}</strong>
        </Typography>
        <Box sx={{ ml: 'auto', display: 'flex', alignItems: 'center', gap: 2, whiteSpace: 'nowrap' }}>
          <span style={{ font: `12.5px ${FIGURES}`, color: GREY.soft }}>
            {size} px · {edgeMetres} m
          </span>
          <SavedWords />
          <Button variant="contained" color="secondary" onClick={() => navigate(`/tiles/${tile.id}/crate`)}>
            To the crate
          </Button>
        </Box>
      </Head>
      <Box component="main" sx={{ flex: 1, minHeight: 0 }}>
        <Group orientation="horizontal" id="bench" {...layout}>
          <Panel id="floor" defaultSize="47%" minSize="28%">
            <Floor />
          </Panel>
          <Separator style={split} aria-label="Between Floor and Sill" />
          <Panel id="sill" defaultSize="28%" minSize="16%">
            <Sill />
          </Panel>
          <Separator style={split} aria-label="Between Sill and Dials" />
          <Panel id="dials" defaultSize="25%" minSize="300px">
            <Dials />
          </Panel>
        </Group>
      </Box>
      <Course />
      <Conflict />
    </Box>
  );
}
