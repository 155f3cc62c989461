import Close from '@mui/icons-material/Close';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import { type Profile, profileOf, profileProblems } from '@zesty-tile/core';
import { useState } from 'react';
import { api } from '../../api/client.ts';
import { ImportJson } from '../../api/import-json.tsx';
import { saveFile } from '../../api/save-file.ts';
import { useRemoval } from '../../api/use-undoable.tsx';
import { pressable } from '../../bench/pressed.ts';
import { useBench } from '../../bench/state.ts';
import { ProfilePage } from './profile-page.tsx';
import { useProfiles } from './use-profiles.ts';

/** Reads a profile's JSON. @throws Error in plain words. */
function readProfile(text: string): Profile {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new Error('The file is not JSON. Use one that was exported here.');
  }
  const problems = profileProblems(value);
  if (problems.length > 0) throw new Error(`The profile cannot be used. ${problems.slice(0, 3).join(' ')}`);
  const { document = 'none', ...profile } = value as Profile;
  return { ...profile, document };
}

const use = (ownProfile: Profile) =>
  useBench.getState().setDials('crate', { profile: 'own', ownProfile }, '');

/** A custom profile: changed on a page, kept for the project, removed and in as a file. */
export function OwnProfile({ tile, crate }: { tile: string; crate: number }) {
  const chosen = useBench((s) => s.recipe.stations.crate);
  const projectId = useBench((s) => s.projectId);
  const { data: profiles = [] } = useProfiles(projectId);
  const remove = useRemoval();
  const [problem, setProblem] = useState('');
  const [isOpen, setOpen] = useState(false);
  const now = profileOf(chosen);
  const isOwn = chosen.profile === 'own' && chosen.ownProfile !== null;
  const save = () => {
    const text = `${JSON.stringify(now, null, 2)}\n`;
    saveFile(new Blob([text], { type: 'application/json' }), `${now.name}.profile.json`);
  };
  const take = async (file: File) => {
    try {
      const ownProfile = readProfile(await file.text());
      setProblem('');
      use(ownProfile);
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <Box sx={{ display: 'grid', gap: 0.75 }}>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
        <Button sx={{ gridColumn: '1 / -1' }} onClick={() => setOpen(true)}>
          {isOwn ? 'Change …' : 'Duplicate and edit …'}
        </Button>
        <ImportJson label="Profile file" onFile={(file) => void take(file)} />
        <Button onClick={save}>Export JSON</Button>
      </Box>
      {profiles.length > 0 && (
        <Box
          role="group"
          aria-label="Profiles of the project"
          sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5 }}
        >
          {profiles.map(({ id, profile }) => (
            <Box key={id} sx={{ display: 'flex', alignItems: 'center' }}>
              <Button
                sx={pressable(isOwn && now.name === profile.name)}
                onClick={() => use({ ...profile, document: profile.document ?? 'none' })}
              >
                {profile.name}
              </Button>
              <IconButton
                size="small"
                aria-label={`Delete the profile ${profile.name}`}
                onClick={() => void remove(api.profiles, id, profile.name)}
              >
                <Close sx={{ fontSize: 14 }} />
              </IconButton>
            </Box>
          ))}
        </Box>
      )}
      {problem && <div role="alert">{problem}</div>}
      {isOpen && (
        <ProfilePage
          from={isOwn ? now : { ...now, name: `${now.name}, own`.slice(0, 60) }}
          tile={tile}
          crate={crate}
          onClose={() => setOpen(false)}
        />
      )}
    </Box>
  );
}
