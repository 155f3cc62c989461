import Add from '@mui/icons-material/Add';
import MoreHoriz from '@mui/icons-material/MoreHoriz';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import Tab from '@mui/material/Tab';
import Tabs from '@mui/material/Tabs';
import Tooltip from '@mui/material/Tooltip';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { answerOf, api } from '../api/client.ts';
import { useRemoval } from '../api/use-undoable.tsx';
import { later } from '../later.tsx';
import { GREY, ZEST } from '../theme.ts';

const NameDialog = later(async () => (await import('../name-dialog.tsx')).NameDialog);

interface Project {
  id: string;
  name: string;
  tiles: number;
}

interface ProjectTabsProps {
  projects: Project[];
  open: Project;
  onOpen(id: string): void;
}

/** The projects as tabs; the open one can be renamed or deleted. */
export function ProjectTabs({ projects, open, onOpen }: ProjectTabsProps) {
  const queries = useQueryClient();
  const remove = useRemoval();
  const [menu, setMenu] = useState<HTMLElement | null>(null);
  const [asking, setAsking] = useState<'new' | 'rename' | null>(null);
  const again = () => queries.invalidateQueries({ queryKey: ['projects'] });
  const make = async (name: string) => {
    const { project } = await answerOf(api.projects.$post({ json: { name } } as never));
    await again();
    onOpen(project.id);
  };
  const rename = async (name: string) => {
    await answerOf(api.projects[':id'].$patch({ param: { id: open.id }, json: { name } } as never));
    await again();
  };
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', minWidth: 0 }}>
      <Tabs
        value={open.id}
        onChange={(_event, id: string) => onOpen(id)}
        aria-label="Projects"
        variant="scrollable"
        sx={{ minHeight: 44, minWidth: 0, '& .MuiTabs-indicator': { bgcolor: ZEST, height: 3 } }}
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
      <Tooltip title={`Rename or delete ${open.name}`}>
        <IconButton
          size="small"
          aria-label={`Rename or delete ${open.name}`}
          aria-haspopup="menu"
          onClick={(event) => setMenu(event.currentTarget)}
        >
          <MoreHoriz fontSize="small" />
        </IconButton>
      </Tooltip>
      <Tooltip title="New project">
        <IconButton size="small" aria-label="New project" onClick={() => setAsking('new')}>
          <Add fontSize="small" />
        </IconButton>
      </Tooltip>
      <Menu anchorEl={menu} open={menu !== null} onClose={() => setMenu(null)}>
        <MenuItem
          onClick={() => {
            setMenu(null);
            setAsking('rename');
          }}
        >
          Rename project …
        </MenuItem>
        <MenuItem
          onClick={() => {
            setMenu(null);
            void remove(api.projects, open.id, open.name);
          }}
        >
          Delete project with its {open.tiles} tiles
        </MenuItem>
      </Menu>
      {asking && (
        <NameDialog
          title={asking === 'new' ? 'New project' : `Rename ${open.name}`}
          label="Name of the project"
          name={asking === 'new' ? '' : open.name}
          action={asking === 'new' ? 'Make it' : 'Rename'}
          onName={asking === 'new' ? make : rename}
          onClose={() => setAsking(null)}
        />
      )}
    </Box>
  );
}
