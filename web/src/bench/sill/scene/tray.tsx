import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { useIsFetching } from '@tanstack/react-query';
import { number } from '@zesty-tile/core';
import { type DragEvent, useEffect } from 'react';
import { GREY } from '../../../theme.ts';
import { useLook, useProjects, useTiles, type YardTile } from '../../../yard/queries.ts';
import { NumberDial } from '../../dials/number-dial.tsx';
import { pressable } from '../../pressed.ts';
import { useBench } from '../../state.ts';
import { useTileMaps } from '../beside/use-other-maps.ts';
import { useSill } from '../state.ts';
import { bringBack } from './laid.ts';
import { THIS_TILE, UNLAID } from './laying.ts';
import { MATTER_WORDS, matterEdge } from './matter.ts';
import { PART_WORDS, SCENE_PARTS, type ScenePart, USUAL } from './parts.ts';
import { useLay } from './use-lay.ts';

/** What a dragged tile is carried as. */
export const TILE_DRAG = 'application/x-tile';

/** A tile's small picture, to be dragged; the first letters of its name while it is not measured yet. */
function Draggable({ tile }: { tile: YardTile }) {
  const { data } = useLook(tile.id, tile.revision, !tile.look);
  const look = tile.look ?? data;
  const place = {
    width: 34,
    height: 34,
    borderRadius: 3,
    flex: 'none',
    cursor: 'grab',
  } as const;
  const drag = {
    draggable: true,
    title: `${tile.name}: drag it onto a part`,
    onDragStart: (event: DragEvent) => event.dataTransfer.setData(TILE_DRAG, tile.id),
  };
  if (!look)
    return (
      <span
        {...drag}
        role="img"
        aria-label={tile.name}
        style={{ ...place, display: 'grid', placeItems: 'center', background: GREY.card, fontSize: 13 }}
      >
        {tile.name
          .split(/\s+/)
          .slice(0, 2)
          .map((word) => [...word][0])
          .join('')}
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

const METRES = (own: number) =>
  number({
    label: 'Edge',
    help: 'How long the tile’s longer edge is on this part.',
    default: own,
    min: 0.05,
    max: 6,
    step: 0.05,
    unit: 'm',
  });

/** One part: what is on it, how large, and which way round. */
function PartRow({ tiles }: { tiles: readonly YardTile[] }) {
  const tileId = useBench((s) => s.tileId);
  const projectId = useBench((s) => s.projectId);
  const edgeMetres = useBench((s) => s.recipe.stations.square.edgeMetres);
  const { laid, part } = useSill();
  const lay = useLay(projectId);
  const laying = laid[part] ?? UNLAID;
  const usual = USUAL[part];
  const others = tiles.filter(({ id }) => id !== tileId);
  const isOther = laying.tile !== null && laying.tile !== THIS_TILE && laying.tile !== tileId;
  const other = useTileMaps(isOther ? (laying.tile ?? undefined) : undefined).data;
  // Of what is on the part now; the open tile's until another is known.
  const own =
    (isOther ? other?.edgeMetres : laying.tile === null && usual !== THIS_TILE ? matterEdge(usual) : null) ??
    edgeMetres;
  const isKnown = laying.tile === THIS_TILE || tiles.some(({ id }) => id === laying.tile);
  const words = (laying.tile === tileId ? THIS_TILE : laying.tile) ?? '';
  const field = { bgcolor: GREY.card, fontSize: 12.5, minWidth: 0, '& .MuiSelect-select': { py: 0.3 } };
  return (
    <Box
      sx={{
        flex: '1 1 566px',
        maxWidth: 720,
        display: 'flex',
        flexWrap: 'wrap',
        gap: 0.75,
        alignItems: 'center',
        minWidth: 0,
      }}
    >
      <Select
        size="small"
        value={part}
        inputProps={{ 'aria-label': 'Part of the terrace' }}
        onChange={(event) => useSill.setState({ part: event.target.value as ScenePart })}
        sx={{ ...field, flex: '0 0 124px' }}
      >
        {SCENE_PARTS.map((one) => (
          <MenuItem key={one} value={one}>
            {PART_WORDS[one]}
          </MenuItem>
        ))}
      </Select>
      <Select
        size="small"
        value={isKnown ? words : ''}
        displayEmpty
        inputProps={{ 'aria-label': 'Tile on the part' }}
        onChange={(event) => lay(part, { tile: event.target.value || null, metres: null })}
        sx={{ ...field, flex: '1 1 130px', maxWidth: 190 }}
      >
        <MenuItem value="">
          {usual === THIS_TILE ? 'Usual: this tile' : `Usual: ${MATTER_WORDS[usual].toLowerCase()}`}
        </MenuItem>
        <MenuItem value={THIS_TILE}>This tile</MenuItem>
        {others.map(({ id, name }) => (
          <MenuItem key={id} value={id}>
            {name}
          </MenuItem>
        ))}
      </Select>
      <Box
        sx={{
          flex: '1 1 210px',
          maxWidth: 280,
          mr: 1,
          // One short name and one short unit: the track takes what is left.
          '& > .MuiBox-root': { gridTemplateColumns: '36px 1fr 62px 14px' },
        }}
      >
        <NumberDial
          setting={METRES(own)}
          value={laying.metres ?? own}
          onChange={(metres) => lay(part, { metres })}
        />
      </Box>
      <Button
        sx={{ ...pressable(laying.turns > 0), flex: 'none' }}
        onClick={() => lay(part, { turns: (laying.turns + 1) % 4 })}
      >
        Turn 90°
      </Button>
    </Box>
  );
}

/** What is on each part of the terrace, and the project's tiles to drag onto it. */
export function SceneTray() {
  const tileId = useBench((s) => s.tileId);
  const projectId = useBench((s) => s.projectId);
  const { data: tiles = [] } = useTiles(projectId);
  const { data: projects } = useProjects();
  const kept = projects?.projects.find(({ id }) => id === projectId);
  const terrace = JSON.stringify(kept?.terrace ?? null);
  const isKnown = kept !== undefined;
  useEffect(() => {
    if (isKnown) bringBack(projectId, JSON.parse(terrace));
  }, [projectId, isKnown, terrace]);
  const computing = useIsFetching({
    predicate: ({ queryKey }) => /^sill (tile|matter)$/.test(String(queryKey[0])),
  });
  return (
    <Box
      component="section"
      aria-label="Tiles on the terrace"
      data-computing={computing}
      sx={{
        bgcolor: GREY.sheet,
        borderRadius: 1,
        px: 1,
        py: 0.6,
        flex: '1 1 320px',
        minWidth: 0,
        display: 'flex',
        flexWrap: 'wrap',
        columnGap: 1.5,
        rowGap: 0.5,
        alignItems: 'center',
      }}
    >
      <PartRow tiles={tiles} />
      <Box sx={{ display: 'flex', gap: 0.5, overflowX: 'auto', flex: '1 1 150px', minWidth: 0 }}>
        {/* The open tile first. */}
        {[...tiles.filter(({ id }) => id === tileId), ...tiles.filter(({ id }) => id !== tileId)].map(
          (tile) => (
            <Draggable key={tile.id} tile={tile} />
          ),
        )}
        {computing > 0 && <span style={{ color: GREY.soft, alignSelf: 'center' }}>Computing …</span>}
      </Box>
    </Box>
  );
}
