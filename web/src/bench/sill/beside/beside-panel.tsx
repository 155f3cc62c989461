import ListSubheader from '@mui/material/ListSubheader';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { hasMap } from '../../../engine/has-map.ts';
import { VIEW_WORDS } from '../../../engine/views.ts';
import { GREY } from '../../../theme.ts';
import { useTiles } from '../../../yard/queries.ts';
import { useBench } from '../../state.ts';
import { useVersions } from '../../versions/use-versions.ts';
import { COMPARE_GLYPH } from '../glyphs.tsx';
import { SillPopover, StateChoice } from '../sill-popover.tsx';
import { type Beside, SILL_MAPS, type SillMap, useSill } from '../state.ts';

const keyOf = (beside: Beside | null): string => {
  if (!beside) return 'none';
  if (beside.kind === 'albedo') return 'albedo';
  if (beside.kind === 'without') return `without ${beside.map}`;
  return beside.kind === 'version' ? `version ${beside.number}` : `tile ${beside.id}`;
};

function besideOf(key: string): Beside | null {
  const [kind, rest] = key.split(' ');
  if (kind === 'albedo') return { kind };
  if (kind === 'without') return { kind, map: rest as SillMap };
  if (kind === 'version') return { kind, number: Number(rest) };
  return kind === 'tile' ? { kind, id: rest } : null;
}

const SPLITS = [
  ['halves', 'Side by side'],
  ['line', 'With a line between'],
] as const;

/** What is held beside the current tile. */
export function useBesideWords(): string {
  const beside = useSill((s) => s.beside);
  const projectId = useBench((s) => s.projectId);
  const { data: tiles } = useTiles(beside?.kind === 'tile' ? projectId : undefined);
  if (!beside) return '';
  if (beside.kind === 'albedo') return 'Albedo alone';
  if (beside.kind === 'without') return `Without ${VIEW_WORDS[beside.map].toLowerCase()}`;
  if (beside.kind === 'version') return `Version ${beside.number}`;
  return tiles?.find(({ id }) => id === beside.id)?.name ?? 'Another tile';
}

/** What there is to be held beside; asked for when it is looked at. */
function HeldBeside() {
  const beside = useSill((s) => s.beside);
  const tileId = useBench((s) => s.tileId);
  const maps = useBench((s) => s.maps);
  const projectId = useBench((s) => s.projectId);
  const base = useBench((s) => s.base);
  const { data: tiles } = useTiles(projectId);
  const versions = useVersions(tileId, base).data?.pages.flatMap(({ revisions }) => revisions) ?? [];
  return (
    <Select
      size="small"
      fullWidth
      value={keyOf(beside)}
      inputProps={{ 'aria-label': 'Compare with' }}
      onChange={(event) => useSill.setState({ beside: besideOf(event.target.value) })}
      sx={{ bgcolor: GREY.card, fontSize: 13, '& .MuiSelect-select': { py: 0.5 } }}
    >
      <MenuItem value="none">Nothing</MenuItem>
      <MenuItem value="albedo">Its albedo alone</MenuItem>
      <ListSubheader sx={{ bgcolor: 'inherit', lineHeight: 2.2 }}>Without one map</ListSubheader>
      {SILL_MAPS.filter((map) => map !== 'albedo' && hasMap(maps, map)).map((map) => (
        <MenuItem key={map} value={`without ${map}`}>
          Without {VIEW_WORDS[map].toLowerCase()}
        </MenuItem>
      ))}
      <ListSubheader sx={{ bgcolor: 'inherit', lineHeight: 2.2 }}>Versions of this tile</ListSubheader>
      {versions.map(({ number, changes }) => (
        <MenuItem key={number} value={`version ${number}`}>
          Version {number}
          {changes[0] ? `, ${changes[0]}` : ''}
        </MenuItem>
      ))}
      <ListSubheader sx={{ bgcolor: 'inherit', lineHeight: 2.2 }}>Tiles of this project</ListSubheader>
      {(tiles ?? [])
        .filter(({ id }) => id !== tileId)
        .map(({ id, name }) => (
          <MenuItem key={id} value={`tile ${id}`}>
            {name}
          </MenuItem>
        ))}
    </Select>
  );
}

/** Chooses what is held beside the current tile, in one light and one camera. */
export function BesidePanel() {
  const beside = useSill((s) => s.beside);
  return (
    <SillPopover words="Compare" icon={COMPARE_GLYPH} label="Compare the tile" isOn={beside !== null}>
      <HeldBeside />
      <StateChoice of="split" words="Layout" label="How both are seen" options={SPLITS} />
    </SillPopover>
  );
}
