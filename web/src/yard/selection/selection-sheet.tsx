import Close from '@mui/icons-material/Close';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { useAllCrates } from '../../crates/use-running.ts';
import { later } from '../../later.tsx';
import { GREY } from '../../theme.ts';
import type { YardTile } from '../queries.ts';
import { SideSheet } from '../side-sheet.tsx';
import { useSeveral } from './use-several.ts';

const CrateSeveral = later(async () => (await import('../crate-several.tsx')).CrateSeveral);
const ApplyToSeveral = later(async () => (await import('./apply-dialog.tsx')).ApplyToSeveral);

/** A tag for all of them. */
function TagAll({ onTag }: { onTag(tag: string): void }) {
  const [tag, setTag] = useState('');
  const words = tag.trim().toLowerCase();
  return (
    <Box
      component="form"
      sx={{ display: 'flex', gap: 1 }}
      onSubmit={(event) => {
        event.preventDefault();
        if (words) onTag(words);
        setTag('');
      }}
    >
      <input
        aria-label="Tag for all"
        placeholder="Tag for all"
        value={tag}
        maxLength={40}
        onChange={(event) => setTag(event.target.value)}
        style={{
          flex: 1,
          minWidth: 0,
          font: 'inherit',
          color: 'inherit',
          padding: '5px 8px',
          background: GREY.card,
          border: `1px solid ${GREY.line}`,
          borderRadius: 4,
        }}
      />
      <Button type="submit" disabled={!words}>
        Add tag
      </Button>
    </Box>
  );
}

interface SelectionSheetProps {
  tiles: YardTile[];
  projects: { id: string; name: string }[];
  onClose(): void;
}

/** What can be done with the tiles that are selected together. */
export function SelectionSheet({ tiles, projects, onClose }: SelectionSheetProps) {
  const several = useSeveral(tiles);
  const [open, setOpen] = useState<'crate' | 'apply' | null>(null);
  const [menu, setMenu] = useState<HTMLElement | null>(null);
  const { data } = useAllCrates();
  const done = new Set(data?.crates.flatMap(({ state, tileId }) => (state === 'done' ? [tileId] : [])));
  const finished = tiles.filter(({ id }) => done.has(id)).length;
  const others = projects.filter(({ id }) => id !== tiles[0]?.projectId);
  return (
    <SideSheet label={`${several.words} selected`}>
      <Box sx={{ display: 'flex', alignItems: 'center' }}>
        <Typography variant="h1" component="h2" sx={{ flex: 1 }}>
          {several.words} selected
        </Typography>
        <IconButton size="small" aria-label="Clear the selection" onClick={onClose}>
          <Close fontSize="small" />
        </IconButton>
      </Box>
      <Box sx={{ color: GREY.soft, overflowWrap: 'anywhere', maxHeight: 160, overflowY: 'auto' }}>
        {tiles.map(({ name }) => name).join(', ')}
      </Box>
      <TagAll onTag={several.tag} />
      <Button variant="contained" onClick={() => setOpen('crate')}>
        Crate {several.words} …
      </Button>
      {finished > 0 && (
        <Button
          variant="outlined"
          href={`/api/crates/archive.zip?${tiles.map(({ id }) => `tile=${id}`).join('&')}`}
        >
          {finished === 1 ? 'Download the newest crate' : `Download the newest ${finished} crates`}
        </Button>
      )}
      <Button variant="outlined" onClick={() => setOpen('apply')}>
        Apply a recipe …
      </Button>
      <Button variant="outlined" onClick={() => void several.duplicate()}>
        Duplicate
      </Button>
      {others.length > 0 && (
        <Button variant="outlined" aria-haspopup="menu" onClick={(event) => setMenu(event.currentTarget)}>
          Move to …
        </Button>
      )}
      <Button
        variant="outlined"
        onClick={() => {
          onClose();
          void several.remove();
        }}
      >
        Delete
      </Button>
      <Menu anchorEl={menu} open={menu !== null} onClose={() => setMenu(null)}>
        {others.map((project) => (
          <MenuItem
            key={project.id}
            onClick={() => {
              setMenu(null);
              onClose();
              void several.move(project);
            }}
          >
            {project.name}
          </MenuItem>
        ))}
      </Menu>
      {open === 'crate' && <CrateSeveral tiles={tiles} onClose={() => setOpen(null)} />}
      {open === 'apply' && <ApplyToSeveral tiles={tiles} onClose={() => setOpen(null)} />}
    </SideSheet>
  );
}
