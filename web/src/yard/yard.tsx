import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Tab from '@mui/material/Tab';
import Tabs from '@mui/material/Tabs';
import Typography from '@mui/material/Typography';
import { useQueryClient } from '@tanstack/react-query';
import { useEffect } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { answerOf, api } from '../api/client.ts';
import { Head } from '../head.tsx';
import { GREY, ZEST } from '../theme.ts';
import { DropPlace } from './drop-place.tsx';
import { useProjects, useTiles } from './queries.ts';
import { TileCard } from './tile-card.tsx';

const FIRST_PROJECT = 'First surfaces';

/** The library: every tile, grouped by project. */
export function Yard() {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [search, setSearch] = useSearchParams();
  const { data, error } = useProjects();
  const projects = data?.projects ?? [];
  const open = projects.find((project) => project.id === search.get('project')) ?? projects[0];
  const { data: held } = useTiles(open?.id);
  useEffect(() => {
    document.title = 'Yard, Zesty Tile';
  }, []);
  const projectId = async () => {
    if (open) return open.id;
    const { project } = await answerOf(api.projects.$post({ json: { name: FIRST_PROJECT } } as never));
    await queries.invalidateQueries({ queryKey: ['projects'] });
    return project.id;
  };
  return (
    <Box sx={{ height: '100%', display: 'flex', flexDirection: 'column' }}>
      <Head />
      <Box component="main" sx={{ flex: 1, minHeight: 0, overflowY: 'auto', px: 2, pb: 3 }}>
        <Typography
          variant="h1"
          sx={{ position: 'absolute', width: 1, height: 1, overflow: 'hidden', clipPath: 'inset(50%)' }}
        >
          Yard
        </Typography>
        {open && (
          <Tabs
            value={open.id}
            onChange={(_event, id: string) => setSearch({ project: id })}
            aria-label="Projects"
            sx={{ minHeight: 44, mb: 1, '& .MuiTabs-indicator': { bgcolor: ZEST, height: 3 } }}
          >
            {projects.map((project) => (
              <Tab
                key={project.id}
                value={project.id}
                label={`${project.name} ${project.tiles}`}
                sx={{
                  textTransform: 'none',
                  minHeight: 44,
                  minWidth: 0,
                  px: 1,
                  fontWeight: 600,
                  fontSize: 13,
                  '&.Mui-selected': { color: GREY.ink },
                }}
              />
            ))}
          </Tabs>
        )}
        {error && (
          <Alert severity="error" variant="outlined" sx={{ my: 2, bgcolor: GREY.card }}>
            {error.message} See that the server runs, then load this page again.
          </Alert>
        )}
        <Box
          sx={{
            display: 'grid',
            gap: 2,
            gridTemplateColumns: 'repeat(auto-fill, minmax(220px, 1fr))',
            pt: open ? 0 : 2,
          }}
        >
          <DropPlace projectId={projectId} onMade={(id) => navigate(`/tiles/${id}/source`)} />
          {held?.tiles.map((tile) => (
            <TileCard key={tile.id} tile={tile} />
          ))}
        </Box>
        {data && projects.length === 0 && (
          <Typography sx={{ mt: 2, color: GREY.soft }}>
            The Yard is empty. Drop a photo of a surface, or start the program with “npm run demo” to see the
            Limonaia tiles.
          </Typography>
        )}
      </Box>
    </Box>
  );
}
