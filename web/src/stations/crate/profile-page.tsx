import Add from '@mui/icons-material/Add';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useQueryClient } from '@tanstack/react-query';
import { DOCUMENTS, type Profile, type ProfileFile, profileProblems } from '@zesty-tile/core';
import { useSnackbar } from 'notistack';
import { useMemo, useState } from 'react';
import { wordsOf } from '../../api/words-of.ts';
import { Picture } from '../../bench/picture.tsx';
import { useBench } from '../../bench/state.ts';
import { EditDialog } from '../../edit-dialog.tsx';
import type { LookedCrate } from '../../engine/protocol.ts';
import { GREY } from '../../theme.ts';
import { FileEditor } from './file-editor.tsx';
import { useCrateLook } from './use-crate-look.ts';
import { keepProfile, useProfiles } from './use-profiles.ts';

const DOCUMENT_WORDS: Record<(typeof DOCUMENTS)[number], string> = {
  none: 'Pictures alone',
  gltf: 'Inside a binary glTF',
  materialx: 'Beside a MaterialX document',
};

/** A file to begin with, called as none of the others is. */
function newFile(files: readonly ProfileFile[]): ProfileFile {
  const isTaken = (ending: string) => files.some((file) => file.ending === ending);
  let ending = 'file';
  for (let k = 2; isTaken(ending); k++) ending = `file-${k}`;
  return {
    ending,
    format: 'png',
    bits: 8,
    kind: 'data',
    channels: [{ map: 'roughness', plane: 0, turned: false }],
    size: 0,
    softMm: 0,
    green: 'recipe',
    occlusion: 0,
  };
}

type Looked = LookedCrate['files'][number];

interface FileListProps {
  files: readonly ProfileFile[];
  /** The file that is open. */
  at: number;
  lookedOf(file: ProfileFile): Looked | undefined;
  onOpen(at: number): void;
  onAdd(): void;
}

/** The files of the profile, each with its picture. */
function FileList({ files, at, lookedOf, onOpen, onAdd }: FileListProps) {
  return (
    <Box
      component="nav"
      aria-label="Files of the profile"
      sx={{
        p: 2,
        bgcolor: GREY.sheet,
        overflowY: 'auto',
        display: 'grid',
        gap: 0.75,
        alignContent: 'start',
      }}
    >
      {files.map((file, k) => {
        const looked = lookedOf(file);
        return (
          <Box
            // biome-ignore lint/suspicious/noArrayIndexKey: a file is known by its place while its name is typed
            key={k}
            component="button"
            type="button"
            aria-current={k === at}
            onClick={() => onOpen(k)}
            sx={{
              display: 'flex',
              gap: 1,
              alignItems: 'center',
              p: 0.5,
              font: 'inherit',
              color: 'inherit',
              textAlign: 'left',
              cursor: 'pointer',
              bgcolor: GREY.card,
              border: `1px solid ${k === at ? GREY.ink : GREY.line}`,
              borderRadius: 1,
            }}
          >
            <Box
              sx={{
                width: 40,
                height: 40,
                bgcolor: GREY.walls,
                flex: 'none',
                display: 'grid',
                placeItems: 'center',
              }}
            >
              {looked && <Picture picture={looked.picture} edge={40} label={looked.name} />}
            </Box>
            <span style={{ overflowWrap: 'anywhere' }}>{file.ending}</span>
          </Box>
        );
      })}
      <Button startIcon={<Add />} onClick={onAdd}>
        Another file
      </Button>
    </Box>
  );
}

interface ProfileBarProps {
  profile: Profile;
  /** What keeps the profile from being used. */
  problems: readonly string[];
  /** What keeps it from being looked at. */
  problem: string;
  onChange(profile: Profile): void;
  onKeep(): void;
  onUse(): void;
  onLeave(): void;
}

