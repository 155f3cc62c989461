import Box from '@mui/material/Box';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { useIsFetching } from '@tanstack/react-query';
import { type DragEvent, useEffect } from 'react';
import { GREY } from '../../../theme.ts';
import { useLook, useProjects, useTiles, type YardTile } from '../../../yard/queries.ts';
import { useBench } from '../../state.ts';
import { useSill } from '../state.ts';
import { bringBack } from './laid.ts';
import { PART_WORDS, SCENE_PARTS } from './parts.ts';
import { useLay } from './use-lay.ts';

/** What a dragged tile is carried as. */
export const TILE_DRAG = 'application/x-tile';

/** A tile's small picture, to be dragged; its name while it is not measured yet. */
function Draggable({ tile }: { tile: YardTile }) {
  const { data } = useLook(tile.id, tile.revision, !tile.look);
  const look = tile.look ?? data;
  const place = {
    width: 38,
    height: 38,
    borderRadius: 3,
    flex: 'none',
    cursor: 'grab',
    fontSize: 10,
  } as const;
  const drag = {
    draggable: true,
    title: `${tile.name}: drag it onto a part`,
    onDragStart: (event: DragEvent) => event.dataTransfer.setData(TILE_DRAG, tile.id),
  };
  if (!look)
    return (
      <span {...drag} style={{ ...place, overflow: 'hidden', background: GREY.card }}>
        {tile.name}
      </span>
    );
  return (
    <img
      {...drag}
      src={`/api/thumbnails/${look.thumbnail}`}
      alt={tile.name}
      style={{ ...place, objectFit: 'cover' }}
    />
  );
}

/** What lies on each part of the terrace, and the project's tiles to drag onto it. */
export function SceneTray() {
  const tileId = useBench((s) => s.tileId);
  const projectId = useBench((s) => s.projectId);
  const laid = useSill((s) => s.laid);
  const { data: tiles } = useTiles(projectId);
  const lay = useLay(projectId);
  const { data: projects } = useProjects();
  const kept = projects?.projects.find(({ id }) => id === projectId);
  const terrace = JSON.stringify(kept?.terrace ?? null);
  const isKnown = kept !== undefined;
  useEffect(() => {
    if (isKnown) bringBack(projectId, JSON.parse(terrace));
  }, [projectId, isKnown, terrace]);
  const computing = useIsFetching({ queryKey: ['sill tile'] });
  const others = (tiles ?? []).filter(({ id }) => id !== tileId);
  return (
    <Box
      component="section"
      aria-label="Tiles on the terrace"
      data-computing={computing}
      sx={{ bgcolor: GREY.sheet, borderRadius: 1, p: 1, flex: '1 1 280px', maxWidth: 480, minWidth: 0 }}
    >
      <Box sx={{ display: 'flex', gap: 0.75, overflowX: 'auto', pb: 0.75 }}>
        {others.map((tile) => (
          <Draggable key={tile.id} tile={tile} />
        ))}
        {computing > 0 && <span style={{ color: GREY.soft, alignSelf: 'center' }}>Computing …</span>}
        {others.length === 0 && <span style={{ color: GREY.soft }}>This project has no other tile yet.</span>}
      </Box>
      <Box
        sx={{ display: 'grid', gridTemplateColumns: 'auto 1fr auto 1fr', gap: 0.75, alignItems: 'center' }}
      >
        {SCENE_PARTS.map((part) => (
          <Box key={part} sx={{ display: 'contents' }}>
            <span>{PART_WORDS[part]}</span>
            <Select
              size="small"
              value={laid[part] && tiles?.some(({ id }) => id === laid[part]) ? laid[part] : ''}
              displayEmpty
              inputProps={{ 'aria-label': `Tile on the ${PART_WORDS[part].toLowerCase()}` }}
              onChange={(event) => lay(part, event.target.value || null)}
              sx={{ bgcolor: GREY.card, fontSize: 12.5, minWidth: 0, '& .MuiSelect-select': { py: 0.3 } }}
            >
              <MenuItem value="">This tile</MenuItem>
              {others.map(({ id, name }) => (
                <MenuItem key={id} value={id}>
                  {name}
                </MenuItem>
              ))}
            </Select>
          </Box>
        ))}
      </Box>
    </Box>
  );
}
