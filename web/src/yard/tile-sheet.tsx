import Close from '@mui/icons-material/Close';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import Typography from '@mui/material/Typography';
import { adviceOf, STATION_NAMES } from '@zesty-tile/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { STATION_WORDS } from '../bench/words.ts';
import { VIEW_WORDS, type ViewName } from '../engine/views.ts';
import { momentWords } from '../moment.ts';
import { NameDialog } from '../name-dialog.tsx';
import { RecipeDialog, type RecipeTarget } from '../recipes/recipe-dialog.tsx';
import { CRATE_STATE_WORDS } from '../stations/crate/crate-words.ts';
import { useCrates } from '../stations/crate/use-crate.ts';
import { GREY } from '../theme.ts';
import { SIGN, STATE_COLOUR, VerdictWords } from '../verdict.tsx';
import type { YardTile } from './queries.ts';
import { SideSheet } from './side-sheet.tsx';
import { TagField } from './tag-field.tsx';
import { useTileActions } from './use-tile-actions.ts';

const row = {
  display: 'flex',
  justifyContent: 'space-between',
  gap: 1,
  py: 0.4,
  borderBottom: `1px solid ${GREY.line}`,
};

function LastCrate({ tileId }: { tileId: string }) {
  const { data } = useCrates(tileId);
  const last = data?.crates[0];
  if (!data) return null;
  const when = last && momentWords(new Date(last.createdAt));
  return (
    <Box sx={row}>
      <span>Last crate</span>
      <span>
        {last ? (
          <>
            no. {last.number}, {CRATE_STATE_WORDS[last.state]}, {when}{' '}
            {last.state === 'done' && (
              <a href={`/api/crates/${last.id}/archive.zip`} style={{ color: GREY.ink }}>
                zip
              </a>
            )}
          </>
        ) : (
          'none yet'
        )}
      </span>
    </Box>
  );
}

/** What to do about the worst verdict, and where. */
function Next({ tile }: { tile: YardTile }) {
  const verdicts = tile.look?.verdicts ?? {};
  const such = (state: string) => STATION_NAMES.find((name) => verdicts[name]?.state === state);
  const name = such('wrong') ?? such('look');
  if (!name) return null;
  const verdict = verdicts[name];
  const { sentence, state } = verdict;
  return (
    <Box
      sx={{
        bgcolor: GREY.card,
        border: `1px solid ${GREY.line}`,
        borderLeft: `4px solid ${STATE_COLOUR[state]}`,
        borderRadius: 1,
        px: 1.25,
        py: 0.75,
      }}
    >
      <strong style={{ color: STATE_COLOUR[state] }}>
        {SIGN[state]} {STATION_WORDS[name]}:
      </strong>{' '}
      {adviceOf(verdict) || sentence}{' '}
      <Link to={`/tiles/${tile.id}/${name}`} style={{ color: GREY.ink }}>
        Open station
      </Link>
    </Box>
  );
}

/** The tile on a lit ball, and its maps. */
function Pictures({ tile }: { tile: YardTile }) {
  const { look } = tile;
  if (!look) return <Typography color="text.secondary">Measuring …</Typography>;
  return (
    <>
      <img
        src={`/api/thumbnails/${look.ball}`}
        alt={`${tile.name} on a lit ball`}
        style={{ width: '100%', aspectRatio: '4 / 3', objectFit: 'cover', borderRadius: 6, display: 'block' }}
      />
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(5, 1fr)', gap: 0.75 }}>
        {Object.entries(look.maps).map(([map, sha256]) => (
          <img
            key={map}
            src={`/api/thumbnails/${sha256}`}
            alt={VIEW_WORDS[map as ViewName]}
            title={VIEW_WORDS[map as ViewName]}
            style={{ width: '100%', aspectRatio: '1', objectFit: 'cover', borderRadius: 3, display: 'block' }}
          />
        ))}
      </Box>
    </>
  );
}

/** The verdict of each station, and the last crate. */
function Figures({ tile }: { tile: YardTile }) {
  const { look } = tile;
  if (!look) return null;
  return (
    <div>
      {STATION_NAMES.filter((name) => look.verdicts[name] && name !== 'crate').map((name) => (
        <Box key={name} sx={row}>
          <span>{STATION_WORDS[name]}</span>
          <VerdictWords state={look.verdicts[name].state} words={look.verdicts[name].brief} />
        </Box>
      ))}
      <LastCrate tileId={tile.id} />
    </div>
  );
}

/** The tile's name and size, and the way out. */
function TileHeading({ tile, onClose }: { tile: YardTile; onClose(): void }) {
  return (
    <Box sx={{ display: 'flex', alignItems: 'start', gap: 1 }}>
      <Box sx={{ minWidth: 0, flex: 1 }}>
        <Typography variant="h1" component="h2" sx={{ overflowWrap: 'anywhere' }}>
          {tile.name}
        </Typography>
        <Typography color="text.secondary">
          {tile.size} px · {tile.edgeMetres} m · {Math.round(tile.size / tile.edgeMetres)} px per metre
        </Typography>
      </Box>
      <IconButton size="small" aria-label="Close the sheet" onClick={onClose}>
        <Close fontSize="small" />
      </IconButton>
    </Box>
  );
}

interface TileSheetProps {
  tile: YardTile;
  projects: { id: string; name: string }[];
  knownTags: string[];
  onOpen(): void;
  onClose(): void;
}

/** The chosen tile: lit ball, maps, figures, last crate, and what can be done with it. */
export function TileSheet({ tile, projects, knownTags, onOpen, onClose }: TileSheetProps) {
  const actions = useTileActions(tile);
  const [menu, setMenu] = useState<HTMLElement | null>(null);
  const [renaming, setRenaming] = useState(false);
  const [target, setTarget] = useState<RecipeTarget | null>(null);
  return (
    <SideSheet label={`About ${tile.name}`}>
      <TileHeading tile={tile} onClose={onClose} />
      <Pictures tile={tile} />
      <Next tile={tile} />
      <Figures tile={tile} />
      <TagField tags={tile.tags} known={knownTags} onTags={actions.setTags} />
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
        <Button variant="contained" onClick={onOpen}>
          Open
        </Button>
        <Button onClick={actions.bake}>Crate it</Button>
        <Button onClick={() => actions.openRecipe(setTarget)}>Recipe …</Button>
        <Button aria-haspopup="menu" onClick={(event) => setMenu(event.currentTarget)}>
          More …
        </Button>
      </Box>
      <Menu anchorEl={menu} open={menu !== null} onClose={() => setMenu(null)} onClick={() => setMenu(null)}>
        <MenuItem onClick={actions.duplicate}>Duplicate</MenuItem>
        <MenuItem onClick={() => setRenaming(true)}>Rename …</MenuItem>
        {projects
          .filter(({ id }) => id !== tile.projectId)
          .map((project) => (
            <MenuItem
              key={project.id}
              onClick={() => {
                onClose();
                void actions.move(project);
              }}
            >
              Move to {project.name}
            </MenuItem>
          ))}
        <MenuItem
          onClick={() => {
            onClose();
            void actions.remove();
          }}
        >
          Delete
        </MenuItem>
      </Menu>
      {renaming && (
        <NameDialog
          title={`Rename ${tile.name}`}
          label="Name of the tile"
          name={tile.name}
          action="Rename"
          onName={actions.rename}
          onClose={() => setRenaming(false)}
        />
      )}
      {target && <RecipeDialog target={target} onClose={() => setTarget(null)} />}
    </SideSheet>
  );
}