/** The profile's name and document, what is wrong with it, and what to do with it. */
function ProfileBar({ profile, problems, problem, onChange, onKeep, onUse, onLeave }: ProfileBarProps) {
  return (
    <Box
      sx={{ display: 'flex', alignItems: 'center', gap: 1.5, p: 2, borderBottom: `1px solid ${GREY.line}` }}
    >
      <TextField
        label="Name of the profile"
        value={profile.name}
        onChange={(event) => onChange({ ...profile, name: event.target.value })}
        sx={{ width: 280 }}
      />
      <TextField
        select
        label="Output"
        value={profile.document}
        onChange={(event) => onChange({ ...profile, document: event.target.value as Profile['document'] })}
        sx={{ width: 240 }}
      >
        {DOCUMENTS.map((one) => (
          <MenuItem key={one} value={one}>
            {DOCUMENT_WORDS[one]}
          </MenuItem>
        ))}
      </TextField>
      <Box sx={{ flex: 1, minWidth: 0 }} role={problems.length > 0 ? 'alert' : undefined}>
        {problems.slice(0, 2).join(' ') || problem}
      </Box>
      <Button onClick={onKeep} disabled={problems.length > 0}>
        Save to project
      </Button>
      <Button variant="contained" onClick={onUse} disabled={problems.length > 0}>
        Use for this tile
      </Button>
      <Button onClick={onLeave}>Cancel</Button>
    </Box>
  );
}

interface ProfilePageProps {
  /** What it begins from. */
  from: Profile;
  tile: string;
  crate: number;
  onClose(): void;
}

/** A custom profile: its files, what is in their channels, seen on the current tile. */
export function ProfilePage({ from, tile, crate, onClose }: ProfilePageProps) {
  const projectId = useBench((s) => s.projectId);
  const settings = useBench((s) => s.recipe.stations.crate);
  const { data: known = [] } = useProfiles(projectId);
  const queries = useQueryClient();
  const { enqueueSnackbar } = useSnackbar();
  const [profile, setProfile] = useState(from);
  const [at, setAt] = useState(0);
  const problems = profileProblems(profile);
  // A ladder shows nothing that its first does not.
  const chosen = useMemo(
    () => ({ ...settings, profile: 'own', ownProfile: profile, ladder: 1 }) as typeof settings,
    [settings, profile],
  );
  const { look, problem, isBusy } = useCrateLook(chosen, tile, crate);
  const { files } = profile;
  const setFiles = (next: ProfileFile[], open = at) => {
    setProfile({ ...profile, files: next });
    setAt(Math.min(open, next.length - 1));
  };
  const lookedOf = (file: ProfileFile) => look?.files.find(({ ending }) => ending === file.ending);
  const use = () => {
    useBench.getState().setDials('crate', { profile: 'own', ownProfile: profile }, '');
    onClose();
  };
  const keep = async () => {
    try {
      await keepProfile(projectId, profile, known);
      await queries.invalidateQueries({ queryKey: ['profiles'] });
      enqueueSnackbar(`“${profile.name}” is kept for the project.`);
    } catch (error) {
      enqueueSnackbar(wordsOf(error), { variant: 'error' });
    }
  };
  return (
    <EditDialog
      fullScreen
      isChanged={profile !== from}
      onClose={onClose}
      slotProps={{ paper: { 'aria-label': 'Profile of the crate' } as object }}
    >
      <ProfileBar
        profile={profile}
        problems={problems}
        problem={problem}
        onChange={setProfile}
        onKeep={() => void keep()}
        onUse={use}
        onLeave={onClose}
      />
      <Box sx={{ display: 'grid', gridTemplateColumns: '260px minmax(0, 1fr)', flex: 1, minHeight: 0 }}>
        <FileList
          files={files}
          at={at}
          lookedOf={lookedOf}
          onOpen={setAt}
          onAdd={() => setFiles([...files, newFile(files)], files.length)}
        />
        <Box sx={{ p: 3, overflowY: 'auto' }}>
          <FileEditor
            key={at}
            file={files[at]}
            looked={lookedOf(files[at])}
            isBusy={isBusy}
            onChange={(next) => setFiles(files.map((one, k) => (k === at ? next : one)))}
          >
            <Box sx={{ display: 'flex', gap: 1 }}>
              <Button
                onClick={() =>
                  setFiles([...files, { ...files[at], ending: newFile(files).ending }], files.length)
                }
              >
                Copy this file
              </Button>
              <Button
                disabled={files.length === 1}
                onClick={() => setFiles(files.filter((_, k) => k !== at))}
              >
                Remove
              </Button>
            </Box>
          </FileEditor>
        </Box>
      </Box>
    </EditDialog>
  );
}
